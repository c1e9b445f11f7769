import { importTimetable } from '../importTimetable'
import type { Database } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'
import { readText, type BookingAnswer, type BookingService } from './bookingService'
import { beginFeed, endFeed, type Feed } from './feedRuns'
import { bookingScope, takeBookings, type BookingsTaken } from './takeBookings'

/** How a booking service or a calendar feed was found last. */
export type SourceStatus = Readonly<{
  /** Time of the last successful response, or null. */
  readAt: Date | null
  /** What is wrong since, null while all is well. */
  trouble: Exclude<BookingAnswer['outcome'], 'read'> | 'notTaken' | 'skipped' | null
  troubleSince: Date | null
  nextAt: Date
  taken: BookingsTaken | null
}>

/** Poll interval, ms; exponential backoff after failures, up to the maximum. */
export const EVERY_MS = 20_000
export const MAX_WAIT_MS = 300_000

/** Wait before the next request after a number of failures in a row, ms; `uneven`, 0 to 1, is the jitter. */
export const waitAfter = (failures: number, uneven: number): number =>
  Math.min(MAX_WAIT_MS, EVERY_MS * 2 ** failures) * (failures === 0 ? 1 : 0.75 + 0.5 * uneven)

type Polls = Map<string, SourceStatus>
const KEY = Symbol.for('yielding-saddle.bookings')
const statuses = (): Polls => {
  const shared = globalThis as unknown as Record<symbol, Polls | undefined>
  return (shared[KEY] ??= new Map())
}

/** How a studio's booking service was found last; null where it has none. */
export const bookingStatus = (studioId: string): SourceStatus | null => statuses().get(studioId) ?? null

type Timing = Readonly<{ now: () => Date; wait: (ms: number) => Promise<void>; uneven: () => number }>
const REAL: Timing = {
  now: () => new Date(),
  wait: (ms) => new Promise((resolve) => void setTimeout(resolve, ms).unref()),
  uneven: Math.random,
}

type Round = Readonly<{ trouble: SourceStatus['trouble']; taken: BookingsTaken | null }>

type Source = Readonly<{ key: string; studioId: string; feed: Feed; address: string; everyMs: number }>

/**
 * Polls a source until `signal` aborts. An error ends one round, not the polling. Skips a source for a day after two
 * hung reads.
 */
async function poll(
  db: Database,
  { key, everyMs, ...source }: Source,
  round: (now: Date) => Promise<Round>,
  signal: AbortSignal,
  timing: Timing,
): Promise<void> {
  let failures = 0
  let isEndNoted = true
  while (!signal.aborted) {
    const before = statuses().get(key)
    const now = timing.now()
    const { trouble, taken } = await noted(now).catch((): Round => ({ trouble: 'notTaken', taken: null }))
    failures = trouble === null ? 0 : failures + 1
    const waitMs = failures === 0 ? everyMs : waitAfter(failures, timing.uneven())
    statuses().set(key, {
      readAt: trouble === null ? now : (before?.readAt ?? null),
      trouble,
      troubleSince: trouble === null ? null : (before?.troubleSince ?? now),
      nextAt: new Date(now.getTime() + waitMs),
      taken: taken ?? before?.taken ?? null,
    })
    await timing.wait(waitMs)
  }

  /** Runs a round and records its start and end in the database; a hung server leaves it unfinished. */
  async function noted(now: Date): Promise<Round> {
    // Records the end of an earlier round late if the database was down then.
    if (!isEndNoted) await endFeed(db, source)
    isEndNoted = true
    if (!(await beginFeed(db, source, now))) return { trouble: 'skipped', taken: null }
    isEndNoted = false
    try {
      return await round(now)
    } finally {
      await endFeed(db, source).then(
        () => (isEndNoted = true),
        () => undefined,
      )
    }
  }
}

/** Polls a studio's booking service and imports the response. */
export function pollBookings(
  db: Database,
  studioId: string,
  service: BookingService,
  signal: AbortSignal,
  timing: Timing = REAL,
): Promise<void> {
  const round = async (now: Date): Promise<Round> => {
    const answer = await service.read()
    if (answer.outcome !== 'read') return { trouble: answer.outcome, taken: null }
    const scope = await bookingScope(db, studioId)
    return { trouble: null, taken: scope && (await takeBookings(db, scope, answer.feed, now)) }
  }
  const source = { key: studioId, studioId, feed: 'booking', address: service.address, everyMs: EVERY_MS } as const
  return poll(db, source, round, signal, timing)
}

/** Poll interval of a calendar, ms: calendars change seldom. */
export const CALENDAR_EVERY_MS = 900_000
const ofCalendar = (studioId: string) => `calendar of ${studioId}`

/** How a studio's calendar feed was found last; null where it has none. */
export const calendarStatus = (studioId: string): SourceStatus | null => statuses().get(ofCalendar(studioId)) ?? null

/** Polls a studio's calendar (iCalendar over HTTP) and imports it. */
export function pollCalendar(
  db: Database,
  studioId: string,
  url: string,
  signal: AbortSignal,
  timing: Timing = REAL,
): Promise<void> {
  const round = async (now: Date): Promise<Round> => {
    const answer = await readText(url, 'text/calendar')
    if (answer.outcome !== 'read') return { trouble: answer.outcome, taken: null }
    if (!/^\uFEFF?\s*BEGIN:VCALENDAR/i.test(answer.text)) return { trouble: 'nonsense', taken: null }
    const scope = await bookingScope(db, studioId)
    if (!scope) return { trouble: null, taken: null }
    const { timeZone } = await getStudio(db, scope)
    const input = { text: answer.text, timeZone, take: true }
    const { faults, taken, gaveUp } = await importTimetable(db, scope, input, now)
    if (gaveUp) return { trouble: 'nonsense', taken: null }
    const classes = taken ? taken.added + taken.changed + taken.cancelled : 0
    return { trouble: null, taken: { classes, bookings: 0, unknownNames: [], faults: faults.length } }
  }
  const source = { studioId, feed: 'calendar', address: url, everyMs: CALENDAR_EVERY_MS } as const
  return poll(db, { key: ofCalendar(studioId), ...source }, round, signal, timing)
}
