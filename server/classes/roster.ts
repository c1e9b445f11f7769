import { and, asc, desc, eq, gt, inArray, lt } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { classRider, type RIDER_STATES, bikeAssignment } from './tables'
import { studioClass } from './rooms/tables'
import { member } from '../riders/tables'

export type RiderState = (typeof RIDER_STATES)[number]

/** Somebody on a class's list. */
export type RosterRider = Readonly<{
  memberId: string
  name: string
  state: RiderState
  /** Minutes before the start at which they mean to come; minus is late. */
  comesMinBefore: number
  rowWish: 'front' | 'back' | null
  pinnedBikeId: string | null
  warmUp: boolean
  /** Time of booking: with too few bikes the earliest bookings get one. */
  bookedAt: Date
}>

/** Who is on a class's list, by name; who called off among them, marked. */
export async function listRoster(db: DbExecutor, scope: Scope, classId: string): Promise<RosterRider[]> {
  const { memberId, state, comesMinBefore, rowWish, pinnedBikeId, warmUp, createdAt: bookedAt } = classRider
  return db
    .select({ memberId, name: member.name, state, comesMinBefore, rowWish, pinnedBikeId, warmUp, bookedAt })
    .from(classRider)
    .innerJoin(member, eq(member.id, classRider.memberId))
    .where(and(eq(classRider.classId, classId), eq(classRider.studioId, scope.studioId)))
    .orderBy(asc(member.name), asc(member.id))
}

export type RiderBooked = Readonly<{
  classId: string
  memberId: string
  state: RiderState
  comesMinBefore: number
}>

/**
 * Adds a member to a class, or updates how they come; a member is on the list once. False where the studio has no such
 * class or member.
 */
export async function bookRider(
  db: DbExecutor,
  scope: Scope,
  { classId, memberId, state, comesMinBefore }: RiderBooked,
  now: Date,
): Promise<boolean> {
  const { studioId, userId } = scope
  const [ofClass] = await db
    .select({ id: studioClass.id })
    .from(studioClass)
    .where(and(eq(studioClass.id, classId), eq(studioClass.studioId, studioId)))
  const [own] = await db
    .select({ id: member.id })
    .from(member)
    .where(and(eq(member.id, memberId), eq(member.studioId, studioId)))
  if (!ofClass || !own) return false
  await db
    .insert(classRider)
    .values({ classId, memberId, studioId, state, comesMinBefore, createdAt: now, createdBy: userId })
    .onDuplicateKeyUpdate({ set: { state, comesMinBefore } })
  return true
}

/**
 * Applies the booking of another list (a file, a booking service), where `before` is the current line. A rider who is
 * in the room stays `here`; a cancellation of a rider who is not on the list has no effect. Resolves with whether
 * anything changed.
 */
export async function upsertBooking(
  db: DbExecutor,
  scope: Scope,
  booked: RiderBooked,
  before: RosterRider | undefined,
  now: Date,
): Promise<boolean> {
  const { classId, memberId, state, comesMinBefore } = booked
  const same = before?.state === state && before.comesMinBefore === comesMinBefore
  if (same || before?.state === 'here' || (!before && state === 'cancelled')) return false
  if (!(await bookRider(db, scope, booked, now))) return false
  if (state === 'cancelled') await changeRider(db, scope, classId, [memberId], { pinnedBikeId: null })
  return true
}

/** What may be changed of somebody on the list; what is left out stays. */
export type RosterChange = Readonly<
  Partial<{
    state: RiderState
    comesMinBefore: number
    rowWish: 'front' | 'back' | null
    pinnedBikeId: string | null
    warmUp: boolean
  }>
>

export async function changeRider(
  db: DbExecutor,
  scope: Scope,
  classId: string,
  memberIds: readonly string[],
  change: RosterChange,
): Promise<void> {
  if (memberIds.length === 0 || Object.keys(change).length === 0) return
  await db
    .update(classRider)
    .set(change)
    .where(
      and(
        eq(classRider.classId, classId),
        eq(classRider.studioId, scope.studioId),
        inArray(classRider.memberId, [...memberIds]),
      ),
    )
}

/** A rider's classes of earlier days are looked at back to here, days. */
const BACK_DAYS = 200

/** The bike each of these riders sat on in the latest class before a moment. */
export async function lastBikes(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  before: Date,
): Promise<ReadonlyMap<string, string>> {
  if (memberIds.length === 0) return new Map()
  const since = new Date(before.getTime() - BACK_DAYS * 86_400_000)
  const found = await db
    .select({ memberId: bikeAssignment.memberId, bikeId: bikeAssignment.bikeId })
    .from(bikeAssignment)
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .where(
      and(
        inArray(bikeAssignment.memberId, [...memberIds]),
        eq(bikeAssignment.studioId, scope.studioId),
        gt(studioClass.startsAt, since),
        lt(studioClass.startsAt, before),
      ),
    )
    .orderBy(desc(studioClass.startsAt))
  const last = new Map<string, string>()
  for (const { memberId, bikeId } of found) if (!last.has(memberId)) last.set(memberId, bikeId)
  return last
}
