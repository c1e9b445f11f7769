import { USUAL_INSEAM_SHARE } from '@/core/recommend/doubts'
import { bodyLengthSaid, readLength, type LengthShown } from '@/core/units/length'
import { lengthRefusedSaid } from '@/core/words/lengths'
import { bodyUnit } from '../shared/LengthField'

type Field = 'stature' | 'inseam'
type Typed = Readonly<Record<Field, string>>
/** Lengths in mm, null where nothing was typed; `trouble` refuses, `rare` asks. */
export type TapeRead = Readonly<{
  statureMm: number | null
  inseamMm: number | null
  wrong: Field | null
  trouble: string
  rare: boolean
}>

const LIMITS_MM: Readonly<Record<Field, readonly [number, number]>> = { stature: [1000, 2500], inseam: [400, 1300] }

/** Reads both fields. What cannot be is refused in words; what is rare is asked about. */
export function readTape(typed: Typed, shown: LengthShown): TapeRead {
  const stature = oneField('stature', typed.stature, shown)
  const inseam = oneField('inseam', typed.inseam, shown)
  const read = { statureMm: stature.mm, inseamMm: inseam.mm, rare: false }
  if (stature.trouble) return { ...read, wrong: 'stature', trouble: stature.trouble }
  if (inseam.trouble) return { ...read, wrong: 'inseam', trouble: inseam.trouble }
  if (stature.mm === null || inseam.mm === null) return { ...read, wrong: null, trouble: '' }
  if (inseam.mm >= stature.mm)
    return { ...read, wrong: 'inseam', trouble: 'An inseam cannot be as long as the whole body.' }
  const share = inseam.mm / stature.mm
  return { ...read, wrong: null, trouble: '', rare: share < USUAL_INSEAM_SHARE[0] || share > USUAL_INSEAM_SHARE[1] }
}

function oneField(field: Field, typed: string, shown: LengthShown): { mm: number | null; trouble: string } {
  const read = readLength(typed, bodyUnit(shown))
  if (read.outcome === 'refused')
    return { mm: null, trouble: read.reason === 'empty' ? '' : lengthRefusedSaid(read.reason, typed, shown) }
  const [least, most] = LIMITS_MM[field]
  if (read.mm >= least && read.mm <= most) return { mm: Math.round(read.mm), trouble: '' }
  return {
    mm: null,
    trouble: `${field === 'stature' ? 'A stature' : 'An inseam'} of ${bodyLengthSaid(read.mm, shown)} cannot be; ${bodyLengthSaid(least, shown)} to ${bodyLengthSaid(most, shown)} can.`,
  }
}
