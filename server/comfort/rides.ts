import { and, desc, eq, gt, isNull, lte } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { bike, bikeType } from '../db/tables/bikes'
import { studioClass } from '../db/tables/floor'
import { bikeAssignment } from '../db/tables/riders'

/** A class somebody sat in; the open floor is one a day. */
export type Ride = Readonly<{
  classId: string
  title: string
  at: Date
  bikeId: string
  bikeNumber: number
  lineId: string
}>

const MOST = 200

/** The classes a rider sat in that have begun and were not called off, the latest first. */
export async function listRides(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
  since = new Date(0),
): Promise<Ride[]> {
  return db
    .select({
      classId: studioClass.id,
      title: studioClass.title,
      at: studioClass.startsAt,
      bikeId: bikeAssignment.bikeId,
      bikeNumber: bike.number,
      lineId: bikeType.lineId,
    })
    .from(bikeAssignment)
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .innerJoin(bike, eq(bike.id, bikeAssignment.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, bike.typeId))
    .where(
      and(
        eq(bikeAssignment.memberId, memberId),
        eq(bikeAssignment.studioId, scope.studioId),
        isNull(studioClass.cancelledAt),
        lte(studioClass.startsAt, now),
        gt(studioClass.startsAt, since),
      ),
    )
    .orderBy(desc(studioClass.startsAt))
    .limit(MOST)
}
