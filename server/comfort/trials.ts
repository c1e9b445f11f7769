import { and, asc, count, desc, eq, gt, inArray, isNull, lt, lte, or } from 'drizzle-orm'
import type { Cause } from '../../core/complaints/causeTable'
import type { Change, ChangedAxis, Way } from '../../core/complaints/change'
import {
  proposedOutcome,
  trialStage,
  trialVerdict,
  type TrialOutcome,
  type TrialStage,
  type TrialVerdict,
} from '../../core/complaints/trial'
import type { Marks } from '../../core/conventions'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { insertOnce, type WriteResult } from '../db/insertOnce'
import { user } from '../db/tables/accounts'
import { bike, bikeType } from '../db/tables/bikes'
import { complaint, trial, trialRating } from '../db/tables/comfort'
import { studioClass } from '../db/tables/floor'
import { registerCurrent, registerEntry } from '../db/tables/register'
import { bikeAssignment, member } from '../db/tables/riders'
import type { LinkOwner } from '../memberPage/links'
import { currentEntries, findEntry, newEntryOf, recordEntry, type RegisterEntry } from '../register/register'

/** A change on trial, how it goes, and what is proposed at its end. */
export type Trial = Readonly<{
  id: string
  memberId: string
  complaintId: string
  what: (typeof complaint.$inferSelect)['what']
  cause: Cause
  axis: ChangedAxis
  direction: Way
  bikeId: string | null
  bikeNumber: number | null
  fromMarks: Marks | null
  toMarks: Marks | null
  mm: number | null
  deg: number | null
  large: boolean
  said: string
  because: readonly string[]
  expects: readonly string[]
  reason: string | null
  weeks: number
  ratingBefore: number
  fromEntryId: string | null
  entryId: string | null
  startedAt: Date
  startedBy: string
  endedAt: Date | null
  outcome: TrialOutcome | null
  /** 0 nothing to 10 as bad as can be, in the order given. */
  ratings: readonly Readonly<{ rating: number; toldBy: 'instructor' | 'member'; at: Date }>[]
  rides: number
  stage: TrialStage
  verdict: TrialVerdict
  proposed: TrialOutcome | null
}>

const columns = {
  id: trial.id,
  memberId: trial.memberId,
  complaintId: trial.complaintId,
  what: complaint.what,
  cause: trial.cause,
  axis: trial.axis,
  direction: trial.direction,
  bikeId: trial.bikeId,
  bikeNumber: bike.number,
  fromMarks: trial.fromMarks,
  toMarks: trial.toMarks,
  mm: trial.mm,
  deg: trial.deg,
  large: trial.large,
  said: trial.said,
  because: trial.because,
  expects: trial.expects,
  reason: trial.reason,
  weeks: trial.weeks,
  ratingBefore: trial.ratingBefore,
  fromEntryId: trial.fromEntryId,
  entryId: trial.entryId,
  startedAt: trial.startedAt,
  startedBy: user.name,
  endedAt: trial.endedAt,
  outcome: trial.outcome,
}
const MOST = 200

