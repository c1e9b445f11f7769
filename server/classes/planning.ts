import { and, desc, eq, gt, inArray, isNotNull, isNull } from 'drizzle-orm'
import { numbersLookedAt } from '../../core/classes/watch/classState'
import { MAX_TYPES, type PlanRequest, type PlanResponse } from '../../core/operations/requests/plan'
import { isErrorResponse } from '../../core/operations/errorResponse'
import { learnedMinutes, type Duration } from '../../core/classes/planning/minutes'
import type { Need } from '../../core/classes/planning/room'
import { arrangeInRows } from '../../core/classes/planning/roomPlan'
import type { Scope } from '../platform/accounts/scope'
import { listBikes, type StudioBike } from '../bikes/bikes'
import { compute } from '../platform/compute/pool'
import type { DbExecutor } from '../platform/db/connection'
import { bikeType } from '../bikes/tables'
import { classNote } from './tables'
import { setup } from '../setups/tables'
import { currentEntries, byDisplayPriority, type RegisterEntry } from '../setups/register'
import { findRoom, listPlaces, type Room } from './rooms/rooms'
import { listAssignments } from './assignments'
import type { StudioClass } from './classes'
import { lastBikes, listRoster, type RosterRider } from './roster'
import { listLooks } from './watch'

/** A bike on a class's floor, where its room's plan has it. */
export type FloorPlace = Readonly<{ bike: StudioBike; xM: number; yM: number; headingDeg: number }>

/** What a class is planned from. */
export type PlanBasis = Readonly<{
  request: PlanRequest
  room: Room['plan']
  floor: readonly FloorPlace[]
  roster: readonly RosterRider[]
  /** What each who comes needs, by member. */
  needs: ReadonlyMap<string, Need>
  minutes: Readonly<Record<Exclude<Need, 'none'>, number>>
  /** Riders whose numbers were set or looked at for this class already. */
  ready: ReadonlySet<string>
  entries: readonly RegisterEntry[]
  /** The bike each sits on, by member, and the names of who sits. */
  seats: ReadonlyMap<string, string>
  names: ReadonlyMap<string, string>
}>
/** The plan is null where it could not be computed. */
export type ClassPlan = PlanBasis & Readonly<{ plan: PlanResponse | null }>

/** Numbers that nobody looked at for so long are looked at again, days; ours. */
const RECHECK_DAYS = 180
/** Maximum age of notes that decide who should not sit turned, days. */
const NOTES_DAYS = 60
/** A set-up counts for a class from this long before its doors open, ms. */
const READY_FROM_MS = 3 * 3_600_000
/** A room for studios that have drawn none. */
export const PLAIN_ROOM: Room['plan'] = {
  widthM: 12,
  depthM: 9,
  instructor: { xM: 6, yM: 0.8 },
  screens: [],
  doors: [],
  fans: [],
}

/** Riders who stay on their seat while the others are placed: who is here already, or everybody who has one. */
export type FixedSeats = 'here' | 'all'

/** Plans a class: who sits where, what each needs, the queue and who will be late. See `planBasis`. */
export async function planClass(...of: Parameters<typeof planBasis>): Promise<ClassPlan> {
  const basis = await planBasis(...of)
  return { ...basis, plan: await computePlan(basis.request) }
}

/** The plan for a request, computed in a thread; null where it could not be computed. */
export async function computePlan(request: PlanRequest): Promise<PlanResponse | null> {
  const answer = await compute<PlanResponse>('plan', request)
  return isErrorResponse(answer) ? null : answer
}

/**
 * Reads what a class is planned from. Riders stay on their seats as in `fixedSeats`, pinned ones on their pin; the
 * rest is to be placed around them. From the start on every seated rider counts as here. Minutes count from the start:
 * before it they are minus.
 */
