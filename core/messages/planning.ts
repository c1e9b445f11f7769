import type { Need } from '../planning/room'
import type { PlaceReason, Unplaced } from '../planning/places'
import type { Late } from '../planning/queue'
import { AXIS_NAME, capitalized, formatLength } from './phrases'

/** Nearer than this nothing is felt, mm. */
const SAID_FROM_MM = 1.5

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
      return reason.residueMm < SAID_FROM_MM
        ? `numbers carried over from ${reason.from}`
        : `numbers carried over from ${reason.from}, ${formatLength(reason.residueMm)} left over`
    case 'outOfRange':
      return `the ${AXIS_NAME[reason.axis]} ends ${formatLength(reason.missingMm)} before`
    case 'turned':
      return `looks ${Math.round(reason.deg)}° aside`
  }
}

const UNPLACED: Readonly<Record<Unplaced['why'], string>> = {
  noBike: 'there are more riders than bikes, and others were on the list before',
  pinTaken: 'somebody else was put on this bike before',
  pinUnknown: 'the bike is not in this room',
  pinOutOfService: 'the bike is out of use',
}
export const formatUnplaced = ({ why }: Unplaced): string => capitalized(`${UNPLACED[why]}.`)

/** "Ready 3 min after the start; 5 min earlier, and ready in time." */
export function formatLate({ fromMin, toMin, comeByMin }: Late, startMin: number): string {
  const over = `Ready ${Math.max(1, Math.round(toMin - startMin))} min after the start`
  return comeByMin === null
    ? `${over}; there are too few hands: look again in the warm-up.`
    : `${over}; ${Math.ceil(fromMin - comeByMin)} min earlier, and ready in time.`
}

/** What a rider needs before the class, as a tile says it. */
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

/** "2 min more than the cheapest places", for a change by hand; empty where nothing can be said. */
export function formatExtra(extraMin: number | null): string {
  if (extraMin === null) return ''
  if (Math.abs(extraMin) < 0.05) return 'It costs nothing.'
  const minutes = `${Math.abs(extraMin).toFixed(1).replace(/\.0$/, '')} min`
  return extraMin > 0 ? `It costs ${minutes} of an instructor.` : `It saves ${minutes} of an instructor.`
}

/** Maximum number of riders named; the rest is counted. */
const MAX_NAMED = 4

/** "Runa Sollie moves to bike 7. Perrin Hask has no bike now.", for those whom a change moved; empty for nobody. */
export function formatMovedRiders(moved: readonly Readonly<{ name: string; number: number | null }>[]): string {
  const first = [...moved].sort((a, b) => Number(a.number !== null) - Number(b.number !== null)).slice(0, MAX_NAMED)
  const said = first.map(({ name, number }) =>
    number === null ? `${name} has no bike now.` : `${name} moves to bike ${number}.`,
  )
  const more = moved.length - first.length
  return [...said, ...(more > 0 ? [`${more} more move${more === 1 ? 's' : ''}.`] : [])].join(' ')
}