/** A rider's trials, the latest first. */
export const listTrials = (db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<Trial[]> =>
  trials(db, scope, eq(trial.memberId, memberId), now)

/** The trials that run for these riders. */
export const runningTrials = async (
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  now: Date,
): Promise<Trial[]> =>
  memberIds.length === 0
    ? []
    : trials(db, scope, and(inArray(trial.memberId, [...memberIds]), isNull(trial.endedAt))!, now)

/** The trials that run on these machines' saddles, whoever asked for them. */
export const runningOnBikes = async (
  db: DbExecutor,
  scope: Scope,
  bikeIds: readonly string[],
  now: Date,
): Promise<Trial[]> =>
  bikeIds.length === 0 ? [] : trials(db, scope, and(inArray(trial.bikeId, [...bikeIds]), isNull(trial.endedAt))!, now)

async function trials(db: DbExecutor, scope: Scope, condition: ReturnType<typeof eq>, now: Date): Promise<Trial[]> {
  const found = await db
    .select(columns)
    .from(trial)
    .innerJoin(complaint, eq(complaint.id, trial.complaintId))
    .innerJoin(user, eq(user.id, trial.startedBy))
    .leftJoin(bike, eq(bike.id, trial.bikeId))
    .where(and(condition, eq(trial.studioId, scope.studioId)))
    .orderBy(desc(trial.startedAt))
    .limit(MOST)
  if (found.length === 0) return []
  const ids = found.map(({ id }) => id)
  const [ratings, rides] = [await ratingsOf(db, ids), await ridesSince(db, ids, now)]
  return found.map((one) => {
    const own = ratings.filter(({ trialId }) => trialId === one.id)
    const run = {
      startedMs: one.startedAt.getTime(),
      weeks: one.weeks,
      rides: rides.get(one.id) ?? 0,
      ratingBefore: one.ratingBefore,
      ratings: own.map(({ rating }) => rating),
    }
    return {
      ...one,
      ratings: own.map(({ rating, toldBy, at }) => ({ rating, toldBy, at })),
      rides: run.rides,
      stage: trialStage(run, now.getTime()),
      verdict: trialVerdict(run),
      proposed: proposedOutcome(run, now.getTime()),
    }
  })
}

const ratingsOf = (db: DbExecutor, ids: readonly string[]) =>
  db
    .select({
      trialId: trialRating.trialId,
      rating: trialRating.rating,
      toldBy: trialRating.toldBy,
      at: trialRating.createdAt,
    })
    .from(trialRating)
    .where(inArray(trialRating.trialId, [...ids]))
    .orderBy(asc(trialRating.createdAt))

/** Rides since each trial began, on bikes its numbers are for, or on its machine. */
async function ridesSince(db: DbExecutor, ids: readonly string[], now: Date): Promise<Map<string, number>> {
  const found = await db
    .select({ id: trial.id, rides: count() })
    .from(trial)
    .innerJoin(bikeAssignment, eq(bikeAssignment.memberId, trial.memberId))
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .innerJoin(bike, eq(bike.id, bikeAssignment.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, bike.typeId))
    .leftJoin(registerEntry, eq(registerEntry.id, trial.entryId))
    .where(
      and(
        inArray(trial.id, [...ids]),
        isNull(studioClass.cancelledAt),
        gt(studioClass.startsAt, trial.startedAt),
        lte(studioClass.startsAt, now),
        or(isNull(trial.endedAt), lt(studioClass.startsAt, trial.endedAt)),
        or(eq(trial.bikeId, bikeAssignment.bikeId), eq(registerEntry.lineId, bikeType.lineId)),
      ),
    )
    .groupBy(trial.id)
  return new Map(found.map(({ id, rides }) => [id, rides]))
}

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

/** `needsReason`: another trial of this rider, or of this machine, is running; `stale`: other numbers hold by now. */
export type TrialResult = Readonly<{
  outcome: 'kept' | 'idTaken' | 'gone' | 'needsReason' | 'stale' | 'ended' | 'numbersChanged'
}>

/** Holds a member's row until the transaction ends; false where the studio has no such member. */
export async function lockMember(tx: DbExecutor, scope: Scope, memberId: string): Promise<boolean> {
  const own = and(eq(member.id, memberId), eq(member.studioId, scope.studioId))
  return (await tx.select({ id: member.id }).from(member).where(own).for('update')).length > 0
}

/**
 * Begins a trial, within the caller's transaction that holds the member: its numbers hold from now on, under the
 * trial's own id. The same id again changes nothing.
 */
export async function beginTrial(tx: DbExecutor, scope: Scope, asked: NewTrial, now: Date): Promise<TrialResult> {
  const { id, memberId, complaintId, cause, change, bikeId, entry, reason, ...told } = asked
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
        basis: { note: told.said },
        fromId: current.id,
      },
      now,
    )
    if (written.outcome !== 'kept') return written
  }
  await tx.insert(trial).values({
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
    ...told,
    reason: others.length > 0 ? reason : null,
    fromEntryId: toMarks && entry ? entry.id : null,
    entryId: toMarks ? id : null,
    startedAt: now,
    startedBy: scope.userId,
  })
  return { outcome: 'kept' }
}

/** Keeps how it is during a trial; the same id again changes nothing, an ended trial takes none. */
export async function rateTrial(
  db: DbExecutor,
  who: Scope | LinkOwner,
  { id, trialId, rating }: Readonly<{ id: string; trialId: string; rating: number }>,
  now: Date,
): Promise<WriteResult | Readonly<{ outcome: 'gone' | 'ended' }>> {
  const [found] = await db
    .select({ memberId: trial.memberId, endedAt: trial.endedAt })
    .from(trial)
    .where(and(eq(trial.id, trialId), eq(trial.studioId, who.studioId)))
  if (!found || ('memberId' in who && found.memberId !== who.memberId)) return { outcome: 'gone' }
  if (found.endedAt) return { outcome: 'ended' }
  const content = { id, studioId: who.studioId, trialId, rating }
  const by =
    'memberId' in who ? { toldBy: 'member', linkId: who.linkId } : { toldBy: 'instructor', createdBy: who.userId }
  return insertOnce(
    () => db.insert(trialRating).values({ ...content, ...(by as { toldBy: 'member' }), createdAt: now }),
    async () => {
      const { studioId } = trialRating
      const [stored] = await db
        .select({ id: trialRating.id, studioId, trialId: trialRating.trialId, rating: trialRating.rating })
        .from(trialRating)
        .where(eq(trialRating.id, id))
      return stored
    },
    content,
  )
}

/**
 * Ends a trial: the change stays, or the numbers of before hold again on every bike, or the next cause is tried. A
 * second time it changes nothing where it is the same end. `numbersChanged`: what the trial changed was changed again
 * since, and `leaveNumbers` was not said; nothing was written. A kept change closes its complaint.
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
  const holds = current.find((one) => one.lineId === own.lineId && one.purpose === own.purpose)
  if (!holds || holds.marks[axis] !== toMarks?.[axis]) return { outcome: 'numbersChanged' }
  const isOwn = holds.id === own.id
  await recordEntry(
    tx,
    scope,
    {
      ...newEntryOf(isOwn ? before : holds),
      id: crypto.randomUUID(),
      source: 'restored',
      fromId: before.id,
      ...(!isOwn && { marks: { ...holds.marks, [axis]: fromMarks?.[axis] }, certainty: 'translated' as const }),
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

/** Riders whom a machine's saddle touches: who sat on it lately or will, by name. */
export async function ridersOfBike(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
  since: Date,
): Promise<Readonly<{ id: string; name: string }>[]> {
  return db
    .select({ id: member.id, name: member.name })
    .from(bikeAssignment)
    .innerJoin(member, eq(member.id, bikeAssignment.memberId))
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .where(
      and(
        eq(bikeAssignment.bikeId, bikeId),
        eq(bikeAssignment.studioId, scope.studioId),
        isNull(studioClass.cancelledAt),
        gt(studioClass.startsAt, since),
      ),
    )
    .groupBy(member.id, member.name)
    .orderBy(asc(member.name))
    .limit(MOST)
}
