import { Type } from '@sinclair/typebox'
import { between, closed, oneOf, type Plain } from '../../base/schema'

/** Limits of a rider that outlast one set-up; health data but for the last five. */
export const LIMIT_KINDS = [
  'heart',
  'operation',
  'pregnancy',
  'injury',
  'ankle',
  'hip',
  'legDifference',
  'firstFoot',
  'rides',
  'sitsAt',
  'ownSaddle',
  'touch',
] as const
export type LimitKind = (typeof LIMIT_KINDS)[number]
export const LIMIT_REGIONS = ['foot', 'ankle', 'knee', 'hip', 'back', 'shoulder', 'neck', 'hand', 'abdomen'] as const
export type LimitRegion = (typeof LIMIT_REGIONS)[number]
/** How somebody rides elsewhere. */
export const RIDES = ['none', 'upright', 'roadLow'] as const
export type Rides = (typeof RIDES)[number]

/** One limit; which fields belong to which kind: `NEEDED`. `since` is a day, YYYY-MM-DD. */
export const limitSchema = closed({
  kind: oneOf(LIMIT_KINDS),
  since: Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }),
  region: Type.Optional(oneOf(LIMIT_REGIONS)),
  /** Of a leg difference the shorter leg; of `firstFoot` the foot that comes out first. */
  side: Type.Optional(oneOf(['left', 'right', 'both'])),
  /** Of a pregnancy: weeks on the day `since`. */
  weeks: Type.Optional(Type.Integer({ minimum: 0, maximum: 60 })),
  /** Of a leg difference its size; of `sitsAt` the distance from the saddle's middle, plus is forward; of an own
   * saddle or cover how much higher the rider sits on it than on the bike's.
   */
  mm: Type.Optional(between(-100, 100)),
  rides: Type.Optional(oneOf(RIDES)),
  /** Of `touch`: whether the rider agrees to be touched. */
  yes: Type.Optional(Type.Boolean()),
  /** The clinician whose word allows riding, as the rider named them. */
  clearedBy: Type.Optional(Type.String({ minLength: 1, maxLength: 80 })),
})
export type Limit = Plain<typeof limitSchema>
type Detail = 'region' | 'side' | 'weeks' | 'mm' | 'rides' | 'yes' | 'clearedBy'

/** Required details of each kind. */
export const NEEDED: Readonly<Record<LimitKind, readonly Detail[]>> = Object.freeze({
  heart: [],
  operation: ['region'],
  pregnancy: ['weeks'],
  injury: ['region', 'side'],
  ankle: ['side'],
  hip: ['side'],
  legDifference: ['side', 'mm'],
  firstFoot: ['side'],
  rides: ['rides'],
  sitsAt: ['mm'],
  ownSaddle: ['mm'],
  touch: ['yes'],
})
/** Kinds of which a rider has one at a time: a new one ends the one before. */
export const SINGLE: readonly LimitKind[] = [
  'heart',
  'pregnancy',
  'legDifference',
  'firstFoot',
  'rides',
  'sitsAt',
  'ownSaddle',
  'touch',
]
/** Kinds that wait for a clinician's word. */
export const CLEARED_KINDS: readonly LimitKind[] = ['heart', 'operation', 'pregnancy', 'injury']

/** Why a limit is refused. */
export type LimitIssue = 'noDate' | 'future' | 'tooLongAgo' | 'missing' | 'pastBirth' | 'noSide' | 'outOfRange'

/** Birth at the latest, weeks; longer is a mistake (obstetric convention: term ends at 42 weeks). */
export const MAX_WEEKS = 42
/** An operation is recent for so many days (assumption; a clinician's word goes before it). */
export const RECENT_DAYS = 180
const EARLIEST = '1920-01-01'

/** Days from a day to another, both YYYY-MM-DD; NaN where one is none. Counts by the calendar, without a time zone. */
export const daysBetween = (from: string, to: string): number => dayNumber(to) - dayNumber(from)

const MONTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const
const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0

/** Days since the year 0 of the Gregorian calendar. */
function dayNumber(day: string): number {
  const [year, month, date] = day.split('-').map(Number)
  const lengths = MONTHS.map((days, i) => (i === 1 && isLeap(year) ? 29 : days))
  if (!(date >= 1 && date <= (lengths[month - 1] ?? 0))) return NaN
  const before = year - 1
  const years = 365 * year + Math.floor(before / 4) - Math.floor(before / 100) + Math.floor(before / 400)
  return years + lengths.slice(0, month - 1).reduce<number>((sum, days) => sum + days, 0) + date
}

