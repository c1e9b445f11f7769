import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import type { TypeSheet } from '../../core/bike/sheet'
import type { Marks } from '../../core/conventions'
import type { Evidence } from '../../core/evidence/evidence'
import type { Access } from '../db/connection'
import { bike, bikeType, evidence, setup, user, withdrawal } from '../db/schema'

/** A row of evidence as stored; withdrawn rows are not handed out. */
export type SeenRow = Readonly<{ id: string; row: Evidence }>

/** A set-up with the version of the type, and the machine's own offsets, that it was begun on. */
export type Setup = Readonly<{ id: string; memberId: string; bikeId: string; bikeNumber: number; type: BikeType; sheet: TypeSheet; own: Bike; finishedAt: Date | null }>

/** A finished set-up as the rider's page tells it. */
export type SavedSetup = Readonly<{ id: string; bikeId: string; bikeNumber: number; type: BikeType; own: Bike; marks: Marks; at: Date; by: string; evidence: readonly Evidence[] }>

/** Starts a set-up; the same id again changes nothing. */
export async function startSetup(db: Access, started: Readonly<{ id: string; memberId: string; bike: Readonly<{ id: string; typeId: string; own: Bike }>; at: Date; by: string }>): Promise<void> {
  const { id, memberId, bike, at, by } = started
  await db
    .insert(setup)
    .values({ id, memberId, bikeId: bike.id, typeId: bike.typeId, own: bike.own, startedAt: at, startedBy: by })
    .onDuplicateKeyUpdate({ set: { id: started.id } })
}

export async function setupById(db: Access, id: string): Promise<Setup | null> {
  const [found] = await db
    .select({ id: setup.id, memberId: setup.memberId, bikeId: setup.bikeId, bikeNumber: bike.number, type: bikeType.definition, sheet: bikeType.sheet, own: setup.own, finishedAt: setup.finishedAt })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(eq(setup.id, id))
  return found ?? null
}

/** A member's set-up that was left open on a bike, the latest first. */
export async function openSetup(db: Access, memberId: string, bikeId: string): Promise<Readonly<{ id: string; startedAt: Date }> | null> {
  const [found] = await db
    .select()
    .from(setup)
    .where(and(eq(setup.memberId, memberId), eq(setup.bikeId, bikeId), isNull(setup.finishedAt)))
    .orderBy(desc(setup.startedAt))
    .limit(1)
  return found ?? null
}

/** The rows of a set-up in the order seen, without those withdrawn. */
export async function rowsOf(db: Access, setupId: string): Promise<SeenRow[]> {
  return db
    .select({ id: evidence.id, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.setupId, setupId), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
}

/** Appends a row; the same id again changes nothing. */
export async function appendRow(db: Access, setupId: string, seen: SeenRow, at: Date, by: string): Promise<void> {
  await db
    .insert(evidence)
    .values({ id: seen.id, setupId, row: seen.row, seenAt: at, seenBy: by })
    .onDuplicateKeyUpdate({ set: { id: seen.id } })
}

/** Withdraws a row of this set-up; the row itself stays. Unknown or already withdrawn rows change nothing. */
export async function withdrawRow(db: Access, setupId: string, rowId: string, at: Date, by: string): Promise<void> {
  const [found] = await db.select({ id: evidence.id }).from(evidence).where(and(eq(evidence.id, rowId), eq(evidence.setupId, setupId)))
  if (!found) return
  await db.insert(withdrawal).values({ evidenceId: rowId, at, by }).onDuplicateKeyUpdate({ set: { evidenceId: rowId } })
}

/** Saves the numbers: the row that set them, and when and by whom the set-up was finished. */
export async function finishSetup(db: Access, setupId: string, numbersId: string, at: Date, by: string): Promise<void> {
  await db.update(setup).set({ numbersId, finishedAt: at, finishedBy: by }).where(eq(setup.id, setupId))
}

/** A member's finished set-ups, the latest first. */
export async function savedSetups(db: Access, memberId: string): Promise<SavedSetup[]> {
  const found = await db
    .select({ id: setup.id, bikeId: setup.bikeId, bikeNumber: bike.number, type: bikeType.definition, own: setup.own, at: setup.finishedAt, by: user.name, numbers: evidence.row })
    .from(setup)
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .innerJoin(user, eq(user.id, setup.finishedBy))
    .where(eq(setup.memberId, memberId))
    .orderBy(desc(setup.finishedAt))
  if (found.length === 0) return []
  const rows = await db
    .select({ setupId: evidence.setupId, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(inArray(evidence.setupId, found.map((f) => f.id)), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
  return found.map((f) => ({
    id: f.id,
    bikeId: f.bikeId,
    bikeNumber: f.bikeNumber,
    type: f.type,
    own: f.own,
    marks: f.numbers.at ?? {},
    at: f.at!,
    by: f.by,
    evidence: rows.filter((r) => r.setupId === f.id).map((r) => r.row),
  }))
}

/** A member's set-ups still open, the latest first. */
export async function openSetupsOf(db: Access, memberId: string): Promise<Readonly<{ id: string; bikeNumber: number; startedAt: Date }>[]> {
  return db
    .select({ id: setup.id, bikeNumber: bike.number, startedAt: setup.startedAt })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .where(and(eq(setup.memberId, memberId), isNull(setup.finishedAt)))
    .orderBy(desc(setup.startedAt))
}
