import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { BikeType } from '../../core/bike/bike'
import type { TypeSheet } from '../../core/bike/sheet'
import type { TypeCalibration } from '../../core/calibration/calibrate'
import type { TapeReading } from '../../core/calibration/readings'
import type { WholeType } from '../../core/operations/typeFile'
import { withTransaction, type DbExecutor, type Database } from '../db/connection'
import { insertOnce, type Written } from '../db/insertOnce'
import { sameContent } from '../db/sameContent'
import { bike, bikeType, bikeTypeLine, studio, typeReading, user } from '../db/schema'
import { recomputeMachinesOf } from './machineCalibration'

/** One version of a type. */
export type TypeVersion = Readonly<{
  id: string
  lineId: string
  version: number
  bikeType: BikeType
  sheet: TypeSheet
  calibration: TypeCalibration | null
  madeAt: Date
  by: string | null
}>

export type WriteResult =
  | Readonly<{ outcome: 'kept'; id: string; lineId: string }>
  | Readonly<{ outcome: 'sameName' }>
  | Readonly<{ outcome: 'idTaken' }>
  | Readonly<{ outcome: 'versionConflict'; by: string | null; at: Date }>

const columns = {
  id: bikeType.id,
  lineId: bikeType.lineId,
  version: bikeType.version,
  bikeType: bikeType.definition,
  sheet: bikeType.sheet,
  calibration: bikeType.calibration,
  madeAt: bikeType.madeAt,
  by: user.name,
}
const versions = (db: DbExecutor) => db.select(columns).from(bikeType).leftJoin(user, eq(user.id, bikeType.madeBy))

/** The versions in force, by name. */
export async function typesOf(db: DbExecutor, studioId: string): Promise<TypeVersion[]> {
  const newest = sql`(SELECT MAX(later.version) FROM bike_type later WHERE later.line_id = ${bikeType.lineId})`
  const latest = await versions(db).where(and(eq(bikeType.studioId, studioId), eq(bikeType.version, newest)))
  return latest.sort((a, b) => a.bikeType.name.localeCompare(b.bikeType.name))
}

/** All versions of a type, the latest first; empty where there is none. */
export const typeLine = (db: DbExecutor, lineId: string): Promise<TypeVersion[]> =>
  versions(db).where(eq(bikeType.lineId, lineId)).orderBy(desc(bikeType.version))

/** One version by its id, or null. */
export async function typeById(db: DbExecutor, id: string): Promise<TypeVersion | null> {
  const [found] = await versions(db).where(eq(bikeType.id, id))
  return found ?? null
}

type NewVersion = Readonly<{
  id: string
  studioId: string
  /** The version that was looked at while editing; null for a new type. */
  baseId: string | null
  whole: WholeType
  calibration: TypeCalibration | null
  at: Date
  by: string
}>

/**
 * Writes a version and puts it in force on all bikes of its line, with their own offsets computed anew; set-ups keep
 * the version they were made on. When somebody else wrote one since `baseId`, nothing is written. The same id again
 * with the same content changes nothing.
 */
export async function writeVersion(db: Database, made: NewVersion): Promise<WriteResult> {
  return withTransaction(db, async (tx) => {
    // Taken first: what is read after it is what others committed before it was free.
    await lockTypes(tx, made.studioId)
    const [already] = await tx.select().from(bikeType).where(eq(bikeType.id, made.id))
    if (already) {
      const same = sameContent([already.definition, already.sheet], [made.whole.bikeType, made.whole.sheet])
      return same ? { outcome: 'kept', id: already.id, lineId: already.lineId } : { outcome: 'idTaken' }
    }
    const [base] = made.baseId ? await tx.select().from(bikeType).where(eq(bikeType.id, made.baseId)) : []
    const named = await lineNamed(tx, made.studioId, made.whole.bikeType.name)
    if (named && named.id !== base?.lineId) return { outcome: 'sameName' }
    if (!base) return insertVersion(tx, made, null)
    const [latest] = await typeLine(tx, base.lineId)
    if (latest.id !== base.id) return { outcome: 'versionConflict', by: latest.by, at: latest.madeAt }
    return insertVersion(tx, made, latest)
  })
}

/** One writer of types a studio at a time: versions, names and imports look at each other. */
async function lockTypes(tx: DbExecutor, studioId: string): Promise<void> {
  await tx.select({ id: studio.id }).from(studio).where(eq(studio.id, studioId)).for('update')
}

async function lineNamed(tx: DbExecutor, studioId: string, name: string): Promise<{ id: string } | undefined> {
  const [found] = await tx
    .select({ id: bikeTypeLine.id })
    .from(bikeTypeLine)
    .where(and(eq(bikeTypeLine.studioId, studioId), eq(bikeTypeLine.name, name.trim())))
  return found
}

