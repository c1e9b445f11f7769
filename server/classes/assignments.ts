import { and, eq, or } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import type { WriteResult } from '../db/insertOnce'
import { sameContent } from '../db/sameContent'
import { bike } from '../db/tables/bikes'
import { bikeAssignment, bikeAssignmentLog, member } from '../db/tables/riders'

/** Who sits on a bike on a day. */
export type BikeAssignment = Readonly<{ bikeId: string; memberId: string; name: string }>

/** Who sits where on a studio's day; a free bike is not among them. */
export async function listAssignments(db: DbExecutor, scope: Scope, day: string): Promise<BikeAssignment[]> {
  return db
    .select({ bikeId: bikeAssignment.bikeId, memberId: bikeAssignment.memberId, name: member.name })
    .from(bikeAssignment)
    .innerJoin(member, eq(member.id, bikeAssignment.memberId))
    .where(and(eq(bikeAssignment.studioId, scope.studioId), eq(bikeAssignment.day, day)))
}

/** `gone`: the studio has no such bike or member. */
export type AssignResult = WriteResult | Readonly<{ outcome: 'gone' }>

/**
 * Says who sits on a bike, or with null that it is free; someone who sat elsewhere has moved. The same id with the same
 * content again changes nothing, whatever was said since. `day` is the studio's, YYYY-MM-DD.
 */
export async function assignBike(
  db: Database,
  scope: Scope,
  { id, bikeId, memberId, day }: Readonly<{ id: string; bikeId: string; memberId: string | null; day: string }>,
  now: Date,
): Promise<AssignResult> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    // The bike's and the member's rows are the locks, always in this order.
    const [seat] = await tx
      .select({ id: bike.id })
      .from(bike)
      .where(and(eq(bike.id, bikeId), eq(bike.studioId, studioId)))
      .for('update')
    const ofMember = memberId ? and(eq(member.id, memberId), eq(member.studioId, studioId)) : undefined
    const rider = ofMember ? await tx.select({ id: member.id }).from(member).where(ofMember).for('update') : []
    if (!seat || (memberId && rider.length === 0)) return { outcome: 'gone' }
    const [before] = await tx
      .select({
        studioId: bikeAssignmentLog.studioId,
        bikeId: bikeAssignmentLog.bikeId,
        memberId: bikeAssignmentLog.memberId,
      })
      .from(bikeAssignmentLog)
      .where(eq(bikeAssignmentLog.id, id))
    if (before) return { outcome: sameContent(before, { studioId, bikeId, memberId }) ? 'kept' : 'idTaken' }
    await tx
      .insert(bikeAssignmentLog)
      .values({ id, studioId, bikeId, memberId, day, createdAt: now, createdBy: userId })
    const elsewhere = memberId ? eq(bikeAssignment.memberId, memberId) : undefined
    await tx
      .delete(bikeAssignment)
      .where(and(eq(bikeAssignment.day, day), or(eq(bikeAssignment.bikeId, bikeId), elsewhere)))
    if (memberId)
      await tx.insert(bikeAssignment).values({ studioId, bikeId, memberId, day, createdAt: now, createdBy: userId })
    return { outcome: 'kept' }
  })
}
