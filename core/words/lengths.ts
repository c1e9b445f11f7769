import type { LengthShown, ReadLength } from '../units/length'

type Refusal = Extract<ReadLength, { outcome: 'refused' }>['reason']

/** Why a typed length was not taken, and how to write it: one sentence. */
export function lengthRefusedSaid(reason: Refusal, typed: string, shown: LengthShown): string {
  if (reason === 'empty') return 'Nothing was typed.'
  if (reason === 'inchesOverAFoot')
    return `“${typed}” has twelve inches or more beside the feet: twelve inches make one foot more.`
  return `“${typed}” is not a length. Write ${shown === 'feet' ? '5′8″, 68 in or 172 cm' : '172, 1.72 m or 5′8″'}.`
}
