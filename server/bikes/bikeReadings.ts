import { and, asc, eq, isNull } from 'drizzle-orm'
import type { BikeReading } from '../../core/bikes/calibration/bikeReading'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { user } from '../platform/accounts/tables'
import { bikeReading } from './tables'
import { lockMachine, recomputeMachine } from './machineCalibration'

export type StoredBikeReading = Readonly<{ id: string; row: BikeReading; createdAt: Date; createdBy: string }>

/** Everything measured on one machine, the earliest first, without what was withdrawn. */
export async function listBikeReadings(db: DbExecutor, scope: Scope, bikeId: string): Promise<StoredBikeReading[]> {
  return db
    .select({ id: bikeReading.id, row: bikeReading.row, createdAt: bikeReading.createdAt, createdBy: user.name })
    .from(bikeReading)
    .innerJoin(user, eq(user.id, bikeReading.createdBy))
    .where(
      and(eq(bikeReading.bikeId, bikeId), eq(bikeReading.studioId, scope.studioId), isNull(bikeReading.withdrawnAt)),
    )
    .orderBy(asc(bikeReading.position))
}

/** `gone`: the studio has no such bike. */
export type BikeWriteResult = WriteResult | Readonly<{ outcome: 'gone' }>

/**
 * Appends a reading of a machine and computes its offsets again. The same id with the same content again changes
 * nothing.
 */
export async function addBikeReading(
  db: Database,
  scope: Scope,
  added: Readonly<{ id: string; bikeId: string; row: BikeReading }>,
  now: Date,
): Promise<BikeWriteResult> {
  return withTransaction(db, async (tx) => {
    if (!(await lockMachine(tx, scope, added.bikeId))) return { outcome: 'gone' }
    const { id, studioId, bikeId, row } = bikeReading
    const content = { ...added, studioId: scope.studioId }
    const stored = async () =>
      (await tx.select({ id, studioId, bikeId, row }).from(bikeReading).where(eq(id, added.id)))[0]
    const written = await insertOnce(
      () => tx.insert(bikeReading).values({ ...content, createdAt: now, createdBy: scope.userId }),
      stored,
      content,
    )
    if (written.outcome === 'kept') await recomputeMachine(tx, scope, added.bikeId)
    return written
  })
}

/** Takes a reading back and computes the machine's offsets again; unknown or withdrawn ones change nothing. */
export async function withdrawBikeReading(
  db: Database,
  scope: Scope,
  { id, bikeId }: Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<void> {
  await withTransaction(db, async (tx) => {
    if (!(await lockMachine(tx, scope, bikeId))) return
    await tx
      .update(bikeReading)
      .set({ withdrawnAt: now })
      .where(and(eq(bikeReading.id, id), eq(bikeReading.bikeId, bikeId), isNull(bikeReading.withdrawnAt)))
    await recomputeMachine(tx, scope, bikeId)
  })
}

/** When a machine was found changed after numbers were saved on it at `at`; null while it still is what it was. */
export async function findChangeSince(db: DbExecutor, scope: Scope, bikeId: string, at: Date): Promise<Date | null> {
  const tapes = (await listBikeReadings(db, scope, bikeId)).filter((r) => r.row.kind === 'tape')
  const found = tapes.find((r, i) => i > 0 && r.createdAt >= at && r.row.kind === 'tape' && r.row.resetsBaseline)
  return found?.createdAt ?? null
}
