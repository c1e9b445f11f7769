import { formatCalendarFault } from '../../core/messages/classes/calendar'
import { formatClassListFault, type ClassListFault, type TimetableTaken } from '../../core/messages/classes/timetable'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import type { CalendarWindow } from './calendar/calendar'
import { readCalendarInThread } from './calendar/readInThread'
import { readClassList, type ListedClass } from './classList'
import { membersNamed } from '../riders/members/members'
import { sourceKey, upsertTimetable, type TimetableEntry } from './classes'
import { listRoster, upsertBooking, type RosterRider } from './roster'

/** A text to import, and whether to check it or to import it. */
export type BroughtIn = Readonly<{ text: string; timeZone: string; take: boolean }>

export type BringInResult = Readonly<{
  found: readonly Readonly<{ title: string; place: string; startsAt: Date; riders: number; cancelled: boolean }>[]
  faults: readonly string[]
  taken: TimetableTaken | null
  /** The text took too much time or memory; nothing of it was read. */
  gaveUp: boolean
}>

/** From a calendar so far back and ahead is taken, ms: today's classes and the coming weeks. */
const BACK_MS = 86_400_000
const AHEAD_MS = 70 * 86_400_000
const MAX_SHOWN = 400

/**
 * Reads a calendar (iCalendar) or a list of classes (CSV), whichever it is, and takes it over where `take`. Unreadable
 * lines are reported as faults; the rest counts. The same text again changes nothing.
 */
export async function importTimetable(
  db: Database,
  scope: Scope,
  { text, timeZone, take }: BroughtIn,
  now: Date,
): Promise<BringInResult> {
  const isCalendar = /^\uFEFF?\s*BEGIN:VCALENDAR/i.test(text)
  const window = { from: new Date(now.getTime() - BACK_MS), to: new Date(now.getTime() + AHEAD_MS), timeZone }
  const read = isCalendar ? await fromCalendar(text, window) : fromList(text, timeZone)
  const { bookings, faults } = await bookingsOf(db, scope, read.listed)
  const taken = take ? await takeAll(db, scope, isCalendar ? 'calendar' : 'list', read.entries, bookings, now) : null
  return {
    found: read.entries.slice(0, MAX_SHOWN).map(({ title, place, startsAt, cancelled, uid, occurrence }) => ({
      title,
      place,
      startsAt,
      cancelled,
      riders: bookings.filter((one) => one.uid === uid && one.occurrence === occurrence).length,
    })),
    faults: [...read.faults, ...faults.map(formatClassListFault)],
    taken,
    gaveUp: read.gaveUp,
  }
}

type Read = Readonly<{
  entries: readonly TimetableEntry[]
  listed: readonly ListedClass[]
  faults: readonly string[]
  gaveUp: boolean
}>

async function fromCalendar(text: string, window: CalendarWindow): Promise<Read> {
  const { events, faults } = await readCalendarInThread(text, window)
  const entries = events.map(({ uid, at, title, ...rest }) => ({
    ...rest,
    uid: uid.slice(0, 190),
    occurrence: at.slice(0, 40),
    title: title.slice(0, 120) || 'Class',
  }))
  const gaveUp = faults.some(({ code }) => code === 'gaveUp')
  return { entries, listed: [], faults: faults.map(formatCalendarFault), gaveUp }
}

function fromList(text: string, timeZone: string): Read {
  const { classes, faults } = readClassList(text, timeZone)
  const entries = classes.map(({ riders: _, ...entry }) => entry)
  return { entries, listed: classes, faults: faults.map(formatClassListFault), gaveUp: false }
}

type Booking = Readonly<{ uid: string; occurrence: string; memberId: string; comesMinBefore: number }>

/** Bookings by the studio's members of these names; names of none or several members are reported. */
async function bookingsOf(
  db: DbExecutor,
  scope: Scope,
  listed: readonly ListedClass[],
): Promise<Readonly<{ bookings: Booking[]; faults: ClassListFault[] }>> {
  const memberIds = await membersNamed(
    db,
    scope,
    listed.flatMap(({ riders }) => riders.map(({ name }) => name)),
  )
  const faults: ClassListFault[] = []
  const bookings = listed.flatMap(({ uid, occurrence, riders }) =>
    riders.flatMap(({ line, name, comesMinBefore }): Booking[] => {
      const ids = memberIds.get(name.toLowerCase()) ?? []
      if (ids.length === 1) return [{ uid, occurrence, memberId: ids[0], comesMinBefore }]
      faults.push({ line, code: ids.length === 0 ? 'unknownName' : 'severalOfName', text: name })
      return []
    }),
  )
  return { bookings, faults }
}

function takeAll(
  db: Database,
  scope: Scope,
  source: 'calendar' | 'list',
  entries: readonly TimetableEntry[],
  bookings: readonly Booking[],
  now: Date,
): Promise<TimetableTaken> {
  return withTransaction(db, async (tx) => {
    const { tally, classIds } = await upsertTimetable(tx, scope, source, entries, now)
    const rosters = new Map<string, readonly RosterRider[]>()
    for (const { memberId, comesMinBefore, ...of } of bookings) {
      const classId = classIds.get(sourceKey(of))
      if (!classId) continue
      if (!rosters.has(classId)) rosters.set(classId, await listRoster(tx, scope, classId))
      const before = rosters.get(classId)!.find((one) => one.memberId === memberId)
      await upsertBooking(tx, scope, { classId, memberId, state: 'booked', comesMinBefore }, before, now)
    }
    return { ...tally, booked: bookings.length }
  })
}