/** Weeks of a pregnancy on a day, whole. */
export const weeksOn = ({ weeks = 0, since }: Limit, today: string): number =>
  weeks + Math.floor(daysBetween(since, today) / 7)

/** What is wrong with a limit on a day (YYYY-MM-DD); null where nothing is. */
export function limitIssue(limit: Limit, today: string): LimitIssue | null {
  const { kind, since, side, mm } = limit
  const days = daysBetween(since, today)
  if (Number.isNaN(days)) return 'noDate'
  if (days < 0) return 'future'
  if (since < EARLIEST) return 'tooLongAgo'
  if (!isWhole(limit)) return 'missing'
  if (kind === 'pregnancy' && weeksOn(limit, today) > MAX_WEEKS) return 'pastBirth'
  if ((kind === 'legDifference' || kind === 'firstFoot') && side === 'both') return 'noSide'
  if (kind === 'legDifference' && (mm! < 1 || mm! > 60)) return 'outOfRange'
  if ((kind === 'sitsAt' || kind === 'ownSaddle') && Math.abs(mm!) > 60) return 'outOfRange'
  return null
}

/** Whether a limit has the details of its kind; an archive may bring one without. */
export const isWhole = (limit: Limit): boolean =>
  LIMIT_KINDS.includes(limit.kind) && NEEDED[limit.kind].every((detail) => limit[detail] !== undefined)

/** Whether a limit ended without an entry: a pregnancy past term. */
export const isOver = (limit: Limit, today: string): boolean =>
  limit.kind === 'pregnancy' && weeksOn(limit, today) > MAX_WEEKS

/** Health that sends a rider to a clinician before advice. */
export type LimitHealth = 'pregnant' | 'recentOperation' | 'heart'

/** What a rider's limits change. */
export type LimitEffects = Readonly<{
  health: readonly LimitHealth[]
  /** The limit that waits for a clinician's word: nothing is set up before it; null for none. */
  stop: Limit | null
  /** Why the bars go up; undefined for no reason. */
  upright?: 'heart' | 'operation' | 'pregnant'
  rides?: Rides
  /** Sides of old ankles: their foot is not forced. */
  ankles: readonly ('left' | 'right' | 'both')[]
  shorterLeg?: Readonly<{ side: 'left' | 'right'; mm: number }>
  /** Their place on the saddle, mm ahead of its middle. */
  sitsAtMm?: number
  /** How much higher they sit on their own saddle or cover, mm. */
  ownSaddleMm?: number
}>

/** What acts on a day (YYYY-MM-DD), of limits that were not ended, the latest last. */
export function limitEffects(limits: readonly Limit[], today: string): LimitEffects {
  const standing = limits.filter((limit) => !isOver(limit, today))
  const of = (kind: LimitKind) => standing.filter((limit) => limit.kind === kind)
  const operations = of('operation').filter(({ since }) => daysBetween(since, today) <= RECENT_DAYS)
  const [heart, pregnancy] = [of('heart').at(-1), of('pregnancy').at(-1)]
  const rides = of('rides').at(-1)?.rides
  const { side, mm = 0 } = of('legDifference').at(-1) ?? {}
  const sitsAtMm = of('sitsAt').at(-1)?.mm
  const ownSaddleMm = of('ownSaddle').at(-1)?.mm
  const serious = [heart, ...operations, pregnancy].filter((one) => one !== undefined)
  const upright = pregnancy ? 'pregnant' : heart ? 'heart' : operations.length > 0 ? 'operation' : undefined
  return {
    health: [
      ...(pregnancy ? (['pregnant'] as const) : []),
      ...(operations.length > 0 ? (['recentOperation'] as const) : []),
      ...(heart ? (['heart'] as const) : []),
    ],
    stop: serious.find(({ clearedBy }) => clearedBy === undefined) ?? null,
    ...(upright && { upright }),
    ...(rides && { rides }),
    ...((side === 'left' || side === 'right') && { shorterLeg: { side, mm } }),
    ...(sitsAtMm && { sitsAtMm }),
    ...(ownSaddleMm && { ownSaddleMm }),
    ankles: of('ankle').map(({ side }) => side!),
  }
}
