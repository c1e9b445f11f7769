import type { EvidenceOf } from '../../riders/evidence/registry'
import { FELT, RED_FLAG } from '../../classes/watch/comfort'
import { capitalized, formatAgo } from '../words/phrases'
import { REGION_NAME, signNamed, type Region } from '../../classes/watch/signs'
import { formatNoted } from '../classes/watch'
import { formatPedalSide } from '../bikes/bikeNames'

/**
 * What was noted: "Knees: out", the side where the sign has sides, and the cue in the studio's words (`cues`, by sign);
 * what was felt with its strength, a red flag by its name. Unknown signs stay as stored.
 */
export function describeNote(
  {
    region,
    sign,
    side,
    score,
  }: Readonly<{
    region: string
    sign: string
    side: 'left' | 'right' | 'both'
    score?: number | null
  }>,
  cues: Readonly<Record<string, string>> = {},
) {
  if (sign === FELT || sign === RED_FLAG)
    return { seen: capitalized(formatNoted({ sign, region, score })), side: side === 'both' ? null : side, cue: '' }
  const named = signNamed(sign)
  return {
    seen: `${REGION_NAME[region as Region] ?? region}: ${(named?.name ?? sign).toLowerCase()}`,
    side: named?.sided ? side : null,
    cue: cues[sign] ?? named?.cue ?? '',
  }
}

/** "8 months ago: regular, cleats, 21 mm sole" */
export function formatAnsweredBefore({
  row,
  agoDays,
}: Readonly<{ row: EvidenceOf<'rider'>; agoDays: number }>): string {
  const what = [
    row.experience,
    formatPedalSide(row.pedal),
    row.soleMm !== undefined && `${row.soleMm} mm sole`,
    row.backSore && 'sore back',
    row.pregnant && 'pregnant',
  ].filter(Boolean)
  return `${capitalized(formatAgo(agoDays))}: ${what.join(', ')}`
}