export async function planBasis(
  db: DbExecutor,
  scope: Scope,
  ofClass: StudioClass,
  now: Date,
  fixedSeats: FixedSeats = 'all',
): Promise<PlanBasis> {
  const [bikes, listed, assigned, floorRoom, places] = [
    await listBikes(db, scope),
    await listRoster(db, scope, ofClass.id),
    await listAssignments(db, scope, ofClass.id),
    ofClass.roomId ? await findRoom(db, scope, ofClass.roomId) : null,
    await listPlaces(db, scope),
  ]
  const room = floorRoom?.plan ?? PLAIN_ROOM
  const floor = floorOf(bikes, room, ofClass.roomId, places)
  const seats = new Map(assigned.map(({ bikeId, memberId }) => [memberId, bikeId]))
  const hasBegun = now >= ofClass.startsAt
  const roster = listed.map((one) =>
    hasBegun && one.state === 'booked' && seats.has(one.memberId) ? { ...one, state: 'here' as const } : one,
  )
  // In booking order: with too few bikes the earliest bookings get one.
  const coming = roster
    .filter(({ state }) => state !== 'cancelled')
    .toSorted((a, b) => a.bookedAt.getTime() - b.bookedAt.getTime() || (a.memberId < b.memberId ? -1 : 1))
  const ids = coming.map(({ memberId }) => memberId)
  const onFloor = [...new Set([...ids, ...assigned.map(({ memberId }) => memberId)])]
  const [entries, last, stiff, ready, minutes] = [
    byDisplayPriority(await currentEntries(db, scope, onFloor)),
    await lastBikes(db, scope, ids, ofClass.startsAt),
    await ridersWithNotes(db, scope, ids, NOT_TO_TURN, now),
    await readyRiders(db, scope, onFloor, ofClass),
    learnedMinutes(await setupDurations(db, scope, now)),
  ]
  const checked = new Set([...ready, ...numbersLookedAt(await listLooks(db, scope, ofClass.id))])
  const needs = new Map(ids.map((id) => [id, checked.has(id) ? 'none' : needOf(id, entries, now)] as const))
  const names = new Map(assigned.map(({ memberId, name }) => [memberId, name]))
  const inRoom = new Set(floor.map(({ bike }) => bike.id))
  const usable = new Set(floor.filter(({ bike }) => bike.openFaults === 0).map(({ bike }) => bike.id))
  const pinnedTo = new Set(coming.map(({ pinnedBikeId }) => pinnedBikeId))
  const types = typesOf(floor, entries)
  const request: PlanRequest = {
    types: Object.fromEntries(types),
    bikes: floor.map(({ bike, xM, yM, headingDeg }) => ({
      id: bike.id,
      type: bike.typeId,
      xM,
      yM,
      headingDeg,
      inService: bike.openFaults === 0,
    })),
    room: { instructor: room.instructor, screens: room.screens },
    riders: coming.map(({ memberId, state, comesMinBefore, rowWish, pinnedBikeId }) => {
      const seat = fixedSeats === 'all' || state === 'here' ? seats.get(memberId) : undefined
      // A rider on a bike out of use, or on another rider's pin, gets a new place.
      const stays = seat !== undefined && usable.has(seat) && !pinnedTo.has(seat)
      const pin = pinnedBikeId && usable.has(pinnedBikeId) ? pinnedBikeId : stays ? seat : undefined
      return {
        id: memberId,
        marksByType: marksByType(memberId, entries, types),
        setup: needs.get(memberId)!,
        arrivesMin: -comesMinBefore,
        ...(last.has(memberId) && inRoom.has(last.get(memberId)!) && { lastBike: last.get(memberId) }),
        ...(rowWish && { row: rowWish }),
        ...(stiff.has(memberId) && { avoidTwist: true }),
        ...(pin && { pinnedBike: pin }),
      }
    }),
    hands: ofClass.hands,
    // What is past cannot be used any more.
    doorsMin: Math.min(0, Math.max(-ofClass.doorsMin, (now.getTime() - ofClass.startsAt.getTime()) / 60_000)),
    startMin: 0,
    minutes,
  }
  return { request, room, floor, roster, needs, minutes, ready: checked, entries, seats, names }
}

/** Bikes by their places; where the room has none drawn, in rows by number. */
export function floorOf(
  bikes: readonly StudioBike[],
  room: Room['plan'],
  roomId: string | null,
  places: Awaited<ReturnType<typeof listPlaces>>,
): FloorPlace[] {
  const here = places.filter((place) => place.roomId === roomId)
  if (here.length > 0)
    return here
      .flatMap((place) => {
        const bike = bikes.find(({ id }) => id === place.bikeId)
        return bike ? [{ bike, xM: place.xM, yM: place.yM, headingDeg: place.headingDeg }] : []
      })
      .sort((a, b) => a.bike.number - b.bike.number)
  const rows = arrangeInRows(
    room,
    bikes.map(({ id }) => id),
  )
  return bikes.map((bike, i) => ({
    bike,
    xM: rows[i].xM,
    yM: rows[i].yM,
    headingDeg: rows[i].headingDeg,
  }))
}

/**
 * The types a plan needs, by their version: those of the room's bikes, then those that riders have numbers for. Numbers
 * in an earlier version's labels are that version's, and are carried over like those of any other type.
 */
