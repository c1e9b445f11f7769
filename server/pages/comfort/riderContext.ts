import { and, asc, eq, gt, isNull, lt } from 'drizzle-orm'
import {
  formatComplaint,
  formatMoreComplaints,
  formatTrialOnFloor,
  HEALTH_NAME,
} from '../../../core/messages/comfort/comfort'
import { formatLimit, formatLimitStop } from '../../../core/messages/riders/limits'
import { listLimits, todayOf } from '../../riders/limits'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import { complaintsToAnswer } from '../../comfort/complaints'
import { limitEffects } from '../../../core/riders/limits/limits'
import { stopsOf } from '../../comfort/stops'
import { runningTrials } from '../../comfort/trials'
import type { DbExecutor } from '../../platform/db/connection'
import { bike } from '../../bikes/tables'
import { studioClass } from '../../classes/rooms/tables'
import { bikeAssignment } from '../../classes/tables'

/** The seat a rider has in the class that runs or comes next today. */
export type NextSeat = Readonly<{ classId: string; title: string; startsAt: Date; bikeId: string; number: number }>

/** Context of a rider before a set-up, besides numbers and earlier set-ups. */
export type RiderContext = Readonly<{
  /** An open red flag, in words; null without one. */
  stop: string | null
  /** What stops is a limit, rather than a complaint. */
  isLimit: boolean
  /** What to know: complaints, trials, health; each in a few words. */
  lines: readonly string[]
  seat: NextSeat | null
}>

/** A seat counts for a set-up from this long before its class, ms. */
const AHEAD_MS = 14 * 3_600_000
/** Complaints named; the rest is counted. */
const MAX_COMPLAINTS = 3

/** The rider's seat in the class that runs, or begins within 14 hours; the earliest of several, null without one. */
export async function nextSeat(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<NextSeat | null> {
  const [found] = await db
    .select({
      classId: studioClass.id,
      title: studioClass.title,
      startsAt: studioClass.startsAt,
      bikeId: bike.id,
      number: bike.number,
    })
    .from(bikeAssignment)
    .innerJoin(studioClass, eq(studioClass.id, bikeAssignment.classId))
    .innerJoin(bike, eq(bike.id, bikeAssignment.bikeId))
    .where(
      and(
        eq(bikeAssignment.memberId, memberId),
        eq(bikeAssignment.studioId, scope.studioId),
        gt(studioClass.endsAt, now),
        lt(studioClass.startsAt, new Date(now.getTime() + AHEAD_MS)),
        isNull(studioClass.cancelledAt),
        isNull(studioClass.openDay),
      ),
    )
    .orderBy(asc(studioClass.startsAt))
    .limit(1)
  return found ?? null
}

/** Context of a rider for a set-up; health only for roles that may see notes. */
export async function riderContext(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<RiderContext> {
  const seat = await nextSeat(db, scope, memberId, now)
  if (!can(scope, 'seeNotes')) return { stop: null, isLimit: false, lines: [], seat }
  const [complaints, trials, stops] = [
    await complaintsToAnswer(db, scope, memberId, now),
    await runningTrials(db, scope, [memberId], now),
    await stopsOf(db, scope, [memberId], now),
  ]
  const [limits, today] = [await listLimits(db, scope, [memberId]), await todayOf(db, scope, now)]
  const health = [...new Set(complaints.flatMap((one) => one.health))]
  const more = complaints.length - MAX_COMPLAINTS
  const waiting = limitEffects(
    limits.map(({ limit }) => limit),
    today,
  ).stop
  const stop = stops.get(memberId) ?? null
  return {
    stop,
    isLimit: waiting !== null && stop === formatLimitStop(waiting),
    lines: [
      ...complaints.slice(0, MAX_COMPLAINTS).map(formatComplaint),
      ...(more > 0 ? [formatMoreComplaints(more)] : []),
      ...trials.map(formatTrialOnFloor),
      ...limits.map(({ limit }) => formatLimit(limit, today)),
      ...health.map((one) => HEALTH_NAME[one]),
    ],
    seat,
  }
}
