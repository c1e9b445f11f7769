import { and, asc, count, desc, eq, gt, inArray, isNull, lt, lte, or, sql } from 'drizzle-orm'
import type { Cause, ChangedAxis, Way } from '../../core/comfort/model/causeTable'
import {
  proposedOutcome,
  trialStage,
  trialVerdict,
  type TrialOutcome,
  type TrialStage,
  type TrialVerdict,
} from '../../core/comfort/changes/trial'
import type { Marks } from '../../core/base/conventions'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { user } from '../platform/accounts/tables'
import { bike, bikeType } from '../bikes/tables'
import { complaint, trial, trialRating } from './tables'
import { studioClass } from '../classes/rooms/tables'
import { registerEntry } from '../setups/tables'
import { bikeAssignment } from '../classes/tables'

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
  /** Since it began. */
  days: number
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
const MAX_TRIALS = 200
const DAY_MS = 86_400_000

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

/** All trials of the studio that run. */
export const listRunningTrials = (db: DbExecutor, scope: Scope, now: Date): Promise<Trial[]> =>
  trials(db, scope, isNull(trial.endedAt), now)

/** The running trials on these machines' saddles, of any rider. */
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
    .limit(MAX_TRIALS)
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
      days: Math.max(0, (now.getTime() - run.startedMs) / DAY_MS),
      rides: run.rides,
      stage: trialStage(run, now.getTime()),
      verdict: trialVerdict(run),
      proposed: proposedOutcome(run, now.getTime()),
    }
  })
}

/** A trial of a fortnight has one rating a day; of one that ran on the latest are looked at. */
const MAX_RATINGS = 60

async function ratingsOf(db: DbExecutor, ids: readonly string[]) {
  const ranked = db
    .select({
      trialId: trialRating.trialId,
      rating: trialRating.rating,
      toldBy: trialRating.toldBy,
      at: trialRating.createdAt,
      place:
        sql<number>`row_number() over (partition by ${trialRating.trialId} order by ${trialRating.createdAt} desc)`.as(
          'place',
        ),
    })
    .from(trialRating)
    .where(inArray(trialRating.trialId, [...ids]))
    .as('ranked')
  return db.select().from(ranked).where(lte(ranked.place, MAX_RATINGS)).orderBy(asc(ranked.at))
}

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
