import { and, asc, desc, eq, gt, isNull, lte } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { bike, bikeType } from '../bikes/tables'
import { studioClass } from '../classes/rooms/tables'
import { member } from '../riders/tables'
import { bikeAssignment } from '../classes/tables'

/** A class somebody sat in; the open floor is one a day. */
export type Ride = Readonly<{
  classId: string
  title: string
  at: Date
  bikeId: string
  bikeNumber: number
  lineId: string
}>

const MAX_RIDES = 200

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
    .limit(MAX_RIDES)
}

/** Riders whom a machine's saddle touches: who sat on it lately or will, by name. */
export async function ridersOfBike(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
  since: Date,
): Promise<Readonly<{ id: string; name: string }>[]> {
  return db
    .select({ id: member.id, name: member.name })
    .from(bikeAssignment)
    .innerJoin(member, eq(member.id, bikeAssignment.memberId))
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .where(
      and(
        eq(bikeAssignment.bikeId, bikeId),
        eq(bikeAssignment.studioId, scope.studioId),
        isNull(studioClass.cancelledAt),
        gt(studioClass.startsAt, since),
      ),
    )
    .groupBy(member.id, member.name)
    .orderBy(asc(member.name))
    .limit(MAX_RIDES)
}
