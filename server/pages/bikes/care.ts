import { and, count, eq, gt, isNull, max, sql } from 'drizzle-orm'
import { byUrgency, CARE_PARTS, careState, intervalOf, type CareState } from '../../../core/bikes/care/care'
import { bike, bikeCare } from '../../bikes/tables'
import { studioClass } from '../../classes/rooms/tables'
import { bikeAssignment } from '../../classes/tables'
import type { Scope } from '../../platform/accounts/scope'
import { studio } from '../../platform/accounts/tables'
import type { DbExecutor } from '../../platform/db/connection'

/**
 * How every part of every machine in use stands, the most urgent first, by machine: the latest deed of each part, with
 * the rides on that machine since.
 */
export async function careOfBikes(db: DbExecutor, scope: Scope, now: Date): Promise<ReadonlyMap<string, CareState[]>> {
  const last = db
    .select({ bikeId: bikeCare.bikeId, part: bikeCare.part, at: max(bikeCare.createdAt).as('at') })
    .from(bikeCare)
    .where(and(eq(bikeCare.studioId, scope.studioId), isNull(bikeCare.withdrawnAt)))
    .groupBy(bikeCare.bikeId, bikeCare.part)
    .as('last')
  const rides = db
    .select({ bikeId: bikeAssignment.bikeId, startsAt: studioClass.startsAt })
    .from(bikeAssignment)
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .where(eq(bikeAssignment.studioId, scope.studioId))
    .as('rides')
  const [own] = await db.select({ care: studio.careIntervals }).from(studio).where(eq(studio.id, scope.studioId))
  const machines = await db
    .select({ id: bike.id, care: bike.careIntervals })
    .from(bike)
    .where(and(eq(bike.studioId, scope.studioId), isNull(bike.retiredAt)))
  const rows = await db
    .select({ bikeId: last.bikeId, part: last.part, at: last.at, rides: count(rides.startsAt) })
    .from(last)
    .leftJoin(rides, and(eq(rides.bikeId, last.bikeId), gt(rides.startsAt, last.at), sql`${rides.startsAt} <= ${now}`))
    .groupBy(last.bikeId, last.part, last.at)
  const seen = new Map(rows.map((row) => [`${row.bikeId} ${row.part}`, row]))
  return new Map(
    machines.map(({ id, care }) => [
      id,
      byUrgency(
        CARE_PARTS.flatMap((part): CareState[] => {
          const interval = intervalOf(part, own?.care, care)
          const row = seen.get(`${id} ${part}`)
          const lastDeed = row?.at ? { atMs: new Date(row.at).getTime(), rides: row.rides } : null
          return interval ? [careState(part, interval, lastDeed, now.getTime())] : []
        }),
      ),
    ]),
  )
}
