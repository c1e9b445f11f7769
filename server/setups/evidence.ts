import { and, asc, count, desc, eq, isNotNull, isNull } from 'drizzle-orm'
import { AXES, type Marks } from '../../core/base/conventions'
import type { MeantReason } from '../../core/riders/evidence/kinds/onBike/set'
import { isBarCheck, isBodyEvidence, isSaddleCheck } from '../../core/riders/evidence/evidence'
import { evidenceLevel } from '../../core/riders/evidence/evidenceLevel'
import type { Evidence } from '../../core/riders/evidence/registry'
import type { Purpose } from '../../core/setups/register/entry'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { isDuplicate } from '../platform/db/errors'
import { sameContent } from '../platform/db/sameContent'
import { user } from '../platform/accounts/tables'
import { bikeType } from '../bikes/tables'
import { member } from '../riders/tables'
import { evidence, setup, withdrawal } from './tables'
import { recordEntry } from './register'

/** A row of evidence as stored; withdrawn rows are not handed out. */
export type StoredEvidence = Readonly<{ id: string; row: Evidence }>

/** Result of writing a row or the numbers; every outcome but `kept` has written nothing. */
export type RecordResult =
  | Readonly<{ outcome: 'kept' }>
  /** The studio has no such set-up. */
  | Readonly<{ outcome: 'gone' }>
  /** The id was used for something else. */
  | Readonly<{ outcome: 'idTaken' }>
  | Readonly<{ outcome: 'full' }>
  | Readonly<{ outcome: 'finished'; finishedBy: string; finishedAt: Date; marks: Marks }>

/** More rows than this no set-up has; the arithmetic takes no more. */
export const MAX_ROWS = 500

const SAVED: RecordResult = { outcome: 'kept' }

/** The rows of a set-up in the order seen, without those withdrawn. */
export async function listEvidence(db: DbExecutor, scope: Scope, setupId: string): Promise<StoredEvidence[]> {
  return db
    .select({ id: evidence.id, row: evidence.row })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.setupId, setupId), eq(evidence.studioId, scope.studioId), isNull(withdrawal.evidenceId)))
    .orderBy(asc(evidence.position))
}

/** Locks an open set-up of the studio until the transaction ends, or returns why it is not writable. */
async function lockOpen(tx: DbExecutor, scope: Scope, setupId: string): Promise<RecordResult> {
  const [found] = await tx
    .select({ finishedAt: setup.finishedAt })
    .from(setup)
    .where(and(eq(setup.id, setupId), eq(setup.studioId, scope.studioId)))
    .for('update')
  if (!found) return { outcome: 'gone' }
  return found.finishedAt ? whoFinished(tx, setupId) : SAVED
}

async function whoFinished(tx: DbExecutor, setupId: string): Promise<RecordResult> {
  const [found] = await tx
    .select({ finishedBy: user.name, finishedAt: setup.finishedAt, row: evidence.row })
    .from(setup)
    .innerJoin(user, eq(user.id, setup.finishedBy))
    .innerJoin(evidence, eq(evidence.id, setup.numbersId))
    .where(eq(setup.id, setupId))
  const { finishedBy, finishedAt, row } = found
  return { outcome: 'finished', finishedBy, finishedAt: finishedAt!, marks: row.at ?? {} }
}

/**
 * Appends a row to an open set-up, within the caller's transaction. The same id with the same content again changes
 * nothing, also after the set-up was finished; with another content, or in another set-up, it is `idTaken`.
 */
export async function appendEvidence(
  tx: DbExecutor,
  scope: Scope,
  setupId: string,
  seen: StoredEvidence,
  now: Date,
): Promise<RecordResult> {
  const state = await lockOpen(tx, scope, setupId)
  if (state.outcome === 'gone') return state
  const before = await storedUnder(tx, seen.id)
  if (before) return before.setupId === setupId && sameContent(before.row, seen.row) ? SAVED : { outcome: 'idTaken' }
  if (state.outcome !== 'kept') return state
  const [{ rows }] = await tx.select({ rows: count() }).from(evidence).where(eq(evidence.setupId, setupId))
  if (rows >= MAX_ROWS) return { outcome: 'full' }
  return insertRow(tx, scope, setupId, seen, now)
}

