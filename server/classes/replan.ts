import { isDeepStrictEqual } from 'node:util'
import { and, eq, inArray } from 'drizzle-orm'
import type { PlanRequest, PlanResponse } from '../../core/operations/requests/plan'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { bike } from '../bikes/tables'
import { classRider } from './tables'
import { member } from '../riders/tables'
import { listAssignments, lockClass, replaceAssignments } from './assignments'
import { findClass, type StudioClass } from './classes'
import { computePlan, planBasis, type PlanBasis, type FixedSeats } from './planning'
import { changeRider, listRoster, type RosterChange, type RosterRider } from './roster'

/** Somebody who sat on a bike and sits on another now, or on none (`number` null). */
export type MovedRider = Readonly<{ memberId: string; name: string; number: number | null }>

/** One line of a class's list, as far as a change of the places may change it. */
type ListedRider = Readonly<{ memberId: string } & Required<Omit<RosterChange, 'warmUp'>>>
/** Seats as pairs of bike and member. */
export type Seats = readonly (readonly [bikeId: string, memberId: string])[]

/**
 * What takes a change of the places back: the seats it left (`after`), the seats and lines of the list from before;
 * `added`: members who were not on the list.
 */
export type PlacesUndo = Readonly<{
  after: Seats
  seats: Seats
  riders: readonly ListedRider[]
  added: readonly string[]
}>

/**
 * `gone`: no such class; `busy`: the plan could not be computed; `refused`: the change was rejected. Nothing was
 * written in any of these. `extraMin`: cost of the places above that of before, minutes of an instructor; null where
 * there was no plan before. `moved`: who sat elsewhere before.
 */
export type ReplanResult<Refusal> =
  | Readonly<{ outcome: 'kept'; extraMin: number | null; moved: readonly MovedRider[]; undo: PlacesUndo }>
  | Readonly<{ outcome: 'gone' | 'busy' }>
  | Readonly<{ outcome: 'refused'; why: Refusal }>

/** A change within the transaction that locks the class; resolves with the refusal, or null. */
export type ClassChanging<Refusal> = (tx: DbExecutor) => Promise<Refusal | null>

export type ReplanOptions<Refusal> = Readonly<{
  change?: ClassChanging<Refusal>
  /** Default: before the doors open who is here already, from then on everybody who has a seat. */
  fixedSeats?: FixedSeats
  /** Computes the result and writes nothing. */
  preview?: boolean
}>

/** True from the time the doors of a class open. */
export const areDoorsOpen = ({ startsAt, doorsMin }: StudioClass, now: Date): boolean =>
  now.getTime() >= startsAt.getTime() - doorsMin * 60_000

/** So often the class may change while its plan is computed before the change is given up as `busy`. */
const MAX_ATTEMPTS = 8

/**
 * Changes a class and places its riders, both or neither: pinned riders and those with a fixed seat stay, the rest
 * is solved around them. The plan is computed from a rehearsal that is rolled back, without a lock; it is written only
 * if the class is still what it was computed from, else computed again. `change` therefore runs more than once, each
 * time in a transaction of its own.
 */
export async function replanClass<Refusal = never>(
  db: Database,
  scope: Scope,
  classId: string,
  now: Date,
  options: ReplanOptions<Refusal> = {},
): Promise<ReplanResult<Refusal>> {
  const applyHere = (tx: DbExecutor) => applyChange(tx, scope, classId, now, options)
  try {
    for (let attempt = 0; attempt < MAX_ATTEMPTS; attempt++) {
      const rehearsed = await rolledBack(db, applyHere)
      const costBefore = rehearsed.before && ((await computePlan(rehearsed.before))?.totalCost ?? null)
      const plan = await computePlan(rehearsed.after.request)
      if (!plan) return { outcome: 'busy' }
      const placed = placesOf(rehearsed, plan, costBefore)
      if (options.preview) return placed.result
      const isWritten = await withTransaction(db, async (tx) => {
        const applied = await applyHere(tx)
        if (!isDeepStrictEqual(requestsOf(applied), requestsOf(rehearsed))) throw new NotReplanned(null)
        await replaceAssignments(tx, scope, classId, placed.memberOn, now)
        return true
      }).catch(isOutdated)
      if (isWritten) return placed.result
    }
    return { outcome: 'busy' }
  } catch (error) {
    if (error instanceof NotReplanned && error.why) return error.why as ReplanResult<Refusal>
    throw error
  }
}

/** A class with a change applied: what it was planned from before, where that is needed, and what it is now. */
type AppliedChange = Readonly<{
  before: PlanRequest | null
  after: PlanBasis
  listedBefore: readonly RosterRider[]
  listedAfter: readonly RosterRider[]
}>
const requestsOf = ({ before, after, listedBefore }: AppliedChange) => [before, after.request, listedBefore]

/** Locks the class, applies the change and reads what follows. Throws `NotReplanned` where it is gone or refused. */
async function applyChange<Refusal>(
  tx: DbExecutor,
  scope: Scope,
  classId: string,
  now: Date,
  { change, fixedSeats, preview = false }: ReplanOptions<Refusal>,
): Promise<AppliedChange> {
  if (!(await lockClass(tx, scope, classId))) throw new NotReplanned<Refusal>({ outcome: 'gone' })
  const ofClass = (await findClass(tx, scope, classId))!
  const listedBefore = await listRoster(tx, scope, classId)
  const before = change || preview ? (await planBasis(tx, scope, ofClass, now)).request : null
  const why = await change?.(tx)
  if (why) throw new NotReplanned<Refusal>({ outcome: 'refused', why })
  const after = await planBasis(tx, scope, ofClass, now, fixedSeats ?? (areDoorsOpen(ofClass, now) ? 'all' : 'here'))
  return { before, after, listedBefore, listedAfter: await listRoster(tx, scope, classId) }
}

