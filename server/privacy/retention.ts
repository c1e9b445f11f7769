import { and, count, eq, inArray, isNotNull, isNull, lt, notExists, sql, type SQL } from 'drizzle-orm'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { KEPT, type Kept, type Retention } from '../../core/riders/retention/retention'
import { classFollowUp, classNote, markMove } from '../classes/tables'
import { complaint, programme, programmeTick, trial, trialRating } from '../comfort/tables'
import { studio } from '../platform/accounts/tables'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { member } from '../riders/tables'
import { evidence, registerCurrent, registerEntry, riderFile, setup, setupSchool, withdrawal } from '../setups/tables'

/** Rows of one table that are too old, and what is deleted or cleared with them. */
type Outdated = Readonly<{ table: MySqlTable & Readonly<{ id?: AnyMySqlColumn }>; where: SQL }>

/** Rows of each kind that a retention would delete. */
export type RetentionCounts = Readonly<Record<Kept, number>>

/** So many rows in one transaction: others write meanwhile. */
const BATCH = 500

/** Retention time of each kind, months; null for no limit. */
export async function retentionOf(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>): Promise<Retention> {
  const [found] = await db.select({ retention: studio.retention }).from(studio).where(eq(studio.id, studioId))
  return { notes: null, complaints: null, sets: null, ...found?.retention }
}

export async function saveRetention(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>, retention: Retention) {
  await db.update(studio).set({ retention }).where(eq(studio.id, studioId))
}

/** The same day so many months ago. */
function monthsBefore(now: Date, months: number): Date {
  const at = new Date(now)
  at.setUTCMonth(at.getUTCMonth() - months)
  return at
}

/** The rows of a kind that are older than a day, by a condition on the kind's own table. */
function outdated(db: DbExecutor, kind: Kept, { studioId }: Pick<Scope, 'studioId'>, before: Date): Outdated {
  switch (kind) {
    case 'notes':
      return {
        table: classNote,
        where: and(eq(classNote.studioId, studioId), lt(classNote.createdAt, before))!,
      }
    case 'complaints':
      // An open complaint is not over, however old, and a trial that runs neither.
      return {
        table: complaint,
        where: and(
          eq(complaint.studioId, studioId),
          isNotNull(complaint.closedAt),
          lt(complaint.closedAt, before),
          notExists(
            db
              .select({ id: trial.id })
              .from(trial)
              .where(and(eq(trial.complaintId, complaint.id), isNull(trial.endedAt))),
          ),
        )!,
      }
    case 'sets':
      // Numbers in force stay, and what they, a trial or a move rest on.
      return {
        table: registerEntry,
        where: and(
          eq(registerEntry.studioId, studioId),
          lt(registerEntry.createdAt, before),
          ...[
            [registerCurrent, registerCurrent.entryId],
            [trial, trial.entryId],
            [trial, trial.fromEntryId],
            [markMove, markMove.fromEntryId],
          ].map(([table, column]) =>
            notExists(
              db
                .select({ one: sql`1` })
                .from(table as MySqlTable)
                .where(eq(column as AnyMySqlColumn, registerEntry.id)),
            ),
          ),
        )!,
      }
  }
}

/** What a retention would delete today; nothing is written. */
export async function previewRetention(
  db: DbExecutor,
  scope: Pick<Scope, 'studioId'>,
  retention: Retention,
  now: Date,
): Promise<RetentionCounts> {
  const counted = async (kind: Kept) => {
    const months = retention[kind]
    if (months === null) return 0
    const { table, where } = outdated(db, kind, scope, monthsBefore(now, months))
    return (await db.select({ n: count() }).from(table).where(where))[0].n
  }
  const pairs: [Kept, number][] = []
  for (const kind of KEPT) pairs.push([kind, await counted(kind)])
  return Object.fromEntries(pairs) as RetentionCounts
}

