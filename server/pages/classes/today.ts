import { and, asc, desc, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import { needsRating } from '../../../core/comfort/changes/trial'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import { atOrAfter, duePlans } from '../riders/plans'
import { firstHourDone, type FirstHourDone } from '../studio/firstHour'
import { floorBefore, type QueueItem } from './floor'
import { listHandedToMe } from '../../classes/followUps'
import { findClass, type StudioClass } from '../../classes/classes'
import { isReferred, listOpenComplaints, type RiderComplaint } from '../../comfort/complaints'
import { listRunningTrials, type Trial } from '../../comfort/trials'
import type { DbExecutor } from '../../platform/db/connection'
import { bike, bikeFault } from '../../bikes/tables'
import { studioClass } from '../../classes/rooms/tables'
import { memberMessage } from '../../riders/memberPage/tables'
import { listWaitingNumbers } from '../../setups/confirmation'
import { getStudio } from '../../studio/studio'
import { member } from '../../riders/tables'

/** Subject of a line; `said` is the text of its hand-over. */
export type DueSubject =
  | Readonly<{ kind: 'complaint'; complaint: Pick<RiderComplaint, 'what' | 'side' | 'strength'> }>
  | Readonly<{ kind: 'trial'; trial: Pick<Trial, 'stage' | 'verdict'> }>
  | Readonly<{ kind: 'plan'; text: string }>
  /** Numbers that a trainee saved. */
  | Readonly<{ kind: 'confirm'; by: string }>
  | Readonly<{ kind: 'handed'; by: string; said: string }>

/** Something to see to: whose it is, what it is about, and whether it presses. */
export type DueLine = Readonly<{
  memberId: string
  name: string
  subject: DueSubject
  isStop: boolean
  /** The class whose list it was handed on from; null for lines of the rider's own page. */
  fromClassId: string | null
}>

/** The studio's day, as far as the person's role sees it. */
export type Today = Readonly<{
  now: Date
  timeZone: string
  seesNotes: boolean
  setsUp: boolean
  /** The class that runs, or the next one within a week; null without one. */
  next: Readonly<{ ofClass: StudioClass; coming: number; withoutBike: number }> | null
  /** Who is set up next for it. */
  queue: readonly QueueItem[]
  /**
   * Red flags first, then trials with a rating due, plans due for the riders of the next class, and complaints without
   * an answer; empty for a role without notes.
   */
  due: readonly DueLine[]
  /** Members who wrote from their own page and wait for an answer. */
  messages: readonly Readonly<{ memberId: string; name: string }>[]
  outOfUse: readonly Readonly<{ bikeId: string; number: number; why: string }>[]
  /** Steps of the first hour that are done; null for users who are not managers. */
  firstHour: FirstHourDone | null
}>

/** A class is shown from so far ahead, ms. */
const AHEAD_MS = 7 * 86_400_000
/** Lines of one kind; the rest is behind them. */
const MAX_LINES = 12

/** Everything the first page shows; one query a kind, each limited. */
export async function today(db: DbExecutor, scope: Scope, now: Date): Promise<Today> {
  const [seesNotes, setsUp] = [can(scope, 'seeNotes'), can(scope, 'setUpRiders')]
  const ofClass = await nextClass(db, scope, now)
  const floor = ofClass ? await floorBefore(db, scope, ofClass, seesNotes, now) : null
  const coming = floor?.roster.filter(({ state }) => state !== 'cancelled') ?? []
  return {
    now,
    timeZone: (await getStudio(db, scope)).timeZone,
    seesNotes,
    setsUp,
    next: ofClass && {
      ofClass,
      coming: coming.length,
      withoutBike: coming.filter(({ number }) => number === null).length,
    },
    queue: setsUp ? (floor?.queue ?? []) : [],
    due: seesNotes ? await dueLines(db, scope, await planLines(db, scope, coming, ofClass, now), now) : [],
    messages: seesNotes ? await unansweredMessages(db, scope) : [],
    outOfUse: await bikesOutOfUse(db, scope),
    firstHour: can(scope, 'manageStudio') ? await firstHourDone(db, scope) : null,
  }
}

async function nextClass(db: DbExecutor, scope: Scope, now: Date): Promise<StudioClass | null> {
  const [found] = await db
    .select({ id: studioClass.id })
    .from(studioClass)
    .where(
      and(
        eq(studioClass.studioId, scope.studioId),
        gt(studioClass.endsAt, now),
        lt(studioClass.startsAt, new Date(now.getTime() + AHEAD_MS)),
        isNull(studioClass.cancelledAt),
        isNull(studioClass.openDay),
      ),
    )
    .orderBy(asc(studioClass.startsAt), asc(studioClass.id))
    .limit(1)
  return found ? findClass(db, scope, found.id) : null
}

const ofComplaint = ({ what, side, strength }: RiderComplaint): DueSubject => ({
  kind: 'complaint',
  complaint: { what, side, strength },
})
const ofTrial = ({ stage, verdict }: Trial): DueSubject => ({ kind: 'trial', trial: { stage, verdict } })

async function dueLines(db: DbExecutor, scope: Scope, plans: readonly DueLine[], now: Date): Promise<DueLine[]> {
  const [complaints, trials] = [await listOpenComplaints(db, scope), await listRunningTrials(db, scope, now)]
  const handed = await listHandedToMe(db, scope)
  const waiting = can(scope, 'confirmNumbers') ? await listWaitingNumbers(db, scope) : []
  const onTrial = new Set(trials.map(({ complaintId }) => complaintId))
  const lines = [
    ...complaints
      .filter((one) => isReferred(one))
      .map((one) => ({ memberId: one.memberId, subject: ofComplaint(one), isStop: true, fromClassId: null })),
    ...handed.map((one) => ({
      memberId: one.memberId,
      subject: { kind: 'handed' as const, by: one.by, said: one.said },
      isStop: false,
      fromClassId: one.classId,
    })),
    ...trials
      .filter(needsRating)
      .map((one) => ({ memberId: one.memberId, subject: ofTrial(one), isStop: false, fromClassId: null })),
    ...plans,
    ...waiting.map((one) => ({
      memberId: one.memberId,
      subject: { kind: 'confirm' as const, by: one.by },
      isStop: false,
      fromClassId: null,
    })),
    ...complaints
      .filter((one) => !isReferred(one) && !onTrial.has(one.id))
      .map((one) => ({ memberId: one.memberId, subject: ofComplaint(one), isStop: false, fromClassId: null })),
  ].slice(0, MAX_LINES)
  const names = await namesOf(
    db,
    scope,
    lines.map(({ memberId }) => memberId),
  )
  return lines.map((line) => ({ ...line, name: names.get(line.memberId) ?? '' }))
}

/** What is due for the riders of the next class. */
async function planLines(
  db: DbExecutor,
  scope: Scope,
  coming: readonly Readonly<{ memberId: string; name: string }>[],
  ofClass: StudioClass | null,
  now: Date,
): Promise<DueLine[]> {
  if (!ofClass) return []
  const due = await duePlans(
    db,
    scope,
    coming.map(({ memberId }) => memberId),
    atOrAfter(now, ofClass),
  )
  return coming
    .flatMap(({ memberId, name }) =>
      (due.get(memberId) ?? []).map(({ text }): DueLine => ({
        memberId,
        name,
        subject: { kind: 'plan', text },
        isStop: false,
        fromClassId: null,
      })),
    )
    .slice(0, MAX_LINES)
}

async function namesOf(db: DbExecutor, scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map()
  const found = await db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(and(eq(member.studioId, scope.studioId), inArray(member.id, [...ids])))
  return new Map(found.map(({ id, name }) => [id, name]))
}

/** The latest message of each member first; what was measured at home waits for nobody. */
async function unansweredMessages(db: DbExecutor, scope: Scope): Promise<Today['messages']> {
  const found = await db
    .select({ memberId: member.id, name: member.name, kind: memberMessage.kind })
    .from(memberMessage)
    .innerJoin(member, eq(member.id, memberMessage.memberId))
    .where(and(eq(memberMessage.studioId, scope.studioId), isNull(memberMessage.handledAt)))
    .orderBy(desc(memberMessage.createdAt))
    .limit(10 * MAX_LINES)
  const waiting = new Map(
    found.filter(({ kind }) => kind !== 'home').map(({ memberId, name }) => [memberId, { memberId, name }]),
  )
  return [...waiting.values()].slice(0, MAX_LINES)
}

async function bikesOutOfUse(db: DbExecutor, scope: Scope): Promise<Today['outOfUse']> {
  const found = await db
    .select({ bikeId: bike.id, number: bike.number, why: bikeFault.note })
    .from(bikeFault)
    .innerJoin(bike, eq(bike.id, bikeFault.bikeId))
    .where(and(eq(bike.studioId, scope.studioId), isNull(bikeFault.resolvedAt), isNull(bike.retiredAt)))
    .orderBy(asc(bike.number))
    .limit(MAX_LINES)
  return [...new Map(found.map((one) => [one.bikeId, one])).values()]
}