async function insertRow(
  tx: DbExecutor,
  { studioId, userId }: Scope,
  setupId: string,
  { id, row }: StoredEvidence,
  now: Date,
): Promise<RecordResult> {
  try {
    await tx.insert(evidence).values({ id, studioId, setupId, row, createdAt: now, createdBy: userId })
    return SAVED
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
  scope: Scope,
  setupId: string,
  rowId: string,
  now: Date,
): Promise<RecordResult> {
  const state = await lockOpen(tx, scope, setupId)
  const [found] = await tx
    .select({ id: evidence.id, withdrawn: withdrawal.evidenceId })
    .from(evidence)
    .leftJoin(withdrawal, eq(withdrawal.evidenceId, evidence.id))
    .where(and(eq(evidence.id, rowId), eq(evidence.setupId, setupId)))
  if (state.outcome === 'finished' && found?.withdrawn) return SAVED
  if (state.outcome !== 'kept' || !found || found.withdrawn) return state
  await tx
    .insert(withdrawal)
    .values({ evidenceId: rowId, studioId: scope.studioId, createdAt: now, createdBy: scope.userId })
    .onDuplicateKeyUpdate({ set: { evidenceId: rowId } })
  return SAVED
}

/**
 * Saves the numbers of an open set-up, within the caller's transaction: a last row that sets them, and it is finished.
 * Idempotent by id and marks. If another person saved first, the outcome has the person, time and marks.
 */
export async function finishSetup(
  tx: DbExecutor,
  scope: Scope,
  setupId: string,
  numbers: Readonly<{ id: string; marks: Marks; purpose?: Purpose }>,
  now: Date,
): Promise<RecordResult> {
  const state = await lockOpen(tx, scope, setupId)
  const seen = await listEvidence(tx, scope, setupId)
  const meant = meantAt(numbers.marks, seen, numbers.id)
  const row: Evidence = { kind: 'set', at: numbers.marks, ...(meant && { meant }) }
  if (state.outcome === 'finished') {
    const before = await storedUnder(tx, numbers.id)
    return before?.setupId === setupId && sameContent(before.row, row) ? SAVED : state
  }
  if (state.outcome !== 'kept') return state
  if (await storedUnder(tx, numbers.id)) return { outcome: 'idTaken' }
  const recorded = await insertRow(tx, scope, setupId, { id: numbers.id, row }, now)
  if (recorded.outcome !== 'kept') return recorded
  await tx
    .update(setup)
    .set({ numbersId: numbers.id, finishedAt: now, finishedBy: scope.userId, openKey: null })
    .where(eq(setup.id, setupId))
  await updateLatestSetup(tx, setupId)
  await enterNumbers(tx, scope, setupId, { ...numbers, meant, seen: seen.map(({ row: one }) => one) }, now)
  return SAVED
}

/** The numbers of a set-up, with what they rest on, as they go into the register. */
async function enterNumbers(
  tx: DbExecutor,
  scope: Scope,
  setupId: string,
  {
    marks,
    meant,
    purpose = 'usual',
    seen,
  }: Readonly<{ marks: Marks; meant?: MeantReason; purpose?: Purpose; seen: readonly Evidence[] }>,
  now: Date,
): Promise<void> {
  const [made] = await tx
    .select({
      memberId: setup.memberId,
      lineId: bikeType.lineId,
      typeId: setup.typeId,
      bikeId: setup.bikeId,
      machineCalibration: setup.machineCalibration,
    })
    .from(setup)
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(eq(setup.id, setupId))
  const rider = seen.findLast((row) => row.kind === 'rider')
  const looks = seen.filter((row) => isSaddleCheck(row) || isBodyEvidence(row) || isBarCheck(row))
  await recordEntry(
    tx,
    scope,
    {
      ...made,
      id: setupId,
      purpose,
      source: 'setUp',
      certainty: evidenceLevel(seen),
      marks,
      meant: meant ?? null,
      basis: { seen: [...new Set(looks.map(({ kind }) => kind))] },
      footwear: rider?.kind === 'rider' ? { soleMm: rider.soleMm, pedal: rider.pedal } : {},
      setupId,
    },
    now,
  )
}

/** Reason of an intentional setting, from the last row that set these marks. */
function meantAt(marks: Marks, rows: readonly StoredEvidence[], ownId: string): MeantReason | undefined {
  const last = rows.findLast(({ id, row }) => row.kind === 'set' && id !== ownId)?.row
  return last?.kind === 'set' && AXES.every((axis) => last.at?.[axis] === marks[axis]) ? last.meant : undefined
}

/** The numbers in force are those saved last, also where an earlier set-up is saved after a later one. */
async function updateLatestSetup(tx: DbExecutor, setupId: string): Promise<void> {
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
