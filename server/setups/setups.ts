import { and, asc, count, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import type { TypeSheet } from '../../core/bike/sheet'
import type { Marks } from '../../core/conventions'
import type { Evidence } from '../../core/evidence/evidence'
import type { DbExecutor } from '../db/connection'
import { isDuplicate } from '../db/errors'
import { sameContent } from '../db/sameContent'
import { bike, bikeType, evidence, member, setup, user, withdrawal } from '../db/schema'

/** A row of evidence as stored; withdrawn rows are not handed out. */
export type SeenRow = Readonly<{ id: string; row: Evidence }>

/** A set-up with the version of the type, and the machine's own offsets, that it was begun on. */
export type Setup = Readonly<{
  id: string
  memberId: string
  bikeId: string
  bikeNumber: number
  type: BikeType
  sheet: TypeSheet
  own: Bike
  finishedAt: Date | null
}>

/** A finished set-up as the rider's page tells it. */
export type SavedSetup = Readonly<{
  id: string
  bikeId: string
  bikeNumber: number
  type: BikeType
  own: Bike
  marks: Marks
  at: Date
  by: string
  evidence: readonly Evidence[]
}>

/** What became of a row or of the numbers; every outcome but `kept` has written nothing. */
export type Recorded =
  | Readonly<{ outcome: 'kept' }>
  /** There is no such set-up. */
  | Readonly<{ outcome: 'gone' }>
  /** The id was used for something else. */
  | Readonly<{ outcome: 'idTaken' }>
  | Readonly<{ outcome: 'full' }>
  | Readonly<{ outcome: 'finished'; by: string; at: Date; marks: Marks }>

/** More rows than this no set-up has; the arithmetic takes no more. */
export const MOST_ROWS = 500

const KEPT: Recorded = { outcome: 'kept' }
const openKey = (memberId: string, bikeId: string): string => `${memberId}/${bikeId}`

/** Starts a set-up and resolves with its id; where one of this member on this bike is open, with that one's. */
export async function startSetup(
  db: DbExecutor,
  started: Readonly<{
    id: string
    memberId: string
    bike: Readonly<{ id: string; typeId: string; own: Bike }>
    at: Date
    by: string
  }>,
): Promise<string> {
  const { id, memberId, bike, at, by } = started
  const open = openKey(memberId, bike.id)
  try {
    await db.insert(setup).values({
      id,
      memberId,
      bikeId: bike.id,
      typeId: bike.typeId,
      own: bike.own,
      startedAt: at,
      startedBy: by,
      openKey: open,
    })
    return id
  } catch (error) {
    if (!isDuplicate(error)) throw error
    const [found] = await db.select({ id: setup.id }).from(setup).where(eq(setup.openKey, open)).for('update')
    return found?.id ?? id
  }
}

export async function setupById(db: DbExecutor, id: string): Promise<Setup | null> {
  const [found] = await db
    .select({
      id: setup.id,
      memberId: setup.memberId,
      bikeId: setup.bikeId,
      bikeNumber: bike.number,
      type: bikeType.definition,
      sheet: bikeType.sheet,
      own: setup.own,
      finishedAt: setup.finishedAt,
    })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(eq(setup.id, id))
  return found ?? null
}

/** The rows of a set-up in the order seen, without those withdrawn. */
export async function rowsOf(db: DbExecutor, setupId: string): Promise<SeenRow[]> {
  return db
    .select({ id: evidence.id, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.setupId, setupId), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
}

/** Locks an open set-up for the rest of the transaction; or says why nothing can be written to it. */
async function lockOpen(tx: DbExecutor, setupId: string): Promise<Recorded> {
  const [found] = await tx
    .select({ finishedAt: setup.finishedAt })
    .from(setup)
    .where(eq(setup.id, setupId))
    .for('update')
  if (!found) return { outcome: 'gone' }
  return found.finishedAt ? whoFinished(tx, setupId) : KEPT
}

async function whoFinished(tx: DbExecutor, setupId: string): Promise<Recorded> {
  const [found] = await tx
    .select({ by: user.name, at: setup.finishedAt, row: evidence.row })
    .from(setup)
    .innerJoin(user, eq(user.id, setup.finishedBy))
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .where(eq(setup.id, setupId))
  return { outcome: 'finished', by: found.by, at: found.at!, marks: found.row.at ?? {} }
}

/**
 * Appends a row to an open set-up, within the caller's transaction. The same id with the same content again changes
 * nothing, also after the set-up was finished; with another content, or in another set-up, it is `idTaken`.
 */
export async function appendEvidence(
  tx: DbExecutor,
  setupId: string,
  seen: SeenRow,
  at: Date,
  by: string,
): Promise<Recorded> {
  const state = await lockOpen(tx, setupId)
  if (state.outcome === 'gone') return state
  const before = await storedUnder(tx, seen.id)
  if (before) return before.setupId === setupId && sameContent(before.row, seen.row) ? KEPT : { outcome: 'idTaken' }
  if (state.outcome !== 'kept') return state
  const [{ rows }] = await tx.select({ rows: count() }).from(evidence).where(eq(evidence.setupId, setupId))
  if (rows >= MOST_ROWS) return { outcome: 'full' }
  return insertRow(tx, setupId, seen, at, by)
}

async function insertRow(tx: DbExecutor, setupId: string, seen: SeenRow, at: Date, by: string): Promise<Recorded> {
  try {
    await tx.insert(evidence).values({ id: seen.id, setupId, row: seen.row, seenAt: at, seenBy: by })
    return KEPT
  } catch (error) {
    if (isDuplicate(error)) return { outcome: 'idTaken' }
    throw error
  }
}

async function storedUnder(tx: DbExecutor, id: string): Promise<{ setupId: string; row: Evidence } | undefined> {
  const [found] = await tx
    .select({ setupId: evidence.setupId, row: evidence.row })
    .from(evidence)
    .where(eq(evidence.id, id))
  return found
}

/** Withdraws a row of an open set-up; the row itself stays. Unknown or already withdrawn rows change nothing. */
export async function withdrawEvidence(
  tx: DbExecutor,
  setupId: string,
  rowId: string,
  at: Date,
  by: string,
): Promise<Recorded> {
  const state = await lockOpen(tx, setupId)
  const [found] = await tx
    .select({ id: evidence.id, withdrawn: withdrawal.evidenceId })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.id, rowId), eq(evidence.setupId, setupId)))
  if (state.outcome === 'finished' && found?.withdrawn) return KEPT
  if (state.outcome !== 'kept' || !found || found.withdrawn) return state
  await tx
    .insert(withdrawal)
    .values({ evidenceId: rowId, at, by })
    .onDuplicateKeyUpdate({ set: { evidenceId: rowId } })
  return KEPT
}