/** The next version of `latest`'s line, or with null the first of a new one. */
async function insertVersion(tx: DbExecutor, made: NewVersion, latest: TypeVersion | null): Promise<WriteResult> {
  const { id, studioId, whole, calibration, at, by } = made
  const lineId = latest?.lineId ?? crypto.randomUUID()
  const name = whole.bikeType.name.trim()
  if (latest) await tx.update(bikeTypeLine).set({ name }).where(eq(bikeTypeLine.id, lineId))
  else await tx.insert(bikeTypeLine).values({ id: lineId, studioId, name })
  const version = (latest?.version ?? 0) + 1
  await tx.insert(bikeType).values({
    id,
    studioId,
    lineId,
    version,
    definition: whole.bikeType,
    sheet: whole.sheet,
    calibration,
    madeAt: at,
    madeBy: by,
  })
  if (latest) {
    await tx.update(bike).set({ typeId: id }).where(eq(bike.typeId, latest.id))
    await recomputeMachinesOf(tx, id)
  }
  return { outcome: 'kept', id, lineId }
}

export type Imported = Readonly<{ added: string[]; changed: string[]; unchanged: string[] }>

/** Brings in all types of a file or none: new names begin a line, known ones get a version where something differs. */
export async function importTypes(
  db: Database,
  file: Readonly<{ studioId: string; types: readonly WholeType[]; at: Date; by: string }>,
): Promise<Imported> {
  return withTransaction(db, async (tx) => {
    await lockTypes(tx, file.studioId)
    const told = { added: [] as string[], changed: [] as string[], unchanged: [] as string[] }
    for (const whole of file.types) {
      const line = await lineNamed(tx, file.studioId, whole.bikeType.name)
      const [latest] = line ? await typeLine(tx, line.id) : []
      const same = latest && sameContent([latest.bikeType, latest.sheet], [whole.bikeType, whole.sheet])
      told[!latest ? 'added' : same ? 'unchanged' : 'changed'].push(whole.bikeType.name)
      if (same) continue
      const made = {
        id: crypto.randomUUID(),
        studioId: file.studioId,
        baseId: latest?.id ?? null,
        whole,
        calibration: null,
        at: file.at,
        by: file.by,
      }
      await insertVersion(tx, made, latest ?? null)
    }
    return told
  })
}

export type StoredReading = Readonly<{ id: string; row: TapeReading }>

/** Tape readings toward the next calibration, taken on this version, without those withdrawn, in the order taken. */
export async function typeReadings(db: DbExecutor, typeId: string): Promise<StoredReading[]> {
  return db
    .select({ id: typeReading.id, row: typeReading.row })
    .from(typeReading)
    .where(and(eq(typeReading.typeId, typeId), isNull(typeReading.withdrawnAt)))
    .orderBy(asc(typeReading.position))
}

/** Appends a reading; the same id with the same content again changes nothing. */
export async function addTypeReading(
  db: DbExecutor,
  added: Readonly<{ id: string; typeId: string; row: TapeReading; at: Date; by: string }>,
): Promise<Written> {
  const { id, typeId, row } = typeReading
  const stored = async () => (await db.select({ id, typeId, row }).from(typeReading).where(eq(id, added.id)))[0]
  return insertOnce(() => db.insert(typeReading).values(added), stored, {
    id: added.id,
    typeId: added.typeId,
    row: added.row,
  })
}

/** Readings in the place of others: each an id that is there now, with the id and row that take its place. */
export type ReplacedReading = Readonly<{ id: string; newId: string; row: TapeReading }>

/**
 * Puts corrected readings in the place of others, all or none, in their order. Sent again it changes nothing; `gone` when
 * somebody took one of them back meanwhile, `idTaken` when a new id stands for something else.
 */
export async function replaceTypeReadings(
  db: Database,
  all: Readonly<{ typeId: string; replaced: readonly ReplacedReading[]; at: Date; by: string }>,
): Promise<Readonly<{ outcome: 'kept' | 'gone' | 'idTaken' }>> {
  const { typeId, replaced, at, by } = all
  return withTransaction(db, async (tx) => {
    await tx.select({ id: bikeType.id }).from(bikeType).where(eq(bikeType.id, typeId)).for('update')
    const rows = await tx
      .select({ id: typeReading.id, row: typeReading.row, withdrawnAt: typeReading.withdrawnAt })
      .from(typeReading)
      .where(eq(typeReading.typeId, typeId))
    const byId = new Map(rows.map((r) => [r.id, r]))
    if (replaced.every(({ newId, row }) => byId.has(newId) && sameContent(byId.get(newId)!.row, row)))
      return { outcome: 'kept' }
    if (replaced.some(({ newId }) => byId.has(newId))) return { outcome: 'idTaken' }
    if (replaced.some(({ id }) => byId.get(id)?.withdrawnAt !== null)) return { outcome: 'gone' }
    await tx
      .update(typeReading)
      .set({ withdrawnAt: at })
      .where(
        inArray(
          typeReading.id,
          replaced.map(({ id }) => id),
        ),
      )
    for (const { newId, row } of replaced) await tx.insert(typeReading).values({ id: newId, typeId, row, at, by })
    return { outcome: 'kept' }
  })
}

export async function withdrawTypeReading(db: DbExecutor, id: string, at: Date): Promise<void> {
  await db.update(typeReading).set({ withdrawnAt: at }).where(eq(typeReading.id, id))
}
