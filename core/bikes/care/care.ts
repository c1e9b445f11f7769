import { Type } from '@sinclair/typebox'
import { closed, oneOf, type Plain } from '../../base/schema'

/** What wears on a studio bike, in the order one walks around it. */
export const CARE_PARTS = [
  'pins',
  'bolts',
  'barClamp',
  'posts',
  'saddle',
  'seatPost',
  'bars',
  'pedals',
  'cleatPlates',
  'straps',
  'cranks',
  'bearings',
  'brake',
] as const
export type CarePart = (typeof CARE_PARTS)[number]

/** What was done about a part. */
export const CARE_DEEDS = ['done', 'replaced'] as const
export type CareDeed = (typeof CARE_DEEDS)[number]

/** After so many days, or so many rides, whichever comes first; a part without either is only replaced. */
export type CareInterval = Readonly<{ days?: number; rides?: number }>

const intervalSchema = closed({
  days: Type.Optional(Type.Integer({ minimum: 1, maximum: 3650 })),
  rides: Type.Optional(Type.Integer({ minimum: 1, maximum: 100_000 })),
})
/** Intervals that differ from the usual, by part. */
export const careIntervalsSchema = Type.Unsafe<CareIntervals>(
  closed(Object.fromEntries(CARE_PARTS.map((part) => [part, Type.Optional(intervalSchema)]))),
)
export type CareIntervals = Readonly<Partial<Record<CarePart, CareInterval>>>

/** One deed as it is recorded. */
export const careRowSchema = closed({
  part: oneOf(CARE_PARTS),
  deed: oneOf(CARE_DEEDS),
  note: Type.String({ maxLength: 300 }),
})
export type CareRow = Plain<typeof careRowSchema>

/**
 * Usual intervals. Common practice, no source: fasteners monthly, posts drawn and greased monthly so that they do not
 * seize, plates and straps with the rides they bear, bearings by the half-year. The maker's manual comes first.
 */
export const USUAL_INTERVALS: CareIntervals = Object.freeze({
  pins: { days: 30 },
  bolts: { days: 30, rides: 80 },
  barClamp: { days: 30, rides: 60 },
  posts: { days: 30 },
  saddle: { days: 90, rides: 200 },
  pedals: { days: 30, rides: 80 },
  cleatPlates: { days: 60, rides: 120 },
  straps: { days: 60, rides: 120 },
  bearings: { days: 180, rides: 500 },
  brake: { days: 90, rides: 300 },
})

/**
 * What a new part makes doubtful: the machine's own tape readings, the tilt of its saddle, or the height of its pedals.
 */
export type Opened = 'tape' | 'tilt' | 'pedals'
export const OPENED_BY: Readonly<Partial<Record<CarePart, readonly Opened[]>>> = Object.freeze({
  saddle: ['tape', 'tilt'],
  seatPost: ['tape', 'tilt'],
  bars: ['tape'],
  barClamp: ['tape'],
  pedals: ['pedals'],
  cranks: ['pedals'],
})

/** The interval of a part: the machine's own, else the studio's, else the usual; null where it is only replaced. */
export const intervalOf = (
  part: CarePart,
  studio: CareIntervals | null | undefined,
  own: CareIntervals | null | undefined,
): CareInterval | null => own?.[part] ?? studio?.[part] ?? USUAL_INTERVALS[part] ?? null

/** A part as it stands: `never` was not seen to yet; `due` is over by days or rides. Times in ms since 1970, UTC. */
export type CareState = Readonly<
  { part: CarePart } & (
    | { outcome: 'never' }
    | { outcome: 'good' | 'soon' | 'due'; by: 'days' | 'rides'; dueAtMs: number | null; ridesLeft: number | null }
  )
>

const DAY_MS = 86_400_000
/** So near to its end an interval is said to end soon. */
const SOON_DAYS = 7
const SOON_SHARE = 0.15

/** How a part stands, last seen to at `last.atMs` and ridden `last.rides` times since; null where it never was. */
export function careState(
  part: CarePart,
  interval: CareInterval,
  last: Readonly<{ atMs: number; rides: number }> | null,
  nowMs: number,
): CareState {
  if (!last) return { part, outcome: 'never' }
  const dueAtMs = interval.days === undefined ? null : last.atMs + interval.days * DAY_MS
  const ridesLeft = interval.rides === undefined ? null : interval.rides - last.rides
  const daysLeft = dueAtMs === null ? Infinity : (dueAtMs - nowMs) / DAY_MS
  const isDue = daysLeft <= 0 || (ridesLeft !== null && ridesLeft <= 0)
  const isSoon =
    daysLeft <= SOON_DAYS || (ridesLeft !== null && ridesLeft <= Math.ceil(SOON_SHARE * (interval.rides ?? 0)))
  const sharesLeft = {
    days: interval.days === undefined ? Infinity : daysLeft / interval.days,
    rides: ridesLeft === null ? Infinity : ridesLeft / interval.rides!,
  }
  const by = sharesLeft.rides < sharesLeft.days ? 'rides' : 'days'
  return { part, outcome: isDue ? 'due' : isSoon ? 'soon' : 'good', by, dueAtMs, ridesLeft }
}

const URGENCY = { due: 0, never: 1, soon: 2, good: 3 } as const

/** The most urgent first; of equals in the order of a walk around the bike. */
export const byUrgency = (states: readonly CareState[]): CareState[] =>
  states.toSorted(
    (a, b) => URGENCY[a.outcome] - URGENCY[b.outcome] || CARE_PARTS.indexOf(a.part) - CARE_PARTS.indexOf(b.part),
  )

/** A part replaced after what it moved was last measured, by `lastAtMs` of each kind; the latest of each part. */
export function openedParts<D extends Readonly<{ part: CarePart; deed: CareDeed; atMs: number }>>(
  latestFirst: readonly D[],
  lastAtMs: Readonly<Record<Opened, number>>,
): D[] {
  const opens = latestFirst.filter(
    ({ part, deed, atMs }) => deed === 'replaced' && OPENED_BY[part]?.some((what) => lastAtMs[what] <= atMs),
  )
  return opens.filter((one, i) => opens.findIndex(({ part }) => part === one.part) === i)
}

/** When the machine's readings of a kind begin to count: after the last part that opened them was replaced. */
export const opensAtMs = (
  what: Opened,
  deeds: readonly Readonly<{ part: CarePart; deed: CareDeed; atMs: number }>[],
): number =>
  deeds.reduce(
    (latest, { part, deed, atMs }) =>
      deed === 'replaced' && OPENED_BY[part]?.includes(what) ? Math.max(latest, atMs) : latest,
    -Infinity,
  )
