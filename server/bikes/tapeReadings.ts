import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import type { TapeReading } from '../../core/bikes/calibration/readings'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { insertOnce } from '../platform/db/insertOnce'
import { sameContent } from '../platform/db/sameContent'
import { bikeType, typeReading } from './tables'
import type { BikeWriteResult } from './bikeReadings'
import { findType } from './versions'

export type StoredTapeReading = Readonly<{ id: string; row: TapeReading }>

const ofStudio = (scope: Scope) => eq(typeReading.studioId, scope.studioId)

/** Tape readings toward the next calibration, taken on this version, without those withdrawn, in the order taken. */
export async function listTapeReadings(db: DbExecutor, scope: Scope, typeId: string): Promise<StoredTapeReading[]> {
  return db
    .select({ id: typeReading.id, row: typeReading.row })
    .from(typeReading)
    .where(and(eq(typeReading.typeId, typeId), ofStudio(scope), isNull(typeReading.withdrawnAt)))
    .orderBy(asc(typeReading.position))
}

/** Appends a reading of a version of the studio's; the same id with the same content again changes nothing. */
export async function addTapeReading(
  db: DbExecutor,
  scope: Scope,
  added: Readonly<{ id: string; typeId: string; row: TapeReading }>,
  now: Date,
): Promise<BikeWriteResult> {
  if (!(await findType(db, scope, added.typeId))) return { outcome: 'gone' }
  const { id, studioId, typeId, row } = typeReading
  const content = { ...added, studioId: scope.studioId }
  const stored = async () =>
    (await db.select({ id, studioId, typeId, row }).from(typeReading).where(eq(id, added.id)))[0]
  return insertOnce(
    () => db.insert(typeReading).values({ ...content, createdAt: now, createdBy: scope.userId }),
    stored,
    content,
  )
}

/** Readings in the place of others: each an id that is there now, with the id and row that take its place. */
export type ReplacedReading = Readonly<{ id: string; newId: string; row: TapeReading }>

/**
 * Puts corrected readings in the place of others, all or none, in their order. Sent again it changes nothing; `gone`
 * when somebody took one of them back meanwhile, `idTaken` when a new id is used for something else.
 */
export async function replaceTapeReadings(
  db: Database,
  scope: Scope,
  { typeId, replaced }: Readonly<{ typeId: string; replaced: readonly ReplacedReading[] }>,
  now: Date,
): Promise<Readonly<{ outcome: 'kept' | 'gone' | 'idTaken' }>> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    await tx.select({ id: bikeType.id }).from(bikeType).where(eq(bikeType.id, typeId)).for('update')
    const rows = await tx
      .select({ id: typeReading.id, row: typeReading.row, withdrawnAt: typeReading.withdrawnAt })
      .from(typeReading)
      .where(and(eq(typeReading.typeId, typeId), ofStudio(scope)))
    const byId = new Map(rows.map((r) => [r.id, r]))
    if (replaced.every(({ newId, row }) => byId.has(newId) && sameContent(byId.get(newId)!.row, row)))
      return { outcome: 'kept' }
    if (replaced.some(({ newId }) => byId.has(newId))) return { outcome: 'idTaken' }
    if (replaced.some(({ id }) => byId.get(id)?.withdrawnAt !== null)) return { outcome: 'gone' }
    const ids = replaced.map(({ id }) => id)
    await tx.update(typeReading).set({ withdrawnAt: now }).where(inArray(typeReading.id, ids))
    for (const { newId, row } of replaced)
      await tx.insert(typeReading).values({ id: newId, studioId, typeId, row, createdAt: now, createdBy: userId })
    return { outcome: 'kept' }
  })
}

/** Takes a reading back; one that is unknown or withdrawn already changes nothing. */
export async function withdrawTapeReading(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(typeReading)
    .set({ withdrawnAt: now })
    .where(and(eq(typeReading.id, id), ofStudio(scope), isNull(typeReading.withdrawnAt)))
}
