import { and, asc, desc, eq, gt, inArray, isNotNull, isNull, lte, max } from 'drizzle-orm'
import type { BikeReading } from '../../core/calibration/bikeReading'
import type { InspectionItem } from '../../core/bike/inspection'
import type { DbExecutor } from '../db/connection'
import { insertOnce, type Written } from '../db/insertOnce'
import { sameContent } from '../db/sameContent'
import { bike, bikeFault, bikeReading, inspection, member, setup, user } from '../db/schema'

export type KeptReading = Readonly<{ id: string; row: BikeReading; at: Date; by: string }>
export type Fault = Readonly<{
  id: string
  item: InspectionItem
  note: string
  foundAt: Date
  foundBy: string
  clearedAt: Date | null
}>

/** Everything measured on one machine, the earliest first, without what was withdrawn. */
export async function readingsOf(db: DbExecutor, bikeId: string): Promise<KeptReading[]> {
  return db
    .select({ id: bikeReading.id, row: bikeReading.row, at: bikeReading.at, by: user.name })
    .from(bikeReading)
    .innerJoin(user, eq(user.id, bikeReading.by))
    .where(and(eq(bikeReading.bikeId, bikeId), isNull(bikeReading.withdrawnAt)))
    .orderBy(asc(bikeReading.position))
}

/** Makes others that change this machine wait for the rest of the transaction. Taken before anything is read. */
export async function lockMachine(tx: DbExecutor, bikeId: string): Promise<void> {
  await tx.select({ id: bike.id }).from(bike).where(eq(bike.id, bikeId)).for('update')
}

/** Appends a reading; the same id with the same content again changes nothing. */
export async function addBikeReading(
  db: DbExecutor,
  added: Readonly<{ id: string; bikeId: string; row: BikeReading; at: Date; by: string }>,
): Promise<Written> {
  const { id, bikeId, row } = bikeReading
  const stored = async () => (await db.select({ id, bikeId, row }).from(bikeReading).where(eq(id, added.id)))[0]
  return insertOnce(() => db.insert(bikeReading).values(added), stored, {
    id: added.id,
    bikeId: added.bikeId,
    row: added.row,
  })
}

export async function withdrawBikeReading(db: DbExecutor, bikeId: string, id: string, at: Date): Promise<void> {
  await db
    .update(bikeReading)
    .set({ withdrawnAt: at })
    .where(and(eq(bikeReading.id, id), eq(bikeReading.bikeId, bikeId), isNull(bikeReading.withdrawnAt)))
}

/** Riders whose numbers were saved on a bike within a span, ends included: what a bike that changed in it puts in doubt. */
export async function savedBetween(
  db: DbExecutor,
  bikeId: string,
  from: Date,
  to: Date,
): Promise<Readonly<{ memberId: string; name: string; at: Date }>[]> {
  const rows = await db
    .select({ memberId: member.id, name: member.name, at: setup.finishedAt })
    .from(setup)
    .innerJoin(member, eq(member.id, setup.memberId))
    .where(
      and(eq(setup.bikeId, bikeId), isNotNull(setup.finishedAt), gt(setup.finishedAt, from), lte(setup.finishedAt, to)),
    )
    .orderBy(desc(setup.finishedAt))
  return rows.map((r) => ({ ...r, at: r.at! }))
}

/** When a machine was found changed after numbers were saved on it at `at`; null while it still is what it was. */
export async function changedSince(db: DbExecutor, bikeId: string, at: Date): Promise<Date | null> {
  const tapes = (await readingsOf(db, bikeId)).filter((r) => r.row.kind === 'tape')
  const found = tapes.find((r, i) => i > 0 && r.at >= at && r.row.kind === 'tape' && r.row.anew)
  return found?.at ?? null
}

/** When each bike was last looked over. */
export async function lastInspections(db: DbExecutor): Promise<Map<string, Date>> {
  const rows = await db
    .select({ bikeId: inspection.bikeId, at: max(inspection.at) })
    .from(inspection)
    .groupBy(inspection.bikeId)
  return new Map(rows.flatMap((r) => (r.at ? [[r.bikeId, new Date(r.at)]] : [])))
}

