import type { BikeType } from '../../bikes/bike/bike'
import type { MisSetCause, RankedCause } from '../../setups/misSet/misSet'
import { formatLabel, formatMarks } from '../words/labels'
import { axisName, capitalized, formatLength, formatNaturalFrequency } from '../words/phrases'

/** A cause as something to look at. */
export function formatMisSetCause(bikeType: BikeType, cause: MisSetCause): string {
  switch (cause.code) {
    case 'asSet':
      return 'nothing is mis-set: this rider looks so at these marks'
    case 'offByOne':
      return (
        `the ${axisName(bikeType, cause.axis)} stands at ` +
        `${formatLabel(bikeType, cause.axis, cause.truly)}, a mark off`
      )
    case 'swapped':
      return `${axisName(bikeType, cause.axes[0])} and ${axisName(bikeType, cause.axes[1])} were exchanged`
    case 'otherType':
      return `it was set by the numbers for ${cause.type}, ${formatMarks(bikeType, cause.truly)}`
    case 'postSlipped':
      return `the post has slipped, by about ${formatLength(cause.mm)}`
    case 'otherShoe':
      return `other shoes, the sole about ${formatLength(cause.mm)} ${cause.mm > 0 ? 'thicker' : 'thinner'}`
  }
}

/** Minimum chance to report that nothing is mis-set, or one slip; below it the result is unclear. */
const CLEAR_FROM = 0.5

/**
 * What to do in one sentence: that nothing is mis-set only where that is likelier than not; a slip by name where it is;
 * else that it is not clear, and the post is read first. Below one half some alarms are none (an audit with a
 * goniometer counted 8 of 120 riders without a slip, and 33 of 80 slips found): the words are those of a look, not of
 * a finding.
 */
export function formatMisSet(bikeType: BikeType, ranked: readonly RankedCause[]): string {
  const [first, second] = ranked
  const format = (one: RankedCause) => `${formatMisSetCause(bikeType, one)}, ${formatNaturalFrequency(one.chance)}`
  const isClear = first.chance > CLEAR_FROM
  if (isClear) {
    const also = second && second.chance >= WORTH_A_LOOK ? `; else ${format(second)}` : ''
    return `${capitalized(formatMisSetCause(bikeType, first))}: ${formatNaturalFrequency(first.chance)}${also}.`
  }
  const likeliest = ranked.find(({ code }) => code !== 'asSet')
  return `Not clear: read the post first${likeliest ? `. Perhaps ${format(likeliest)}` : ''}.`
}
/** Below this a second cause is not worth a look. */
const WORTH_A_LOOK = 0.1
