import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { BikeType } from '../../core/bike/bike'
import { offsetFrom } from '../../core/calibration/offset'
import type { TypeSheet } from '../../core/bike/sheet'
import type { TypeCalibration } from '../../core/calibration/calibrate'
import type { TapeReading } from '../../core/calibration/readings'
import type { WholeType } from '../../core/operations/typeFile'
import { together, type Access, type Database } from '../db/connection'
import { bike, bikeType, typeReading, user } from '../db/schema'

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

export type Written =
  | Readonly<{ outcome: 'kept'; id: string; lineId: string }>
  | Readonly<{ outcome: 'sameName' }>
  | Readonly<{ outcome: 'changedMeanwhile'; by: string | null; at: Date }>

const columns = {
  id: bikeType.id, lineId: bikeType.lineId, version: bikeType.version, bikeType: bikeType.definition, sheet: bikeType.sheet,
  calibration: bikeType.calibration, madeAt: bikeType.madeAt, by: user.name,
}
const versions = (db: Access) => db.select(columns).from(bikeType).leftJoin(user, eq(user.id, bikeType.madeBy))

/** The versions in force, by name. */
export async function typesOf(db: Access, studioId: string): Promise<TypeVersion[]> {
  const all = await versions(db).where(eq(bikeType.studioId, studioId)).orderBy(asc(bikeType.version))
  const latest = new Map(all.map((t) => [t.lineId, t]))
  return [...latest.values()].sort((a, b) => a.bikeType.name.localeCompare(b.bikeType.name))
}

/** All versions of a type, the latest first; empty where there is none. */
export const typeLine = (db: Access, lineId: string): Promise<TypeVersion[]> => versions(db).where(eq(bikeType.lineId, lineId)).orderBy(desc(bikeType.version))

/** One version by its id, or null. */
export async function typeById(db: Access, id: string): Promise<TypeVersion | null> {
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
 * Writes a version and puts it in force on all bikes of its line; set-ups keep the version they were made on.
 * When somebody else wrote one since `baseId`, nothing is written. The same id again changes nothing.
 */
export async function writeVersion(db: Database, made: NewVersion): Promise<Written> {
  return together(db, async (tx) => {
    // The base row is the line's lock. Taken first: what is read after it is what others committed before it was free.
    const [base] = made.baseId ? await tx.select().from(bikeType).where(eq(bikeType.id, made.baseId)).for('update') : []
    const [already] = await tx.select({ id: bikeType.id, lineId: bikeType.lineId }).from(bikeType).where(eq(bikeType.id, made.id))
    if (already) return { outcome: 'kept', ...already }
    const named = (await typesOf(tx, made.studioId)).find((t) => sameName(t.bikeType.name, made.whole.bikeType.name))
    if (named && named.lineId !== base?.lineId) return { outcome: 'sameName' }
    if (!base) return insertVersion(tx, made, crypto.randomUUID(), 1)
    const [latest] = await typeLine(tx, base.lineId)
    if (latest.id !== base.id) return { outcome: 'changedMeanwhile', by: latest.by, at: latest.madeAt }
    return insertVersion(tx, made, base.lineId, base.version + 1)
  })
}

async function insertVersion(tx: Access, { id, studioId, whole, calibration, at, by }: NewVersion, lineId: string, version: number): Promise<Written> {
  const earlier = (await tx.select({ id: bikeType.id }).from(bikeType).where(eq(bikeType.lineId, lineId))).map((t) => t.id)
  await tx.insert(bikeType).values({ id, studioId, lineId, version, definition: whole.bikeType, sheet: whole.sheet, calibration, madeAt: at, madeBy: by })
  if (earlier.length === 0) return { outcome: 'kept', id, lineId }
  const machines = await tx.select({ id: bike.id, own: bike.own }).from(bike).where(inArray(bike.typeId, earlier))
  const sdMm = calibration && offsetFrom(whole.bikeType, [], calibration.sdMm).sdMm
  for (const machine of machines) await tx.update(bike).set({ typeId: id, ...(sdMm && { own: { ...machine.own, sdMm } }) }).where(eq(bike.id, machine.id))
  return { outcome: 'kept', id, lineId }
}

const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase()

export type Imported = Readonly<{ added: string[]; changed: string[]; unchanged: string[] }>

/** Brings in all types of a file or none: new names begin a line, known ones get a version where something differs. */
export async function importTypes(db: Database, file: Readonly<{ studioId: string; types: readonly WholeType[]; at: Date; by: string }>): Promise<Imported> {
  return together(db, async (tx) => {
    const known = await typesOf(tx, file.studioId)
    const told = { added: [] as string[], changed: [] as string[], unchanged: [] as string[] }
    for (const whole of file.types) {
      const line = known.find((t) => sameName(t.bikeType.name, whole.bikeType.name))
      const same = line && JSON.stringify(sorted({ bikeType: line.bikeType, sheet: line.sheet })) === JSON.stringify(sorted(whole))
      told[!line ? 'added' : same ? 'unchanged' : 'changed'].push(whole.bikeType.name)
      if (same) continue
      const made = { id: crypto.randomUUID(), studioId: file.studioId, baseId: line?.id ?? null, whole, calibration: null, at: file.at, by: file.by }
      await insertVersion(tx, made, line?.lineId ?? crypto.randomUUID(), (line?.version ?? 0) + 1)
    }
    return told
  })
}

/** The same value with every object's keys in order, for comparing what a database may have reordered. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, inner]) => [key, sorted(inner)]))
}

export type StoredReading = Readonly<{ id: string; row: TapeReading }>

/** Tape readings toward the next calibration, taken on this version, without those withdrawn, in the order taken. */
export async function typeReadings(db: Access, typeId: string): Promise<StoredReading[]> {
  return db.select({ id: typeReading.id, row: typeReading.row }).from(typeReading).where(and(eq(typeReading.typeId, typeId), isNull(typeReading.withdrawnAt))).orderBy(asc(typeReading.position))
}

/** Appends a reading; the same id again changes nothing. */
export async function addTypeReading(db: Access, added: Readonly<{ id: string; typeId: string; row: TapeReading; at: Date; by: string }>): Promise<void> {
  await db.insert(typeReading).values(added).onDuplicateKeyUpdate({ set: { id: added.id } })
}

export async function withdrawTypeReading(db: Access, id: string, at: Date): Promise<void> {
  await db.update(typeReading).set({ withdrawnAt: at }).where(eq(typeReading.id, id))
}
