import { and, desc, eq, isNull, lt, or } from 'drizzle-orm'
import type { Cause } from '../../core/comfort/model/causeTable'
import type { Change } from '../../core/comfort/changes/changeTypes'
import type { TrialOutcome } from '../../core/comfort/changes/trial'
import type { Marks } from '../../core/base/conventions'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import type { WriteResult } from '../platform/db/insertOnce'
import { sameContent } from '../platform/db/sameContent'
import { studio } from '../platform/accounts/tables'
import { sealRow } from '../platform/sealing/sealed'
import { complaint, trial, trialRating } from './tables'
import { registerCurrent, registerEntry } from '../setups/tables'
import { member } from '../riders/tables'
import type { LinkOwner } from '../riders/memberPage/links'
import { studioDay } from '../../core/messages/words/dates'
import { currentEntries, findEntry, newEntryOf, recordEntry, type RegisterEntry } from '../setups/register'

/** What is put on trial: a change as `explain` proposed it, with its reasons in words. */
export type NewTrial = Readonly<{
  id: string
  memberId: string
  complaintId: string
  cause: Cause
  change: Change
  said: string
  because: readonly string[]
  expects: readonly string[]
  weeks: 1 | 2
  ratingBefore: number
  /** Why, where another trial is running. */
  reason: string | null
  /** The machine, for its saddle's tilt. */
  bikeId: string | null
  /** The numbers it changes; null for tilt. */
  entry: RegisterEntry | null
}>

/** `needsReason`: another trial of this rider or machine is running; `stale`: other numbers are in force now. */
export type TrialResult = Readonly<{
  outcome: 'kept' | 'idTaken' | 'gone' | 'needsReason' | 'stale' | 'ended' | 'numbersChanged'
}>

/** Locks a member's row until the transaction ends; false where the studio has no such member. */
export async function lockMember(tx: DbExecutor, scope: Scope, memberId: string): Promise<boolean> {
  const own = and(eq(member.id, memberId), eq(member.studioId, scope.studioId))
  return (await tx.select({ id: member.id }).from(member).where(own).for('update')).length > 0
}

/**
 * Inserts a trial within the caller's transaction, which has locked the member: its numbers are in force from now on,
 * under the trial's id. Idempotent by id.
 */
export async function insertTrial(tx: DbExecutor, scope: Scope, input: NewTrial, now: Date): Promise<TrialResult> {
  const { id, memberId, complaintId, cause, change, bikeId, entry, reason, ...values } = input
  const [before] = await tx.select({ memberId: trial.memberId, axis: trial.axis }).from(trial).where(eq(trial.id, id))
  if (before) return { outcome: before.memberId === memberId && before.axis === change.axis ? 'kept' : 'idTaken' }
  const others = await tx
    .select({ id: trial.id })
    .from(trial)
    .where(
      and(
        eq(trial.studioId, scope.studioId),
        isNull(trial.endedAt),
        or(eq(trial.memberId, memberId), bikeId && change.axis === 'tilt' ? eq(trial.bikeId, bikeId) : undefined),
      ),
    )
    .for('update')
  if (others.length > 0 && !reason) return { outcome: 'needsReason' }
  let toMarks: Marks | null = null
  if (change.axis !== 'tilt') {
    if (!entry || change.to === undefined) return { outcome: 'stale' }
    const current = (await currentEntries(tx, scope, [memberId])).find((one) => one.id === entry.id)
    if (!current || current.marks[change.axis] !== change.from) return { outcome: 'stale' }
    toMarks = { ...current.marks, [change.axis]: change.to }
    const written = await recordEntry(
      tx,
      scope,
      {
        ...newEntryOf(current),
        id,
        marks: toMarks,
        source: 'trial',
        certainty: 'translated',
        meant: null,
        basis: { note: values.said },
        fromId: current.id,
      },
      now,
    )
    if (written.outcome !== 'kept') return written
  }
  const row = {
    id,
    studioId: scope.studioId,
    memberId,
    complaintId,
    cause,
    axis: change.axis,
    direction: change.direction,
    bikeId: change.axis === 'tilt' ? bikeId : null,
    fromMarks: toMarks && entry ? entry.marks : null,
    toMarks,
    mm: change.mm ?? null,
    deg: change.deg ?? null,
    large: change.large,
    ...values,
    reason: others.length > 0 ? reason : null,
    fromEntryId: toMarks && entry ? entry.id : null,
    entryId: toMarks ? id : null,
    startedAt: now,
    startedBy: scope.userId,
  }
  await tx.insert(trial).values(sealRow(trial, scope.studioId, row))
  return { outcome: 'kept' }
}

/** Whose trial it is; null where the studio has none of this id. */
export async function memberOfTrial(db: DbExecutor, scope: Scope, trialId: string): Promise<string | null> {
  const own = and(eq(trial.id, trialId), eq(trial.studioId, scope.studioId))
  return (await db.select({ memberId: trial.memberId }).from(trial).where(own))[0]?.memberId ?? null
}

/**
 * Stores a rating during a trial, one per day of the studio: a later rating by anybody replaces it. A retry with the
 * same id changes nothing. An ended trial rejects ratings.
 */
