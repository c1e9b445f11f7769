import type { BikeType } from '../bike/bike'
import type { MisSetCause, RankedCause } from '../misSet/misSet'
import { formatLabel, formatMarks } from './labels'
import { AXIS_NAME, capitalized, formatLength, formatNaturalFrequency } from './phrases'

/** A cause as something to look at. */
export function formatMisSetCause(bikeType: BikeType, cause: MisSetCause): string {
  switch (cause.code) {
    case 'asSet':
      return 'nothing is mis-set: this rider looks so at these marks'
    case 'offByOne':
      return `the ${AXIS_NAME[cause.axis]} stands at ${formatLabel(bikeType, cause.axis, cause.truly)}, a mark off`
    case 'swapped':
      return `${AXIS_NAME[cause.axes[0]]} and ${AXIS_NAME[cause.axes[1]]} were exchanged`
    case 'otherType':
      return `it was set by the numbers for ${cause.type}, ${formatMarks(bikeType, cause.truly)}`
    case 'postSlipped':
      return `the post has slipped, by about ${formatLength(cause.mm)}`
    case 'otherShoe':
      return `other shoes, the sole about ${formatLength(cause.mm)} ${cause.mm > 0 ? 'thicker' : 'thinner'}`
  }
}

/** The likeliest cause in one sentence, with what else to look at. */
export function formatMisSet(bikeType: BikeType, ranked: readonly RankedCause[]): string {
  const [first, second] = ranked
  const likely = `${capitalized(formatMisSetCause(bikeType, first))}: ${formatNaturalFrequency(first.chance)}`
  return !second || second.chance < WORTH_A_LOOK
    ? `${likely}.`
    : `${likely}; else ${formatMisSetCause(bikeType, second)}, ${formatNaturalFrequency(second.chance)}.`
}
/** Below this a second cause is not worth a look. */
const WORTH_A_LOOK = 0.1
