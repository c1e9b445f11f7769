import { and, desc, eq, isNull } from 'drizzle-orm'
import type { CareIntervals, CareRow } from '../../core/bikes/care/care'
import type { Scope } from '../platform/accounts/scope'
import { studio, user } from '../platform/accounts/tables'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce } from '../platform/db/insertOnce'
import type { BikeWriteResult } from './bikeReadings'
import { lockMachine, recomputeMachine } from './machineCalibration'
import { bike, bikeCare } from './tables'

export type StoredCare = CareRow & Readonly<{ id: string; createdAt: Date; createdBy: string }>

/** What was done about one machine, the latest first, without what was withdrawn. */
export async function listCare(db: DbExecutor, scope: Scope, bikeId: string, limit = 20): Promise<StoredCare[]> {
  const { id, part, deed, note, createdAt } = bikeCare
  return db
    .select({ id, part, deed, note, createdAt, createdBy: user.name })
    .from(bikeCare)
    .innerJoin(user, eq(user.id, bikeCare.createdBy))
    .where(and(eq(bikeCare.bikeId, bikeId), eq(bikeCare.studioId, scope.studioId), isNull(bikeCare.withdrawnAt)))
    .orderBy(desc(createdAt), desc(id))
    .limit(limit)
}

/** The studio's own intervals, and one machine's; null for none. */
export async function careIntervalsOf(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
): Promise<Readonly<{ studio: CareIntervals | null; own: CareIntervals | null }>> {
  const [ofStudio] = await db.select({ care: studio.careIntervals }).from(studio).where(eq(studio.id, scope.studioId))
  const [ofBike] = await db
    .select({ care: bike.careIntervals })
    .from(bike)
    .where(and(eq(bike.id, bikeId), eq(bike.studioId, scope.studioId)))
  return { studio: ofStudio?.care ?? null, own: ofBike?.care ?? null }
}

/**
 * Records that a part was seen to or replaced. A new part that moves what the tape measured makes the machine's offsets
 * count from then. The same id with the same content again changes nothing.
 */
export async function recordCare(
  db: Database,
  scope: Scope,
  added: CareRow & Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<BikeWriteResult> {
  return withTransaction(db, async (tx) => {
    if (!(await lockMachine(tx, scope, added.bikeId))) return { outcome: 'gone' }
    const { id, studioId, bikeId, part, deed, note } = bikeCare
    const content = { ...added, studioId: scope.studioId }
    const written = await insertOnce(
      () => tx.insert(bikeCare).values({ ...content, createdAt: now, createdBy: scope.userId }),
      async () =>
        (await tx.select({ id, studioId, bikeId, part, deed, note }).from(bikeCare).where(eq(id, added.id)))[0],
      content,
    )
    if (written.outcome === 'kept') await recomputeMachine(tx, scope, added.bikeId)
    return written
  })
}

/** Takes a deed back, with what it opened; unknown or withdrawn ones change nothing. */
export async function withdrawCare(
  db: Database,
  scope: Scope,
  { id, bikeId }: Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<void> {
  await withTransaction(db, async (tx) => {
    if (!(await lockMachine(tx, scope, bikeId))) return
    await tx
      .update(bikeCare)
      .set({ withdrawnAt: now })
      .where(and(eq(bikeCare.id, id), eq(bikeCare.bikeId, bikeId), isNull(bikeCare.withdrawnAt)))
    await recomputeMachine(tx, scope, bikeId)
  })
}

/** Sets intervals of one machine, or of the studio where `bikeId` is null; false where there is no such machine. */
export async function setCareIntervals(
  db: DbExecutor,
  scope: Scope,
  { bikeId, intervals }: Readonly<{ bikeId: string | null; intervals: CareIntervals }>,
): Promise<boolean> {
  const careIntervals = Object.keys(intervals).length > 0 ? intervals : null
  if (bikeId === null) {
    await db.update(studio).set({ careIntervals }).where(eq(studio.id, scope.studioId))
    return true
  }
  const own = and(eq(bike.id, bikeId), eq(bike.studioId, scope.studioId))
  await db.update(bike).set({ careIntervals }).where(own)
  return (await db.select({ id: bike.id }).from(bike).where(own)).length > 0
}