export async function rateTrial(
  db: Database,
  who: Scope | LinkOwner,
  { id, trialId, rating }: Readonly<{ id: string; trialId: string; rating: number }>,
  now: Date,
): Promise<WriteResult | Readonly<{ outcome: 'gone' | 'ended' }>> {
  const values = { id, rating, createdAt: now }
  const by =
    'linkId' in who
      ? ({ toldBy: 'member', linkId: who.linkId, createdBy: null } as const)
      : ({ toldBy: 'instructor', linkId: null, createdBy: who.userId } as const)
  return withTransaction(db, async (tx) => {
    const [found] = await tx
      .select({ memberId: trial.memberId, endedAt: trial.endedAt })
      .from(trial)
      .where(and(eq(trial.id, trialId), eq(trial.studioId, who.studioId)))
      .for('update')
    if (!found || ('memberId' in who && found.memberId !== who.memberId)) return { outcome: 'gone' }
    const [same] = await tx
      .select({ trialId: trialRating.trialId, rating: trialRating.rating })
      .from(trialRating)
      .where(eq(trialRating.id, id))
    if (same) return { outcome: sameContent(same, { trialId, rating }) ? 'kept' : 'idTaken' }
    if (found.endedAt) return { outcome: 'ended' }
    const [last] = await tx
      .select({ id: trialRating.id, at: trialRating.createdAt })
      .from(trialRating)
      .where(eq(trialRating.trialId, trialId))
      .orderBy(desc(trialRating.createdAt))
      .limit(1)
    const [{ timeZone }] = await tx
      .select({ timeZone: studio.timeZone })
      .from(studio)
      .where(eq(studio.id, who.studioId))
    const isToday = last !== undefined && studioDay(last.at, timeZone) === studioDay(now, timeZone)
    if (isToday)
      await tx
        .update(trialRating)
        .set({ ...values, ...by })
        .where(eq(trialRating.id, last.id))
    else await tx.insert(trialRating).values({ ...values, ...by, studioId: who.studioId, trialId })
    return { outcome: 'kept' }
  })
}

/**
 * Ends a trial: `keep` leaves the change and closes its complaint, `undo` restores the former numbers on every bike,
 * or the next cause is tried. Idempotent for the same outcome. `numbersChanged`: the numbers of the trial were changed
 * since and `leaveNumbers` is false; nothing was written.
 */
export async function endTrial(
  db: Database,
  scope: Scope,
  { id, outcome, leaveNumbers = false }: Readonly<{ id: string; outcome: TrialOutcome; leaveNumbers?: boolean }>,
  now: Date,
): Promise<TrialResult> {
  return withTransaction(db, async (tx): Promise<TrialResult> => {
    const [found] = await tx
      .select()
      .from(trial)
      .where(and(eq(trial.id, id), eq(trial.studioId, scope.studioId)))
      .for('update')
    if (!found) return { outcome: 'gone' }
    if (found.endedAt) return { outcome: found.outcome === outcome ? 'kept' : 'ended' }
    if (outcome !== 'keep' && found.entryId && !leaveNumbers) {
      const restored = await restoreNumbers(tx, scope, found, now)
      if (restored.outcome !== 'kept') return restored
    }
    await tx.update(trial).set({ outcome, endedAt: now, endedBy: scope.userId }).where(eq(trial.id, id))
    if (outcome === 'keep')
      await tx
        .update(complaint)
        .set({ closedAt: now, closedBy: scope.userId })
        .where(and(eq(complaint.id, found.complaintId), isNull(complaint.closedAt)))
    return { outcome: 'kept' }
  })
}

/** Puts back what a trial changed, on its own type and wherever numbers were worked out from it. */
async function restoreNumbers(
  tx: DbExecutor,
  scope: Scope,
  { memberId, axis, entryId, fromEntryId, fromMarks, toMarks }: typeof trial.$inferSelect,
  now: Date,
): Promise<TrialResult> {
  const [before, own] = [await findEntry(tx, scope, fromEntryId!), await findEntry(tx, scope, entryId!)]
  if (!before || !own || axis === 'tilt') return { outcome: 'stale' }
  const current = await currentEntries(tx, scope, [memberId])
  const currentEntry = current.find((one) => one.lineId === own.lineId && one.purpose === own.purpose)
  if (!currentEntry || currentEntry.marks[axis] !== toMarks?.[axis]) return { outcome: 'numbersChanged' }
  const isOwn = currentEntry.id === own.id
  await recordEntry(
    tx,
    scope,
    {
      ...newEntryOf(isOwn ? before : currentEntry),
      id: crypto.randomUUID(),
      source: 'restored',
      fromId: before.id,
      ...(!isOwn && { marks: { ...currentEntry.marks, [axis]: fromMarks?.[axis] }, certainty: 'translated' as const }),
    },
    now,
  )
  for (const worked of current.filter((one) => one.fromId === own.id && one.id !== own.id)) {
    const [earlier] = await tx
      .select({ id: registerEntry.id })
      .from(registerEntry)
      .where(
        and(
          eq(registerEntry.memberId, memberId),
          eq(registerEntry.lineId, worked.lineId),
          eq(registerEntry.purpose, worked.purpose),
          lt(registerEntry.createdAt, own.createdAt),
        ),
      )
      .orderBy(desc(registerEntry.createdAt))
      .limit(1)
    const was = earlier ? await findEntry(tx, scope, earlier.id) : null
    if (was)
      await recordEntry(
        tx,
        scope,
        { ...newEntryOf(was), id: crypto.randomUUID(), source: 'restored', fromId: was.id },
        now,
      )
    // There were none before: what was worked out from the trial goes with it.
    else
      await tx
        .delete(registerCurrent)
        .where(
          and(
            eq(registerCurrent.memberId, memberId),
            eq(registerCurrent.lineId, worked.lineId),
            eq(registerCurrent.purpose, worked.purpose),
          ),
        )
  }
  return { outcome: 'kept' }
}