/**
 * Saves the numbers of an open set-up: a last row that sets them, and it is finished. The same id and marks again
 * change nothing; where somebody saved others first, the outcome says who, when and which.
 */
export async function finishSetup(
  tx: DbExecutor,
  setupId: string,
  numbers: Readonly<{ id: string; marks: Marks }>,
  at: Date,
  by: string,
): Promise<Recorded> {
  const state = await lockOpen(tx, setupId)
  const row: Evidence = { kind: 'set', at: numbers.marks }
  if (state.outcome === 'finished') {
    const before = await storedUnder(tx, numbers.id)
    return before?.setupId === setupId && sameContent(before.row, row) ? KEPT : state
  }
  if (state.outcome !== 'kept') return state
  if (await storedUnder(tx, numbers.id)) return { outcome: 'idTaken' }
  const kept = await insertRow(tx, setupId, { id: numbers.id, row }, at, by)
  if (kept.outcome !== 'kept') return kept
  await tx
    .update(setup)
    .set({ numbersId: numbers.id, finishedAt: at, finishedBy: by, openKey: null })
    .where(eq(setup.id, setupId))
  await putLatest(tx, setupId)
  return KEPT
}

/** The numbers that hold for a member are those saved last, also where an earlier set-up is saved after a later one. */
async function putLatest(tx: DbExecutor, setupId: string): Promise<void> {
  const [{ memberId }] = await tx.select({ memberId: setup.memberId }).from(setup).where(eq(setup.id, setupId))
  await tx.select({ id: member.id }).from(member).where(eq(member.id, memberId)).for('update')
  const [latest] = await tx
    .select({ id: setup.id })
    .from(setup)
    .where(and(eq(setup.memberId, memberId), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt), desc(setup.id))
    .limit(1)
    .for('update')
  await tx.update(member).set({ latestSetupId: latest.id }).where(eq(member.id, memberId))
}

/** A member's finished set-ups, the latest first, at most `most` of them. */
export async function savedSetups(db: DbExecutor, memberId: string, most = 50): Promise<SavedSetup[]> {
  const found = await db
    .select({
      id: setup.id,
      bikeId: setup.bikeId,
      bikeNumber: bike.number,
      type: bikeType.definition,
      own: setup.own,
      at: setup.finishedAt,
      by: user.name,
      numbers: evidence.row,
    })
    .from(setup)
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .innerJoin(user, eq(user.id, setup.finishedBy))
    .where(and(eq(setup.memberId, memberId), isNotNull(setup.finishedAt)))
    .orderBy(desc(setup.finishedAt))
    .limit(most)
  if (found.length === 0) return []
  const rows = await db
    .select({ setupId: evidence.setupId, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(
      and(
        inArray(
          evidence.setupId,
          found.map((f) => f.id),
        ),
        isNull(withdrawal.evidenceId),
      ),
    )
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
export async function openSetupsOf(
  db: DbExecutor,
  memberId: string,
): Promise<Readonly<{ id: string; bikeNumber: number; startedAt: Date }>[]> {
  return db
    .select({ id: setup.id, bikeNumber: bike.number, startedAt: setup.startedAt })
    .from(setup)
    .innerJoin(bike, eq(bike.id, setup.bikeId))
    .where(and(eq(setup.memberId, memberId), isNull(setup.finishedAt)))
    .orderBy(desc(setup.startedAt))
}
