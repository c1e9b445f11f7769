import { and, asc, eq } from 'drizzle-orm'
import type { Scope } from '../../platform/accounts/scope'
import { sourceKey, upsertTimetable } from '../classes'
import { publishClassEvent } from '../live'
import { replanClass } from '../replan'
import { listRoster, upsertBooking, type RosterRider } from '../roster'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { user } from '../../platform/accounts/tables'
import { membersNamed } from '../../riders/members/members'
import type { BookingFeed, FeedBooking } from './feed'

/** What a feed changed: classes new, changed or called off, bookings that moved, and names that are nobody's here. */
export type BookingsTaken = Readonly<{
  classes: number
  bookings: number
  unknownNames: readonly string[]
  faults: number
}>

/** For whom a studio's bookings are written: its first manager. Null for a studio without any. */
export async function bookingScope(db: DbExecutor, studioId: string): Promise<Scope | null> {
  const [found] = await db
    .select({ userId: user.id, role: user.role })
    .from(user)
    .where(and(eq(user.studioId, studioId), eq(user.role, 'manager')))
    .orderBy(asc(user.createdAt), asc(user.id))
    .limit(1)
  return found ? { studioId, ...found } : null
}

/**
 * Imports the answer of a booking service. Riders who are here already stay so; a class whose list
 * changed is placed again. The same feed again changes nothing.
 */
export async function takeBookings(
  db: Database,
  scope: Scope,
  { classes, bookings, faults }: BookingFeed,
  now: Date,
): Promise<BookingsTaken> {
  const entries = classes.map(({ id, title, room = '', startsAt, endsAt, cancelled = false }) => ({
    ...ofFeed(id),
    title,
    place: room,
    startsAt: new Date(startsAt),
    endsAt: new Date(endsAt),
    cancelled,
  }))
  const moved = new Set<string>()
  const unknown = new Set<string>()
  const result = await withTransaction(db, async (tx) => {
    moved.clear()
    unknown.clear()
    const { tally, classIds } = await upsertTimetable(tx, scope, 'booking', entries, now)
    const { added, changed, cancelled } = tally
    const memberIds = await membersNamed(
      tx,
      scope,
      bookings.map(({ name }) => name),
    )
    const rosters = new Map<string, readonly RosterRider[]>()
    const newest = new Map<string, Readonly<{ classId: string; memberId: string; booking: FeedBooking }>>()
    for (const booking of bookings) {
      const classId = classIds.get(sourceKey(ofFeed(booking.class)))
      if (!classId) continue
      const [memberId, another] = memberIds.get(booking.name.toLowerCase()) ?? []
      if (!memberId || another) {
        unknown.add(booking.name)
        continue
      }
      // Listed twice, as after a cancellation and a new booking, a rider is booked.
      const key = `${classId}/${memberId}`
      if (newest.get(key)?.booking.state !== 'booked') newest.set(key, { classId, memberId, booking })
    }
    let count = 0
    for (const { classId, memberId, booking } of newest.values()) {
      const { comesMinBefore = 10, state } = booking
      if (!rosters.has(classId)) rosters.set(classId, await listRoster(tx, scope, classId))
      const before = rosters.get(classId)!.find((one) => one.memberId === memberId)
      if (!(await upsertBooking(tx, scope, { classId, memberId, state, comesMinBefore }, before, now))) continue
      moved.add(classId)
      count += 1
    }
    return { classes: added + changed + cancelled, bookings: count }
  })
  for (const classId of moved) {
    await replanClass(db, scope, classId, now)
    publishClassEvent(classId, null)
  }
  return { ...result, unknownNames: [...unknown], faults: faults.length }
}

/** Which class it is here, by its id at the service. */
const ofFeed = (id: string) => ({ uid: `booking: ${id}`.slice(0, 190), occurrence: '' })