/** Who sits where by a plan, and what the caller learns of it. */
function placesOf({ after, listedBefore, listedAfter }: AppliedChange, plan: PlanResponse, costBefore: number | null) {
  const { roster, seats, names, floor } = after
  const memberOn = new Map(plan.pairs.map(({ rider, bike }) => [bike, rider]))
  // Who sits here without being on the list, as on an open floor, stays where no one else was given the bike.
  const listed = new Set(roster.map(({ memberId }) => memberId))
  for (const [memberId, bikeId] of seats)
    if (!listed.has(memberId) && !memberOn.has(bikeId)) memberOn.set(bikeId, memberId)
  const bikeOf = new Map([...memberOn].map(([bikeId, memberId]) => [memberId, bikeId]))
  const numberOf = new Map(floor.map(({ bike }) => [bike.id, bike.number]))
  const moved = [...seats].flatMap(([memberId, from]): MovedRider[] => {
    const to = bikeOf.get(memberId)
    if (to === from) return []
    return [{ memberId, name: names.get(memberId) ?? '', number: to === undefined ? null : (numberOf.get(to) ?? null) }]
  })
  const undo: PlacesUndo = {
    after: sortedSeats(memberOn),
    seats: sortedSeats([...seats].map(([memberId, bikeId]) => [bikeId, memberId] as const)),
    ...changedLines(listedBefore.map(lineOf), listedAfter.map(lineOf)),
  }
  const extraMin = costBefore === null ? null : plan.totalCost - costBefore
  return { memberOn, result: { outcome: 'kept', extraMin, moved, undo } as const }
}

/** Runs `work` in a transaction that is rolled back at the end; resolves with its result. */
async function rolledBack<T>(db: Database, work: (tx: DbExecutor) => Promise<T>): Promise<T> {
  const results: T[] = []
  await withTransaction(db, async (tx) => {
    results.push(await work(tx))
    throw new NotReplanned(null)
  }).catch(isOutdated)
  return results[results.length - 1]
}

/** Rolls a transaction back and carries the result; null where the class must be read again. */
class NotReplanned<Refusal> extends Error {
  constructor(readonly why: ReplanResult<Refusal> | null) {
    super(why?.outcome ?? 'outdated')
  }
}

/** Resolves with false where a transaction was rolled back without a result; rethrows everything else. */
function isOutdated(error: unknown): false {
  if (error instanceof NotReplanned && error.why === null) return false
  throw error
}

/**
 * Takes a change of the places back: seats and lines of the list as they were. `changed`: somebody changed the places
 * since; `gone`: no such class, bike or member. Nothing was written in either.
 */
export async function restorePlaces(
  db: Database,
  scope: Scope,
  classId: string,
  undo: PlacesUndo,
  now: Date,
): Promise<'kept' | 'changed' | 'gone'> {
  return withTransaction(db, async (tx) => {
    if (!(await lockClass(tx, scope, classId)) || !(await areOwn(tx, scope, undo))) return 'gone'
    const current = await listAssignments(tx, scope, classId)
    const seatsNow = sortedSeats(current.map(({ bikeId, memberId }) => [bikeId, memberId] as const))
    if (!isDeepStrictEqual(seatsNow, sortedSeats(undo.after))) return 'changed'
    for (const { memberId, ...line } of undo.riders) await changeRider(tx, scope, classId, [memberId], line)
    if (undo.added.length > 0)
      await tx
        .delete(classRider)
        .where(
          and(
            eq(classRider.classId, classId),
            eq(classRider.studioId, scope.studioId),
            inArray(classRider.memberId, [...undo.added]),
          ),
        )
    await replaceAssignments(tx, scope, classId, new Map(undo.seats), now)
    return 'kept'
  })
}

/** True where every bike and member named belongs to the studio. */
async function areOwn(tx: DbExecutor, { studioId }: Scope, { seats, riders }: PlacesUndo): Promise<boolean> {
  const pinned = riders.flatMap(({ pinnedBikeId }) => pinnedBikeId ?? [])
  const bikeIds = [...new Set([...seats.map(([bikeId]) => bikeId), ...pinned])]
  const memberIds = [...new Set(seats.map(([, memberId]) => memberId))]
  const bikes = await tx
    .select({ id: bike.id })
    .from(bike)
    .where(and(eq(bike.studioId, studioId), inArray(bike.id, bikeIds)))
  const members = await tx
    .select({ id: member.id })
    .from(member)
    .where(and(eq(member.studioId, studioId), inArray(member.id, memberIds)))
  return bikes.length === bikeIds.length && members.length === memberIds.length
}

const sortedSeats = (seats: Iterable<readonly [string, string]>): Seats =>
  [...seats].sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))

const lineOf = ({ memberId, state, comesMinBefore, rowWish, pinnedBikeId }: ListedRider): ListedRider => ({
  memberId,
  state,
  comesMinBefore,
  rowWish,
  pinnedBikeId,
})

function changedLines(
  before: readonly ListedRider[],
  after: readonly ListedRider[],
): Pick<PlacesUndo, 'riders' | 'added'> {
  const was = new Map(before.map((line) => [line.memberId, line]))
  const changed = after.filter((line) => !isDeepStrictEqual(line, was.get(line.memberId)))
  return {
    riders: changed.flatMap(({ memberId }) => was.get(memberId) ?? []),
    added: changed.map(({ memberId }) => memberId).filter((memberId) => !was.has(memberId)),
  }
}
