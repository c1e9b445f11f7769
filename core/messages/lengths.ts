import type { UnitSystem, ParsedLength } from '../units/length'

type Refusal = Extract<ParsedLength, { outcome: 'refused' }>['reason']

/** Why a typed length was not taken, and how to write it: one sentence. */
export function formatLengthRefusal(reason: Refusal, typed: string, shown: UnitSystem): string {
  if (reason === 'empty') return 'Nothing was typed.'
  if (reason === 'inchesOverAFoot')
    return `“${typed}” has twelve inches or more beside the feet: twelve inches make one foot more.`
  return `“${typed}” is not a length. Write ${shown === 'imperial' ? '5′8″, 68 in or 172 cm' : '172, 1.72 m or 5′8″'}.`
}
