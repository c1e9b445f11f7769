import { and, asc, desc, eq, gt, isNotNull, isNull, lte, max } from 'drizzle-orm'
import type { Bike } from '../../core/bike/bike'
import type { BikeReading } from '../../core/calibration/bikeReading'
import type { InspectionItem } from '../../core/bike/inspection'
import type { Access } from '../db/connection'
import { bike, bikeFault, bikeReading, inspection, member, setup, user } from '../db/schema'

export type KeptReading = Readonly<{ id: string; row: BikeReading; at: Date; by: string }>
export type Fault = Readonly<{ id: string; item: InspectionItem; note: string; foundAt: Date; foundBy: string; clearedAt: Date | null }>

/** Everything measured on one machine, the earliest first, without what was withdrawn. */
export async function readingsOf(db: Access, bikeId: string): Promise<KeptReading[]> {
  return db
    .select({ id: bikeReading.id, row: bikeReading.row, at: bikeReading.at, by: user.name })
    .from(bikeReading)
    .innerJoin(user, eq(user.id, bikeReading.by))
    .where(and(eq(bikeReading.bikeId, bikeId), isNull(bikeReading.withdrawnAt)))
    .orderBy(asc(bikeReading.position))
}

/** Appends a reading; the same id again changes nothing. */
export async function addBikeReading(db: Access, added: Readonly<{ id: string; bikeId: string; row: BikeReading; at: Date; by: string }>): Promise<void> {
  await db.insert(bikeReading).values(added).onDuplicateKeyUpdate({ set: { id: added.id } })
}

export async function withdrawBikeReading(db: Access, bikeId: string, id: string, at: Date): Promise<void> {
  await db.update(bikeReading).set({ withdrawnAt: at }).where(and(eq(bikeReading.id, id), eq(bikeReading.bikeId, bikeId)))
}

/** Puts what the readings say in force: offsets, how sure they are, tilt. */
export async function setOwn(db: Access, bikeId: string, own: Bike): Promise<void> {
  await db.update(bike).set({ own }).where(eq(bike.id, bikeId))
}

/** Riders whose numbers were saved on a bike within a span, ends included: what a bike that changed in it puts in doubt. */
export async function savedBetween(db: Access, bikeId: string, from: Date, to: Date): Promise<Readonly<{ memberId: string; name: string; at: Date }>[]> {
  const rows = await db
    .select({ memberId: member.id, name: member.name, at: setup.finishedAt })
    .from(setup)
    .innerJoin(member, eq(member.id, setup.memberId))
    .where(and(eq(setup.bikeId, bikeId), isNotNull(setup.finishedAt), gt(setup.finishedAt, from), lte(setup.finishedAt, to)))
    .orderBy(desc(setup.finishedAt))
  return rows.map((r) => ({ ...r, at: r.at! }))
}

/** When a machine was found changed after numbers were saved on it at `at`; null while it still is what it was. */
export async function changedSince(db: Access, bikeId: string, at: Date): Promise<Date | null> {
  const tapes = (await readingsOf(db, bikeId)).filter((r) => r.row.kind === 'tape')
  const found = tapes.find((r, i) => i > 0 && r.at >= at && r.row.kind === 'tape' && r.row.anew)
  return found?.at ?? null
}

/** When each bike was last looked over. */
export async function lastInspections(db: Access): Promise<Map<string, Date>> {
  const rows = await db.select({ bikeId: inspection.bikeId, at: max(inspection.at) }).from(inspection).groupBy(inspection.bikeId)
  return new Map(rows.flatMap((r) => (r.at ? [[r.bikeId, new Date(r.at)]] : [])))
}

/** The latest looks over one machine, the last first: when, who, how many items held. */
export async function looksOver(db: Access, bikeId: string, most = 8): Promise<Readonly<{ id: string; at: Date; by: string; good: number }>[]> {
  const rows = await db
    .select({ id: inspection.id, at: inspection.at, by: user.name, good: inspection.good })
    .from(inspection)
    .innerJoin(user, eq(user.id, inspection.by))
    .where(eq(inspection.bikeId, bikeId))
    .orderBy(desc(inspection.at))
    .limit(most)
  return rows.map((r) => ({ ...r, good: r.good.length }))
}

export type Look = Readonly<{ id: string; bikeId: string; good: readonly InspectionItem[]; faults: readonly Readonly<{ id: string; item: InspectionItem; note: string }>[]; at: Date; by: string }>

/** Keeps one look over a machine with the faults it found. The same ids again change nothing. */
export async function keepLook(db: Access, { id, bikeId, good, faults, at, by }: Look): Promise<void> {
  await db.insert(inspection).values({ id, bikeId, good, at, by }).onDuplicateKeyUpdate({ set: { id } })
  for (const fault of faults) await db.insert(bikeFault).values({ ...fault, bikeId, foundAt: at, foundBy: by }).onDuplicateKeyUpdate({ set: { id: fault.id } })
}

/** Faults of one machine, open ones first, then the latest. */
export async function faultsOf(db: Access, bikeId: string): Promise<Fault[]> {
  const rows = await db
    .select({ id: bikeFault.id, item: bikeFault.item, note: bikeFault.note, foundAt: bikeFault.foundAt, foundBy: user.name, clearedAt: bikeFault.clearedAt })
    .from(bikeFault)
    .innerJoin(user, eq(user.id, bikeFault.foundBy))
    .where(eq(bikeFault.bikeId, bikeId))
    .orderBy(desc(bikeFault.foundAt))
  return [...rows.filter((f) => !f.clearedAt), ...rows.filter((f) => f.clearedAt)]
}

/** Clears a fault: the bike may be offered again. Clearing twice changes nothing. */
export async function clearFault(db: Access, bikeId: string, id: string, at: Date, by: string): Promise<void> {
  await db.update(bikeFault).set({ clearedAt: at, clearedBy: by }).where(and(eq(bikeFault.id, id), eq(bikeFault.bikeId, bikeId), isNull(bikeFault.clearedAt)))
}
