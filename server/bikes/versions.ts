import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { BikeType } from '../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../core/bikes/bike/equipment'
import type { TypeCalibration } from '../../core/bikes/calibration/calibrate'
import { sameGeometry } from '../../core/bikes/calibration/predictionError'
import type { BikeTypeDocument } from '../../core/operations/typeFile'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { errnoOf, REFERRED_TO } from '../platform/db/errors'
import { sameContent } from '../platform/db/sameContent'
import { studio, user } from '../platform/accounts/tables'
import { bike, bikeType, bikeTypeLine, typeReading } from './tables'
import { recomputeMachinesOf } from './machineCalibration'

/** One version of a type. */
export type TypeVersion = Readonly<{
  id: string
  lineId: string
  version: number
  bikeType: BikeType
  equipment: BikeEquipment
  calibration: TypeCalibration | null
  createdAt: Date
  createdBy: string | null
}>

export type VersionResult =
  | Readonly<{ outcome: 'kept'; id: string; lineId: string }>
  | Readonly<{ outcome: 'sameName' }>
  | Readonly<{ outcome: 'idTaken' }>
  | Readonly<{ outcome: 'versionConflict'; createdBy: string | null; createdAt: Date }>

const columns = {
  id: bikeType.id,
  lineId: bikeType.lineId,
  version: bikeType.version,
  bikeType: bikeType.definition,
  equipment: bikeType.equipment,
  calibration: bikeType.calibration,
  createdAt: bikeType.createdAt,
  createdBy: user.name,
}
const versions = (db: DbExecutor) => db.select(columns).from(bikeType).leftJoin(user, eq(user.id, bikeType.createdBy))

/** The studio's versions in force, by name. */
export async function listTypes(db: DbExecutor, scope: Scope): Promise<TypeVersion[]> {
  const newest = sql`(SELECT MAX(later.version) FROM bike_type later WHERE later.line_id = ${bikeType.lineId})`
  const latest = await versions(db).where(and(eq(bikeType.studioId, scope.studioId), eq(bikeType.version, newest)))
  return latest.sort((a, b) => a.bikeType.name.localeCompare(b.bikeType.name))
}

/** All versions of a type, the latest first; empty where the studio has none of this id. */
export const listVersions = (db: DbExecutor, scope: Scope, lineId: string): Promise<TypeVersion[]> =>
  versions(db)
    .where(and(eq(bikeType.lineId, lineId), eq(bikeType.studioId, scope.studioId)))
    .orderBy(desc(bikeType.version))

/** One version by its id, or null. */
export async function findType(db: DbExecutor, scope: Scope, id: string): Promise<TypeVersion | null> {
  const [found] = await versions(db).where(and(eq(bikeType.id, id), eq(bikeType.studioId, scope.studioId)))
  return found ?? null
}

export type NewVersion = Readonly<{
  id: string
  /** The version that was looked at while editing; null for a new type. */
  baseId: string | null
  document: BikeTypeDocument
  /** Result of a tape, or null; if left out, that of the base is used where the geometry is the same. */
  calibration?: TypeCalibration | null
}>

/**
 * Writes a version and puts it in force on all bikes of its line, with their own offsets computed again; set-ups stay
 * on the version they were made on. When somebody else wrote one since `baseId`, nothing is written. The same id again
 * with the same content changes nothing.
 */
export async function writeVersion(db: Database, scope: Scope, made: NewVersion, now: Date): Promise<VersionResult> {
  return withTransaction(db, async (tx) => {
    // Taken first: what is read after it is what others committed before it was free.
    await lockTypes(tx, scope)
    const [already] = await tx.select().from(bikeType).where(eq(bikeType.id, made.id))
    const { document } = made
    if (already) {
      const same =
        already.studioId === scope.studioId &&
        sameContent([already.definition, already.equipment], [document.bikeType, document.equipment])
      return same ? { outcome: 'kept', id: already.id, lineId: already.lineId } : { outcome: 'idTaken' }
    }
    const base = made.baseId ? await findType(tx, scope, made.baseId) : null
    const named = await findLineByName(tx, scope, document.bikeType.name)
    if (named && named.id !== base?.lineId) return { outcome: 'sameName' }
    if (!base) return insertVersion(tx, scope, made, null, now)
    const [latest] = await listVersions(tx, scope, base.lineId)
    if (latest.id !== base.id)
      return { outcome: 'versionConflict', createdBy: latest.createdBy, createdAt: latest.createdAt }
    return insertVersion(tx, scope, made, latest, now)
  })
}