/** Deletes rows past their retention time, in small transactions. Resolves with the counts. */
export async function applyRetention(
  db: Database,
  scope: Pick<Scope, 'studioId'>,
  now: Date,
): Promise<RetentionCounts> {
  const retention = await retentionOf(db, scope)
  const counts: Record<Kept, number> = { notes: 0, complaints: 0, sets: 0 }
  for (const kind of KEPT) {
    const months = retention[kind]
    if (months === null) continue
    const { table, where } = outdated(db, kind, scope, monthsBefore(now, months))
    for (let deleted = BATCH; deleted === BATCH;) {
      deleted = await withTransaction(db, (tx) => deleteSome(tx, kind, table, where))
      counts[kind] += deleted
    }
    if (kind === 'notes') await deleteFollowUps(db, scope, monthsBefore(now, months))
    if (kind === 'complaints') await deleteProgrammes(db, scope, monthsBefore(now, months))
    if (kind !== 'sets') continue
    await deleteSetups(db, scope, monthsBefore(now, months))
    await deleteRiderFiles(db, scope, monthsBefore(now, months))
  }
  return counts
}

async function deleteSome(tx: DbExecutor, kind: Kept, table: Outdated['table'], where: SQL): Promise<number> {
  const found = await tx.select({ id: table.id! }).from(table).where(where).limit(BATCH)
  const ids = found.map(({ id }) => id as string)
  if (ids.length === 0) return 0
  if (kind === 'notes') await tx.update(complaint).set({ noteId: null }).where(inArray(complaint.noteId, ids))
  if (kind === 'complaints') {
    const trials = tx.select({ id: trial.id }).from(trial).where(inArray(trial.complaintId, ids))
    await tx.delete(trialRating).where(inArray(trialRating.trialId, trials))
    await tx.delete(trial).where(inArray(trial.complaintId, ids))
  }
  // A move is a part of the numbers it made.
  if (kind === 'sets') await tx.delete(markMove).where(inArray(markMove.id, ids))
  await tx.delete(table).where(inArray(table.id!, ids))
  return ids.length
}

/** Programmes last for some weeks: what was given before the day is over. */
async function deleteProgrammes(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>, before: Date): Promise<void> {
  const old = and(eq(programme.studioId, studioId), lt(programme.createdAt, before))
  const ids = db.select({ id: programme.id }).from(programme).where(old)
  await db.delete(programmeTick).where(inArray(programmeTick.programmeId, ids))
  await db.delete(programme).where(old)
}

/** Lines after class are made of notes. */
async function deleteFollowUps(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>, before: Date): Promise<void> {
  await db.delete(classFollowUp).where(and(eq(classFollowUp.studioId, studioId), lt(classFollowUp.createdAt, before)))
}

/** Riders' own files hold sets and a body; what was taken of them into the register stays by its own time. */
async function deleteRiderFiles(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>, before: Date): Promise<void> {
  await db.delete(riderFile).where(and(eq(riderFile.studioId, studioId), lt(riderFile.createdAt, before)))
}

/** Set-ups that no numbers rest on any more, with what was seen in them. */
async function deleteSetups(db: Database, { studioId }: Pick<Scope, 'studioId'>, before: Date): Promise<void> {
  const where = and(
    eq(setup.studioId, studioId),
    isNotNull(setup.finishedAt),
    lt(setup.finishedAt, before),
    notExists(db.select({ id: registerEntry.id }).from(registerEntry).where(eq(registerEntry.setupId, setup.id))),
  )
  for (let deleted = BATCH; deleted === BATCH;)
    deleted = await withTransaction(db, async (tx) => {
      const ids = (await tx.select({ id: setup.id }).from(setup).where(where).limit(BATCH)).map(({ id }) => id)
      if (ids.length === 0) return 0
      const rows = tx.select({ id: evidence.id }).from(evidence).where(inArray(evidence.setupId, ids))
      await tx.delete(withdrawal).where(inArray(withdrawal.evidenceId, rows))
      await tx.delete(evidence).where(inArray(evidence.setupId, ids))
      await tx.delete(setupSchool).where(inArray(setupSchool.setupId, ids))
      await tx.update(member).set({ latestSetupId: null }).where(inArray(member.latestSetupId, ids))
      await tx.delete(setup).where(inArray(setup.id, ids))
      return ids.length
    })
}
