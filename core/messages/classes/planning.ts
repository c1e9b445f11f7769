import type { Need } from '../../classes/planning/room'
import type { PlaceReason, Unplaced } from '../../classes/planning/places'
import type { Late } from '../../classes/planning/queue'
import { AXIS_NAME, capitalized, formatLength } from '../words/phrases'

/** Nearer than this nothing is felt, mm. */
const MIN_SHOWN_MM = 1.5

/** Why somebody sits here, or what speaks against it, in a few words. */
export function formatPlaceReason(reason: PlaceReason): string {
  switch (reason.code) {
    case 'pinned':
      return 'put here by hand'
    case 'ownNumbers':
      return 'has numbers for this type'
    case 'recheck':
      return 'due for a second look'
    case 'firstSetUp':
      return 'first set-up'
    case 'seenByInstructor':
      return 'where the instructor sees a newcomer'
    case 'lastBike':
      return 'the bike of last time'
    case 'otherBike':
      return 'not the bike of last time'
    case 'rowAsWished':
      return 'in the row wished for'
    case 'otherRow':
      return `wished for the ${reason.wish} row`
    case 'translated':
      return reason.residueMm < MIN_SHOWN_MM
        ? `numbers carried over from ${reason.from}`
        : `numbers carried over from ${reason.from}, ${formatLength(reason.residueMm)} left over`
    case 'outOfRange':
      return `the ${AXIS_NAME[reason.axis]} ends ${formatLength(reason.missingMm)} before`
    case 'turned':
      return `looks ${Math.round(reason.deg)}° aside`
  }
}

const UNPLACED: Readonly<Record<Unplaced['why'], string>> = {
  noBike: 'there are more riders than bikes, and others booked first',
  pinTaken: 'somebody else was put on this bike before',
  pinUnknown: 'the bike is not in this room',
  pinOutOfService: 'the bike is out of use',
}
export const formatUnplaced = ({ why }: Unplaced): string => capitalized(`${UNPLACED[why]}.`)

/** "Ready 3 minutes late. In time if they come 5 minutes earlier." */
export function formatLate({ fromMin, toMin, comeByMin }: Late, startMin: number): string {
  const over = `Ready ${formatMinutes(toMin - startMin)} late.`
  return comeByMin === null
    ? `${over} Too few people are setting up: look again in the warm-up.`
    : `${over} In time if they come ${formatMinutes(Math.ceil(fromMin - comeByMin))} earlier.`
}

/** What a rider needs before the class, for a tile. */
export const NEED_WORD: Readonly<Record<Need, string>> = {
  none: '',
  translate: 'carry over',
  recheck: 're-check',
  new: 'new',
}
export const NEED_TITLE: Readonly<Record<Need, string>> = {
  none: 'nothing to do',
  translate: 'carry the numbers over',
  recheck: 'second look',
  new: 'first set-up',
}

/** A text to send to somebody who should come earlier. */
export const formatComeEarlier = (name: string, title: string, time: string, studio: string): string =>
  `Hello ${name.split(' ')[0]}, could you be here by ${time} for ${title}? Then there is time to set your bike up ` +
  `before the music starts. See you, ${studio}`

/** "About 6 minutes more of set-up.", for a change by hand; empty below half a minute or where it is unknown. */
export function formatExtra(extraMin: number | null): string {
  if (extraMin === null || Math.abs(extraMin) < 0.5) return ''
  const minutes = `About ${formatMinutes(Math.abs(extraMin))}`
  return extraMin > 0 ? `${minutes} more of set-up.` : `${minutes} less of set-up.`
}

/** "1 minute", "6 minutes". */
export function formatMinutes(minutes: number): string {
  const whole = Math.max(1, Math.round(minutes))
  return `${whole} minute${whole === 1 ? '' : 's'}`
}

/** Maximum number of riders named; the rest is counted. */
const MAX_NAMED = 4

/**
 * "2 others moved: Runa Sollie to 7, Perrin Hask has no bike.", or "would move" for a preview; empty for nobody. Those
 * without a bike come first.
 */
export function formatMovedRiders(
  moved: readonly Readonly<{ name: string; number: number | null }>[],
  isPreview = false,
): string {
  if (moved.length === 0) return ''
  const first = [...moved].sort((a, b) => Number(a.number !== null) - Number(b.number !== null)).slice(0, MAX_NAMED)
  const named = first.map(({ name, number }) => (number === null ? `${name} has no bike` : `${name} to ${number}`))
  const more = moved.length - first.length
  const list = [...named, ...(more > 0 ? [`${more} more`] : [])].join(', ')
  return `${moved.length} other${moved.length === 1 ? '' : 's'} ${isPreview ? 'would move' : 'moved'}: ${list}.`
}

/** "Runa Sollie, Perrin Hask and 3 more". */
export function formatNames(names: readonly string[]): string {
  const shown = names.length <= MAX_NAMED + 1 ? names : names.slice(0, MAX_NAMED)
  const all = shown.length < names.length ? [...shown, `${names.length - shown.length} more`] : shown
  return all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
}

/** On a tile: the rider's numbers are for another type. */
export const formatCarryOver = (typeName: string): string => `carry over from ${typeName}`

/** On a printed sheet: the rider's numbers are for another type. */
export const formatOtherNumbers = (typeName: string): string => `numbers are for ${typeName}`
