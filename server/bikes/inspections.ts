import { and, asc, desc, eq, inArray, isNull, max, type SQL } from 'drizzle-orm'
import type { InspectionItem } from '../../core/bikes/bike/inspection'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { sameContent } from '../platform/db/sameContent'
import { user } from '../platform/accounts/tables'
import { bikeFault, inspection } from './tables'
import type { BikeWriteResult } from './bikeReadings'
import { lockMachine } from './machineCalibration'

export type BikeFault = Readonly<{
  id: string
  item: InspectionItem
  note: string
  foundAt: Date
  foundBy: string
  resolvedAt: Date | null
}>

/** When each bike of the studio was last looked over. */
export async function lastInspections(db: DbExecutor, scope: Scope): Promise<Map<string, Date>> {
  const rows = await db
    .select({ bikeId: inspection.bikeId, at: max(inspection.createdAt) })
    .from(inspection)
    .where(eq(inspection.studioId, scope.studioId))
    .groupBy(inspection.bikeId)
  return new Map(rows.flatMap((r) => (r.at ? [[r.bikeId, new Date(r.at)]] : [])))
}

/** The latest looks over one machine, the last first: when, who, how many items passed. */
export async function listInspections(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
  limit = 8,
): Promise<Readonly<{ id: string; createdAt: Date; createdBy: string; good: number }>[]> {
  const rows = await db
    .select({ id: inspection.id, createdAt: inspection.createdAt, createdBy: user.name, good: inspection.good })
    .from(inspection)
    .innerJoin(user, eq(user.id, inspection.createdBy))
    .where(and(eq(inspection.bikeId, bikeId), eq(inspection.studioId, scope.studioId)))
    .orderBy(desc(inspection.createdAt))
    .limit(limit)
  return rows.map((r) => ({ ...r, good: r.good.length }))
}

export type Inspection = Readonly<{
  id: string
  bikeId: string
  good: readonly InspectionItem[]
  faults: readonly Readonly<{ id: string; item: InspectionItem; note: string }>[]
}>

/**
 * Records one look over a machine with the faults it found, all or nothing. The same ids with the same content again
 * change nothing; with another content nothing is written, as the outcome reports.
 */
export async function recordInspection(
  db: Database,
  scope: Scope,
  { id, bikeId, good, faults }: Inspection,
  now: Date,
): Promise<BikeWriteResult> {
  const { studioId, userId } = scope
  return withTransaction(db, async (tx) => {
    if (!(await lockMachine(tx, scope, bikeId))) return { outcome: 'gone' }
    const content = { bikeId, good, faults: [...faults].sort((a, b) => (a.id < b.id ? -1 : 1)) }
    const faultIds = faults.map((f) => f.id)
    const before = await inspectionStored(tx, id, faultIds)
    if (before) return { outcome: sameContent(before, content) ? 'kept' : 'idTaken' }
    await tx.insert(inspection).values({ id, studioId, bikeId, good, createdAt: now, createdBy: userId })
    if (faults.length > 0)
      await tx
        .insert(bikeFault)
        .values(faults.map((fault) => ({ ...fault, studioId, bikeId, foundAt: now, foundBy: userId })))
    return { outcome: 'kept' }
  })
}

/** What is stored under an inspection's id and its faults' ids, or null where none of them was used. */
async function inspectionStored(tx: DbExecutor, id: string, faultIds: readonly string[]): Promise<object | null> {
  const [look] = await tx
    .select({ bikeId: inspection.bikeId, good: inspection.good, createdAt: inspection.createdAt })
    .from(inspection)
    .where(eq(inspection.id, id))
  const columns = { id: bikeFault.id, item: bikeFault.item, note: bikeFault.note }
  const faults = (condition: SQL | undefined) =>
    tx.select(columns).from(bikeFault).where(condition).orderBy(asc(bikeFault.id))
  const used = faultIds.length === 0 ? [] : await faults(inArray(bikeFault.id, [...faultIds]))
  if (!look) return used.length === 0 ? null : { faults: used }
  const found = await faults(and(eq(bikeFault.bikeId, look.bikeId), eq(bikeFault.foundAt, look.createdAt)))
  return { bikeId: look.bikeId, good: look.good, faults: found }
}

/** Faults of one machine, open ones first, then the latest. */
export async function listFaults(db: DbExecutor, scope: Scope, bikeId: string): Promise<BikeFault[]> {
  const rows = await db
    .select({
      id: bikeFault.id,
      item: bikeFault.item,
      note: bikeFault.note,
      foundAt: bikeFault.foundAt,
      foundBy: user.name,
      resolvedAt: bikeFault.resolvedAt,
    })
    .from(bikeFault)
    .innerJoin(user, eq(user.id, bikeFault.foundBy))
    .where(and(eq(bikeFault.bikeId, bikeId), eq(bikeFault.studioId, scope.studioId)))
    .orderBy(desc(bikeFault.foundAt))
  return [...rows.filter((f) => !f.resolvedAt), ...rows.filter((f) => f.resolvedAt)]
}

/** Resolves a fault: the bike may be offered again. Resolving twice changes nothing. */
export async function resolveFault(
  db: DbExecutor,
  scope: Scope,
  { id, bikeId }: Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<void> {
  await db
    .update(bikeFault)
    .set({ resolvedAt: now, resolvedBy: scope.userId })
    .where(
      and(
        eq(bikeFault.id, id),
        eq(bikeFault.bikeId, bikeId),
        eq(bikeFault.studioId, scope.studioId),
        isNull(bikeFault.resolvedAt),
      ),
    )
}
