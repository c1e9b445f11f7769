import { INSEAM_RANGE_MM } from '@/core/riders/evidence/kinds/body/inseam'
import { STATURE_RANGE_MM } from '@/core/riders/evidence/kinds/body/stature'
import { USUAL_INSEAM_SHARE } from '@/core/setups/recommend/history/anomalies'
import { parseLength, type UnitSystem } from '@/core/base/length'
import { formatLengthRefusal, formatOutOfRange, INSEAM_AS_LONG_AS_BODY } from '@/core/messages/words/lengths'
import { bodyUnit } from '../../kit/LengthField'

type Field = 'stature' | 'inseam'
type Typed = Readonly<Record<Field, string>>
/** Lengths in mm, null where nothing was typed; `trouble` is a refusal, `rare` needs a confirmation. */
export type ParsedBodyLengths = Readonly<{
  statureMm: number | null
  inseamMm: number | null
  wrong: Field | null
  trouble: string
  rare: boolean
}>

const RANGE_MM = { stature: STATURE_RANGE_MM, inseam: INSEAM_RANGE_MM } as const

/** Reads both fields. Impossible values are refused in words; rare ones need a confirmation. */
export function parseBodyLengths(typed: Typed, shown: UnitSystem): ParsedBodyLengths {
  const stature = oneField('stature', typed.stature, shown)
  const inseam = oneField('inseam', typed.inseam, shown)
  const read = { statureMm: stature.mm, inseamMm: inseam.mm, rare: false }
  if (stature.trouble) return { ...read, wrong: 'stature', trouble: stature.trouble }
  if (inseam.trouble) return { ...read, wrong: 'inseam', trouble: inseam.trouble }
  if (stature.mm === null || inseam.mm === null) return { ...read, wrong: null, trouble: '' }
  if (inseam.mm >= stature.mm) return { ...read, wrong: 'inseam', trouble: INSEAM_AS_LONG_AS_BODY }
  const share = inseam.mm / stature.mm
  return { ...read, wrong: null, trouble: '', rare: share < USUAL_INSEAM_SHARE[0] || share > USUAL_INSEAM_SHARE[1] }
}

function oneField(field: Field, typed: string, shown: UnitSystem): { mm: number | null; trouble: string } {
  const read = parseLength(typed, bodyUnit(shown))
  if (read.outcome === 'refused')
    return { mm: null, trouble: read.reason === 'empty' ? '' : formatLengthRefusal(read.reason, typed, shown) }
  const [least, most] = RANGE_MM[field]
  if (read.mm >= least && read.mm <= most) return { mm: Math.round(read.mm), trouble: '' }
  return { mm: null, trouble: formatOutOfRange(field, read.mm, RANGE_MM[field], shown) }
}
