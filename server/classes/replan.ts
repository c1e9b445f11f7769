import { isDeepStrictEqual } from 'node:util'
import { and, eq, inArray } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { bike } from '../db/tables/bikes'
import { classRider } from '../db/tables/classes'
import { member } from '../db/tables/riders'
import { listAssignments, lockClass, replaceAssignments } from './assignments'
import { findClass, type StudioClass } from './classes'
import { planClass, type SeatsKept } from './planning'
import { changeRider, listRoster, type RosterChange } from './roster'

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
  kept?: SeatsKept
  /** Computes the result and writes nothing. */
  preview?: boolean
}>

/** True from the time the doors of a class open. */
export const areDoorsOpen = ({ startsAt, doorsMin }: StudioClass, now: Date): boolean =>
  now.getTime() >= startsAt.getTime() - doorsMin * 60_000

/**
 * Changes a class and places its riders, both or neither, one change at a time: pinned riders and those who keep their
 * seats stay, the rest is solved around them.
 */
export async function replanClass<Refusal = never>(
  db: Database,
  scope: Scope,
  classId: string,
  now: Date,
  { change, kept, preview = false }: ReplanOptions<Refusal> = {},
): Promise<ReplanResult<Refusal>> {
  try {
    return await withTransaction(db, async (tx) => {
      if (!(await lockClass(tx, scope, classId))) throw new NotReplanned<Refusal>({ outcome: 'gone' })
      const ofClass = (await findClass(tx, scope, classId))!
      const seatsKept = kept ?? (areDoorsOpen(ofClass, now) ? 'all' : 'here')
      const listedBefore = await listRoster(tx, scope, classId)
      const costBefore = change || preview ? ((await planClass(tx, scope, ofClass, now)).plan?.totalCost ?? null) : null
      const why = await change?.(tx)
      if (why) throw new NotReplanned<Refusal>({ outcome: 'refused', why })
      const { plan, roster, seats, names, floor } = await planClass(tx, scope, ofClass, now, seatsKept)
      if (!plan) throw new NotReplanned<Refusal>({ outcome: 'busy' })
      const memberOn = new Map(plan.pairs.map(({ rider, bike }) => [bike, rider]))
      // Who sits here without being on the list, as on an open floor, stays where no one else was given the bike.
      const listed = new Set(roster.map(({ memberId }) => memberId))
      for (const [memberId, bikeId] of seats)
        if (!listed.has(memberId) && !memberOn.has(bikeId)) memberOn.set(bikeId, memberId)
      await replaceAssignments(tx, scope, classId, memberOn, now)
      const bikeOf = new Map([...memberOn].map(([bikeId, memberId]) => [memberId, bikeId]))
      const numberOf = new Map(floor.map(({ bike }) => [bike.id, bike.number]))
      const moved = [...seats].flatMap(([memberId, from]): MovedRider[] => {
        const to = bikeOf.get(memberId)
        if (to === from) return []
        return [
          { memberId, name: names.get(memberId) ?? '', number: to === undefined ? null : (numberOf.get(to) ?? null) },
        ]
      })
      const done = {
        outcome: 'kept',
        extraMin: costBefore === null ? null : plan.totalCost - costBefore,
        moved,
        undo: {
          after: sortedSeats(memberOn),
          seats: sortedSeats([...seats].map(([memberId, bikeId]) => [bikeId, memberId] as const)),
          ...changedLines(listedBefore.map(lineOf), (await listRoster(tx, scope, classId)).map(lineOf)),
        },
      } as const
      if (preview) throw new NotReplanned<Refusal>(done)
      return done
    })
  } catch (error) {
    if (error instanceof NotReplanned) return error.why as ReplanResult<Refusal>
    throw error
  }
}

/** Rolls the transaction back and carries its result. */
class NotReplanned<Refusal> extends Error {
  constructor(readonly why: ReplanResult<Refusal>) {
    super(why.outcome)
  }
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
