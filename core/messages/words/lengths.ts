import { formatBodyLength, type ParsedLength, type UnitSystem } from '../../base/length'

type Refusal = Extract<ParsedLength, { outcome: 'refused' }>['reason']

/** Why a typed length was not taken, and how to write it: one sentence. */
export function formatLengthRefusal(reason: Refusal, typed: string, shown: UnitSystem): string {
  if (reason === 'empty') return 'Nothing was typed.'
  if (reason === 'inchesOverAFoot')
    return `“${typed}” has twelve inches or more beside the feet: twelve inches make one foot more.`
  return `“${typed}” is not a length. Write ${shown === 'imperial' ? '5′8″, 68 in or 172 cm' : '172, 1.72 m or 5′8″'}.`
}

/** That a body length lies outside of what can be, and what can. */
export function formatOutOfRange(
  field: 'stature' | 'inseam',
  mm: number,
  [least, most]: readonly [number, number],
  shown: UnitSystem,
): string {
  const format = (length: number) => formatBodyLength(length, shown)
  return (
    `${field === 'stature' ? 'A stature' : 'An inseam'} of ${format(mm)} cannot be; ` +
    `${format(least)} to ${format(most)} can.`
  )
}

export const INSEAM_AS_LONG_AS_BODY = 'An inseam cannot be as long as the whole body.'
export const RARE_INSEAM = 'That inseam is rare for this stature. Measured twice?'
export const NO_BODY_LENGTH = 'Type one of the two, or go by landmark.'
export const WALL_NEEDS_BOTH = 'Against the wall both are needed: wall to axle, and wall to nose.'
export const NO_LENGTH = 'Type at least one of the four lengths.'