function typesOf(
  floor: readonly FloorPlace[],
  entries: readonly RegisterEntry[],
): ReadonlyMap<string, StudioBike['type']> {
  const all = [
    ...floor.map(({ bike }) => [bike.typeId, bike.type] as const),
    ...entries.map(({ typeId, type }) => [typeId, type] as const),
  ]
  return new Map([...new Map(all)].slice(0, MAX_TYPES))
}

/** A rider's numbers by type as the plan reads them: their first shown set on each. */
function marksByType(
  memberId: string,
  entries: readonly RegisterEntry[],
  types: ReadonlyMap<string, StudioBike['type']>,
): PlanRequest['riders'][number]['marksByType'] {
  const own = entries.filter((entry) => entry.memberId === memberId && types.has(entry.typeId))
  return Object.fromEntries([...own].reverse().map((entry) => [entry.typeId, entry.marks]))
}

function needOf(memberId: string, entries: readonly RegisterEntry[], now: Date): Need {
  const own = entries.filter((entry) => entry.memberId === memberId)
  if (own.length === 0) return 'new'
  const [shown] = own
  const old = now.getTime() - shown.createdAt.getTime() > RECHECK_DAYS * 86_400_000
  return old || shown.awaitsConfirmation || shown.certainty === 'told' || shown.certainty === 'translated'
    ? 'recheck'
    : 'none'
}

/** Riders with recent notes of one of these regions. */
async function ridersWithNotes(
  db: DbExecutor,
  scope: Scope,
  ids: readonly string[],
  regions: readonly string[],
  now: Date,
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set()
  const found = await db
    .select({ memberId: classNote.memberId })
    .from(classNote)
    .where(
      and(
        eq(classNote.studioId, scope.studioId),
        inArray(classNote.memberId, [...ids]),
        inArray(classNote.region, [...regions]),
        gt(classNote.createdAt, new Date(now.getTime() - NOTES_DAYS * 86_400_000)),
        isNull(classNote.withdrawnAt),
      ),
    )
    .groupBy(classNote.memberId)
  return new Set(found.map(({ memberId }) => memberId))
}

/** Regions that should not sit turned, seen and felt. */
const NOT_TO_TURN = ['head', 'hips', 'feltNeck', 'feltHips']
const KNEES = ['feltKneeFront', 'feltKneeSide', 'feltKneeBack']

/** Riders who felt their knees lately: heavy slow work is not for them. */
export const ridersWithKneeNotes = (
  db: DbExecutor,
  scope: Scope,
  ids: readonly string[],
  now: Date,
): Promise<ReadonlySet<string>> => ridersWithNotes(db, scope, ids, KNEES, now)

/** Riders whose set-up was finished since shortly before the class's doors opened. */
export async function readyRiders(
  db: DbExecutor,
  scope: Scope,
  ids: readonly string[],
  { startsAt, endsAt, doorsMin }: StudioClass,
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set()
  const from = new Date(startsAt.getTime() - doorsMin * 60_000 - READY_FROM_MS)
  const found = await db
    .select({ memberId: setup.memberId, finishedAt: setup.finishedAt })
    .from(setup)
    .where(and(eq(setup.studioId, scope.studioId), inArray(setup.memberId, [...ids]), gt(setup.finishedAt, from)))
  return new Set(found.filter((one) => one.finishedAt! <= endsAt).map(({ memberId }) => memberId))
}

const MAX_DURATIONS = 300
const DURATIONS_DAYS = 120

/** How long the studio's latest set-ups took: a rider's first, a first on another type, or one more. */
async function setupDurations(db: DbExecutor, scope: Scope, now: Date): Promise<Duration[]> {
  const found = await db
    .select({
      memberId: setup.memberId,
      lineId: bikeType.lineId,
      startedAt: setup.startedAt,
      finishedAt: setup.finishedAt,
    })
    .from(setup)
    .innerJoin(bikeType, eq(bikeType.id, setup.typeId))
    .where(
      and(
        eq(setup.studioId, scope.studioId),
        isNotNull(setup.finishedAt),
        gt(setup.finishedAt, new Date(now.getTime() - DURATIONS_DAYS * 86_400_000)),
      ),
    )
    .orderBy(desc(setup.finishedAt))
    .limit(MAX_DURATIONS)
  const names = new Map<string, Set<string>>()
  return found.reverse().map(({ memberId, lineId, startedAt, finishedAt }) => {
    const lines = names.get(memberId)
    const need = !lines ? 'new' : lines.has(lineId) ? 'recheck' : 'translate'
    names.set(memberId, (lines ?? new Set<string>()).add(lineId))
    return { need, minutes: (finishedAt!.getTime() - startedAt.getTime()) / 60_000 }
  })
}
