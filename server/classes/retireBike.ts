import { and, eq, gt } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction } from '../platform/db/connection'
import type { Database } from '../platform/db/connection'
import { bike } from '../bikes/tables'
import { classRider, bikeAssignment, bikeAssignmentLog } from './tables'
import { bikePlace, studioClass } from './rooms/tables'

export type RetireResult =
  /** `riders` sat on it in a class that runs or comes; they have no bike there now. */
  Readonly<{ outcome: 'kept'; riders: number }> | Readonly<{ outcome: 'gone' }>

/**
 * Retires a bike: it is offered nowhere and its number is free for another; what was recorded on it stays. It leaves
 * its room and its seats in classes that are not over. Retired once more it stays as it is.
 */
export async function retireBike(db: Database, scope: Scope, id: string, now: Date): Promise<RetireResult> {
  return withTransaction(db, async (tx): Promise<RetireResult> => {
    const own = and(eq(bike.id, id), eq(bike.studioId, scope.studioId))
    const [there] = await tx.select({ retiredAt: bike.retiredAt }).from(bike).where(own).for('update')
    if (!there) return { outcome: 'gone' }
    if (there.retiredAt) return { outcome: 'kept', riders: 0 }
    await tx.update(bike).set({ retiredAt: now }).where(own)
    await tx.delete(bikePlace).where(eq(bikePlace.bikeId, id))
    const seats = await tx
      .select({ classId: bikeAssignment.classId })
      .from(bikeAssignment)
      .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
      .where(and(eq(bikeAssignment.bikeId, id), gt(studioClass.endsAt, now)))
    const { studioId, userId } = scope
    for (const { classId } of seats) {
      await tx.delete(bikeAssignment).where(and(eq(bikeAssignment.bikeId, id), eq(bikeAssignment.classId, classId)))
      await tx.insert(bikeAssignmentLog).values({
        id: crypto.randomUUID(),
        studioId,
        classId,
        bikeId: id,
        memberId: null,
        createdAt: now,
        createdBy: userId,
      })
    }
    await tx
      .update(classRider)
      .set({ pinnedBikeId: null })
      .where(and(eq(classRider.pinnedBikeId, id), eq(classRider.studioId, studioId)))
    return { outcome: 'kept', riders: seats.length }
  })
}