/** One writer of types a studio at a time: versions, names and imports look at each other. */
async function lockTypes(tx: DbExecutor, scope: Scope): Promise<void> {
  await tx.select({ id: studio.id }).from(studio).where(eq(studio.id, scope.studioId)).for('update')
}

async function findLineByName(tx: DbExecutor, scope: Scope, name: string): Promise<{ id: string } | undefined> {
  const [found] = await tx
    .select({ id: bikeTypeLine.id })
    .from(bikeTypeLine)
    .where(and(eq(bikeTypeLine.studioId, scope.studioId), eq(bikeTypeLine.name, name.trim())))
  return found
}

/** The next version of `latest`'s line, or with null the first of a new one. */
async function insertVersion(
  tx: DbExecutor,
  { studioId, userId }: Scope,
  { id, document, calibration }: NewVersion,
  latest: TypeVersion | null,
  now: Date,
): Promise<VersionResult> {
  const lineId = latest?.lineId ?? crypto.randomUUID()
  const name = document.bikeType.name.trim()
  const carried = latest && sameGeometry(latest.bikeType, document.bikeType) ? latest.calibration : null
  if (latest) await tx.update(bikeTypeLine).set({ name }).where(eq(bikeTypeLine.id, lineId))
  else await tx.insert(bikeTypeLine).values({ id: lineId, studioId, name })
  await tx.insert(bikeType).values({
    id,
    studioId,
    lineId,
    version: (latest?.version ?? 0) + 1,
    definition: document.bikeType,
    equipment: document.equipment,
    calibration: calibration === undefined ? carried : calibration,
    createdAt: now,
    createdBy: userId,
  })
  if (latest) {
    await tx.update(bike).set({ typeId: id }).where(eq(bike.typeId, latest.id))
    await recomputeMachinesOf(tx, id)
  }
  return { outcome: 'kept', id, lineId }
}

/** `inUse`: a bike is of this type, or numbers or a set-up are; `gone`: the studio has no such type. */
export type DeleteTypeResult = Readonly<{ outcome: 'kept' | 'inUse' | 'gone' }>

/** Deletes a type that nothing uses, with all its versions and what a tape read on it. */
export async function deleteType(db: Database, scope: Scope, lineId: string): Promise<DeleteTypeResult> {
  try {
    return await withTransaction(db, async (tx): Promise<DeleteTypeResult> => {
      await lockTypes(tx, scope)
      const all = await listVersions(tx, scope, lineId)
      if (all.length === 0) return { outcome: 'gone' }
      const ids = all.map(({ id }) => id)
      await tx.delete(typeReading).where(inArray(typeReading.typeId, ids))
      await tx.delete(bikeType).where(inArray(bikeType.id, ids))
      await tx.delete(bikeTypeLine).where(eq(bikeTypeLine.id, lineId))
      return { outcome: 'kept' }
    })
  } catch (error) {
    if (errnoOf(error) === REFERRED_TO) return { outcome: 'inUse' }
    throw error
  }
}

export type ImportResult = Readonly<{ added: string[]; changed: string[]; unchanged: string[] }>

/**
 * Brings in all types of a file or none: new names begin a line, existing ones get a version where something differs.
 */
export async function importTypes(
  db: Database,
  scope: Scope,
  types: readonly BikeTypeDocument[],
  now: Date,
): Promise<ImportResult> {
  return withTransaction(db, async (tx) => {
    await lockTypes(tx, scope)
    const result: ImportResult = { added: [], changed: [], unchanged: [] }
    for (const document of types) {
      const line = await findLineByName(tx, scope, document.bikeType.name)
      const [latest] = line ? await listVersions(tx, scope, line.id) : []
      const calibration = document.calibration ?? null
      const same =
        latest &&
        sameContent([latest.bikeType, latest.equipment], [document.bikeType, document.equipment]) &&
        // A file without a tape removes none.
        (calibration === null || sameContent(latest.calibration, calibration))
      result[!latest ? 'added' : same ? 'unchanged' : 'changed'].push(document.bikeType.name)
      if (same) continue
      const made = { id: crypto.randomUUID(), baseId: latest?.id ?? null, document, calibration }
      await insertVersion(tx, scope, made, latest ?? null, now)
    }
    return result
  })
}
