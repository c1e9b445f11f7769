import {
  isOver,
  weeksOn,
  type Limit,
  type LimitIssue,
  type LimitKind,
  type LimitRegion,
  type Rides,
} from '../../riders/limits/limits'

export const LIMIT_NAME: Readonly<Record<LimitKind, string>> = Object.freeze({
  heart: 'Heart condition',
  operation: 'Operation',
  pregnancy: 'Pregnancy',
  injury: 'Injury',
  ankle: 'Old ankle injury',
  hip: 'Stiff hip',
  legDifference: 'One leg shorter',
  firstFoot: 'Foot out first',
  rides: 'Rides elsewhere',
  sitsAt: 'Place on the saddle',
  ownSaddle: 'Own saddle or cover',
  touch: 'Touching',
})
export const LIMIT_REGION_NAME: Readonly<Record<LimitRegion, string>> = Object.freeze({
  foot: 'Foot',
  ankle: 'Ankle',
  knee: 'Knee',
  hip: 'Hip',
  back: 'Back',
  shoulder: 'Shoulder',
  neck: 'Neck',
  hand: 'Hand',
  abdomen: 'Abdomen',
})
export const RIDES_NAME: Readonly<Record<Rides, string>> = Object.freeze({
  none: 'No riding elsewhere',
  upright: 'Upright, in town',
  roadLow: 'Road, low',
})

const sideOf = ({ side }: Limit): string => (side && side !== 'both' ? `, ${side}` : '')

/** "Operation: knee, left, since 2026-10-04", "Pregnancy, week 22", "One leg shorter: left, 8 mm". */
export function formatLimit(limit: Limit, today: string): string {
  const name = LIMIT_NAME[limit.kind]
  const cleared = limit.clearedBy ? `, cleared by ${limit.clearedBy}` : ''
  switch (limit.kind) {
    case 'pregnancy':
      return isOver(limit, today) ? `${name}, past term: ask` : `${name}, week ${weeksOn(limit, today)}${cleared}`
    case 'operation':
    case 'injury':
      return (
        `${name}: ${LIMIT_REGION_NAME[limit.region!].toLowerCase()}${sideOf(limit)}, ` +
        `since ${limit.since}${cleared}`
      )
    case 'legDifference':
      return `${name}: ${limit.side}, ${limit.mm} mm`
    case 'firstFoot':
      return `${name}: ${limit.side}`
    case 'rides':
      return RIDES_NAME[limit.rides!]
    case 'sitsAt':
      return `Sits ${Math.abs(limit.mm!)} mm ${limit.mm! < 0 ? 'behind' : 'ahead of'} the saddle’s middle`
    case 'ownSaddle': {
      const higher = limit.mm ? `, ${Math.abs(limit.mm)} mm ${limit.mm > 0 ? 'higher' : 'lower'}` : ''
      return `Brings an own saddle or cover${higher}`
    }
    case 'touch':
      return limit.yes ? 'May be touched' : 'Not to be touched'
    default:
      return `${name}${sideOf(limit)}${cleared}`
  }
}

/** Why nothing is set up yet: "Heart condition: their clinician’s word first". */
export const formatLimitStop = (limit: Limit): string => `${LIMIT_NAME[limit.kind]}: their clinician’s word first`

/** What a waiting limit means, behind why: nothing before the clinician's word. */
export const LIMIT_REFERRAL =
  'This is nothing to be settled on a bike: nothing is set up, moved or tried before a clinician has said yes. ' +
  'Record who cleared it, and when.'

/** Why a limit was refused, to follow "Not kept: ". */
export const LIMIT_ISSUE_TEXT: Readonly<Record<LimitIssue, string>> = Object.freeze({
  noDate: 'a limit needs the day it began',
  future: 'its day is still to come',
  tooLongAgo: 'its day lies too far back',
  missing: 'a detail of it is missing',
  pastBirth: 'the weeks run past birth. Look at the date and the weeks',
  noSide: 'say which side: left or right',
  outOfRange: 'this length is out of range',
})
