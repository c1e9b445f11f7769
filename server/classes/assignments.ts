import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import type { WriteResult } from '../platform/db/insertOnce'
import { sameContent } from '../platform/db/sameContent'
import { bike } from '../bikes/tables'
import { studioClass } from './rooms/tables'
import { member } from '../riders/tables'
import { bikeAssignment, bikeAssignmentLog } from './tables'

/** Who sits on a bike in a class. */
export type BikeAssignment = Readonly<{ bikeId: string; memberId: string; name: string }>

/** Who sits where in a class; a free bike is not among them. */
export async function listAssignments(db: DbExecutor, scope: Scope, classId: string): Promise<BikeAssignment[]> {
  return db
    .select({ bikeId: bikeAssignment.bikeId, memberId: bikeAssignment.memberId, name: member.name })
    .from(bikeAssignment)
    .innerJoin(member, eq(member.id, bikeAssignment.memberId))
    .where(and(eq(bikeAssignment.classId, classId), eq(bikeAssignment.studioId, scope.studioId)))
}

/** `gone`: the studio has no such class, bike or member. */
export type AssignResult = WriteResult | Readonly<{ outcome: 'gone' }>

/**
 * Assigns a bike in a class to a rider, or frees it with null; someone who sat elsewhere has moved. The same id
 * with the same content again changes nothing, also after later assignments.
 */
export async function assignBike(
  db: Database,
  scope: Scope,
  { id, bikeId, memberId, classId }: Readonly<{ id: string; bikeId: string; memberId: string | null; classId: string }>,
  now: Date,
): Promise<AssignResult> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    // The class's row is the lock.
    if (!(await lockClass(tx, scope, classId))) return { outcome: 'gone' }
    const [seat] = await tx
      .select({ id: bike.id })
      .from(bike)
      .where(and(eq(bike.id, bikeId), eq(bike.studioId, studioId), isNull(bike.retiredAt)))
    const ofMember = memberId ? and(eq(member.id, memberId), eq(member.studioId, studioId)) : undefined
    const rider = ofMember ? await tx.select({ id: member.id }).from(member).where(ofMember) : []
    if (!seat || (memberId && rider.length === 0)) return { outcome: 'gone' }
    const { classId: inClass, bikeId: onBike, memberId: who } = bikeAssignmentLog
    const [before] = await tx
      .select({ studioId: bikeAssignmentLog.studioId, classId: inClass, bikeId: onBike, memberId: who })
      .from(bikeAssignmentLog)
      .where(eq(bikeAssignmentLog.id, id))
    if (before) return { outcome: sameContent(before, { studioId, classId, bikeId, memberId }) ? 'kept' : 'idTaken' }
    const values = { studioId, classId, bikeId, createdAt: now, createdBy: userId }
    await tx.insert(bikeAssignmentLog).values({ ...values, id, memberId })
    const elsewhere = memberId ? eq(bikeAssignment.memberId, memberId) : undefined
    await tx
      .delete(bikeAssignment)
      .where(and(eq(bikeAssignment.classId, classId), or(eq(bikeAssignment.bikeId, bikeId), elsewhere)))
    if (memberId) await tx.insert(bikeAssignment).values({ ...values, memberId })
    return { outcome: 'kept' }
  })
}

/** Locks a class's row until the transaction ends; false where the studio has no such class. */
export async function lockClass(tx: DbExecutor, scope: Scope, classId: string): Promise<boolean> {
  const own = and(eq(studioClass.id, classId), eq(studioClass.studioId, scope.studioId))
  return (await tx.select({ id: studioClass.id }).from(studioClass).where(own).for('update')).length > 0
}

/**
 * Makes the places of a class exactly these, within the caller's transaction with the class locked; what changed is
 * written to the log. Bikes and members must be the studio's.
 */
export async function replaceAssignments(
  tx: DbExecutor,
  { studioId, userId }: Scope,
  classId: string,
  target: ReadonlyMap<string, string>,
  now: Date,
): Promise<void> {
  const before = await tx
    .select({ bikeId: bikeAssignment.bikeId, memberId: bikeAssignment.memberId })
    .from(bikeAssignment)
    .where(eq(bikeAssignment.classId, classId))
  const had = new Map(before.map(({ bikeId, memberId }) => [bikeId, memberId]))
  const freed = before.filter(({ bikeId, memberId }) => target.get(bikeId) !== memberId).map(({ bikeId }) => bikeId)
  const taken = [...target].filter(([bikeId, memberId]) => had.get(bikeId) !== memberId)
  const values = { studioId, classId, createdAt: now, createdBy: userId }
  const log = [
    ...freed.filter((bikeId) => !target.has(bikeId)).map((bikeId) => ({ bikeId, memberId: null })),
    ...taken.map(([bikeId, memberId]) => ({ bikeId, memberId })),
  ]
  if (freed.length > 0)
    await tx
      .delete(bikeAssignment)
      .where(and(eq(bikeAssignment.classId, classId), inArray(bikeAssignment.bikeId, freed)))
  if (taken.length > 0)
    await tx.insert(bikeAssignment).values(taken.map(([bikeId, memberId]) => ({ ...values, bikeId, memberId })))
  if (log.length > 0)
    await tx.insert(bikeAssignmentLog).values(log.map((one) => ({ ...values, ...one, id: crypto.randomUUID() })))
}