/** The latest looks over one machine, the last first: when, who, how many items held. */
export async function listInspections(
  db: DbExecutor,
  bikeId: string,
  most = 8,
): Promise<Readonly<{ id: string; at: Date; by: string; good: number }>[]> {
  const rows = await db
    .select({ id: inspection.id, at: inspection.at, by: user.name, good: inspection.good })
    .from(inspection)
    .innerJoin(user, eq(user.id, inspection.by))
    .where(eq(inspection.bikeId, bikeId))
    .orderBy(desc(inspection.at))
    .limit(most)
  return rows.map((r) => ({ ...r, good: r.good.length }))
}

export type Inspection = Readonly<{
  id: string
  bikeId: string
  good: readonly InspectionItem[]
  faults: readonly Readonly<{ id: string; item: InspectionItem; note: string }>[]
  at: Date
  by: string
}>

/**
 * Records one look over a machine with the faults it found, within the caller's transaction. The same ids with the same
 * content again change nothing; with another content nothing is written and the outcome says so.
 */
export async function recordInspection(
  tx: DbExecutor,
  { id, bikeId, good, faults, at, by }: Inspection,
): Promise<Written> {
  await lockMachine(tx, bikeId)
  const said = { bikeId, good, faults: [...faults].sort((a, b) => (a.id < b.id ? -1 : 1)) }
  const before = await inspectionStored(
    tx,
    id,
    faults.map((f) => f.id),
  )
  if (before) return { outcome: sameContent(before, said) ? 'kept' : 'idTaken' }
  await tx.insert(inspection).values({ id, bikeId, good, at, by })
  if (faults.length > 0)
    await tx.insert(bikeFault).values(faults.map((fault) => ({ ...fault, bikeId, foundAt: at, foundBy: by })))
  return { outcome: 'kept' }
}

/** What is stored under an inspection's id and its faults' ids, or null where none of them was used. */
async function inspectionStored(tx: DbExecutor, id: string, faultIds: readonly string[]): Promise<object | null> {
  const [look] = await tx
    .select({ bikeId: inspection.bikeId, good: inspection.good, at: inspection.at })
    .from(inspection)
    .where(eq(inspection.id, id))
  const columns = { id: bikeFault.id, item: bikeFault.item, note: bikeFault.note }
  const used =
    faultIds.length === 0
      ? []
      : await tx
          .select(columns)
          .from(bikeFault)
          .where(inArray(bikeFault.id, [...faultIds]))
  if (!look) return used.length === 0 ? null : { faults: used }
  const found = await tx
    .select(columns)
    .from(bikeFault)
    .where(and(eq(bikeFault.bikeId, look.bikeId), eq(bikeFault.foundAt, look.at)))
    .orderBy(asc(bikeFault.id))
  return { bikeId: look.bikeId, good: look.good, faults: found }
}

/** Faults of one machine, open ones first, then the latest. */
export async function faultsOf(db: DbExecutor, bikeId: string): Promise<Fault[]> {
  const rows = await db
    .select({
      id: bikeFault.id,
      item: bikeFault.item,
      note: bikeFault.note,
      foundAt: bikeFault.foundAt,
      foundBy: user.name,
      clearedAt: bikeFault.clearedAt,
    })
    .from(bikeFault)
    .innerJoin(user, eq(user.id, bikeFault.foundBy))
    .where(eq(bikeFault.bikeId, bikeId))
    .orderBy(desc(bikeFault.foundAt))
  return [...rows.filter((f) => !f.clearedAt), ...rows.filter((f) => f.clearedAt)]
}

/** Clears a fault: the bike may be offered again. Clearing twice changes nothing. */
export async function clearFault(db: DbExecutor, bikeId: string, id: string, at: Date, by: string): Promise<void> {
  await db
    .update(bikeFault)
    .set({ clearedAt: at, clearedBy: by })
    .where(and(eq(bikeFault.id, id), eq(bikeFault.bikeId, bikeId), isNull(bikeFault.clearedAt)))
}
