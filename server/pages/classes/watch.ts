import type { Label, Marks } from '../../../core/base/conventions'
import { floorScales } from '../../../core/messages/setups/floorScales'
import type { FloorScales } from '../../../core/setups/moves/move'
import { formatMarks } from '../../../core/messages/words/labels'
import { formatPutHere } from '../../../core/messages/classes/watch'
import { numbersLookedAt, type ClassState, type MoveState } from '../../../core/classes/watch/classState'
import type { CuedNote } from '../../../core/classes/watch/cue'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import { listBikesOfRecords } from '../../bikes/bikes'
import { stopsOf } from '../../comfort/stops'
import { trialsOnFloor } from '../../comfort/trialsOnFloor'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { currentEntries, byDisplayPriority } from '../../setups/register'
import { findRoom, listPlaces } from '../../classes/rooms/rooms'
import { getStudio } from '../../studio/studio'
import { listAssignments } from '../../classes/assignments'
import type { StudioClass } from '../../classes/classes'
import { listPutToClass } from '../../classes/followUps'
import { currentWording, whoAgreed } from '../../riders/consent'
import { effectsOfLimits } from '../../riders/limits'
import { ridersMovedOnDay } from '../../classes/moves'
import { listNotesOfMembers } from '../../classes/notes'
import { floorOf, PLAIN_ROOM, readyRiders, ridersWithKneeNotes } from '../../classes/planning'
import { listRoster } from '../../classes/roster'
import { numbersAt } from '../../classes/seats'
import { atOrAfter, duePlans, type RiderPlan } from '../riders/plans'
import { classState, listOwnCues } from '../../classes/watch'

/** A bike as the floor shows it during a class. */
export type WatchBike = Readonly<{
  bikeId: string
  number: number
  xM: number
  yM: number
  /** `agrees`: to notes about body and health. */
  rider: Readonly<{ id: string; name: string; agrees: boolean }> | null
  numbers: string | null
  /** The same as marks of this machine, and the version of its type (in `scales`); null without numbers. */
  marks: Marks | null
  typeId: string
  /** A mark was moved today outside this class, or a change is on trial: a second one asks for a reason. */
  movedToday: boolean
  onTrial: boolean
  /** Numbers nobody looked at yet: left to the warm-up, or new here and not set up. */
  toCheck: boolean
  /** Has no numbers yet. */
  isNew: boolean
  /** To be looked at sooner: to check, reported or carried numbers, a recent note. */
  watchFor: boolean
  kneeNotes: boolean
  /** An old ankle injury: no cue forces the foot. */
  ankle: boolean
  /** An open red flag from before this class, in words; null without one. */
  stop: string | null
  /** What is on trial here, or was put to this class by an earlier one, in a few words; null where nothing is. */
  trial: string | null
  /** What was planned for the rider and due when they came to this class, in a sentence and on a tile. */
  plans: readonly Pick<RiderPlan, 'id' | 'kind' | 'text' | 'short'>[]
  /** Of a starter that was due then on this type: the distance to raise the seat by, mm along the axis. */
  raiseMm: number | null
}>

/** What the floor needs during a class, network or not. */
export type WatchData = Readonly<{
  bikes: readonly WatchBike[]
  /** Riders on the list who have no bike. */
  withoutBike: number
  widthM: number
  /** The scales of the bikes with a rider, by version of their type. */
  scales: Readonly<Record<string, FloorScales>>
  /** Whether this person sets riders up, and so moves marks. */
  mayMove: boolean
  state: ClassState
  /** Earlier notes on these riders, for cues and their results. */
  earlier: readonly CuedNote[]
  /** The studio's own words for cues, by sign. */
  cues: Readonly<Record<string, string>>
  /** The words to referred riders, in the studio's own words; null for the product's. */
  referral: string | null
  /** The consent question before the first note. */
  wording: string
}>

/** Maximum age of cues that count, ms. */
const CUES_MS = 120 * 86_400_000
/** Something noted within so long makes a rider one to watch, ms. */
const LATELY_MS = 42 * 86_400_000

/**
 * The floor during a class, as it was at one moment: the page applies its own entries to it, so that numbers, moves and
 * plans must belong together.
 */
export const watchData = (db: Database, scope: Scope, ofClass: StudioClass, now: Date): Promise<WatchData> =>
  withTransaction(db, (tx) => readWatch(tx, scope, ofClass, now), {
    isolationLevel: 'repeatable read',
  })

/** The same within a transaction, or of the moments of its queries without one. */
export async function readWatch(db: DbExecutor, scope: Scope, ofClass: StudioClass, now: Date): Promise<WatchData> {
  const [all, assigned, roster, ofRoom, places, state, cues] = [
    await listBikesOfRecords(db, scope),
    await listAssignments(db, scope, ofClass.id),
    await listRoster(db, scope, ofClass.id),
    ofClass.roomId ? await findRoom(db, scope, ofClass.roomId) : null,
    await listPlaces(db, scope),
    await classState(db, scope, ofClass.id),
    await listOwnCues(db, scope),
  ]
  const ids = assigned.map(({ memberId }) => memberId)
  const looked = numbersLookedAt(state.looks)
  const [entries, notes, knees, ready] = [
    byDisplayPriority(await currentEntries(db, scope, ids)),
    await listNotesOfMembers(db, scope, ids, new Date(now.getTime() - CUES_MS)),
    await ridersWithKneeNotes(db, scope, ids, now),
    await readyRiders(db, scope, ids, ofClass),
  ]
  const trials = await trialsOnFloor(
    db,
    scope,
    ids,
    assigned.map(({ bikeId }) => bikeId),
    now,
  )
  const moved = await ridersMovedOnDay(db, scope, ids, now, ofClass.id)
  const put = await listPutToClass(db, scope, ofClass)
  const putTo = (memberId: string) =>
    put.filter((one) => one.memberId === memberId).map(({ said: text }) => formatPutHere(text))
  const due = await duePlans(db, scope, ids, atOrAfter(now, ofClass), seatsBefore(state.moves))
  const limits = await effectsOfLimits(db, scope, ids, now)
  const stops = await stopsOf(db, scope, ids, now)
  const agreed = await whoAgreed(db, scope, ids)
  const earlier = notes.filter(({ classId }) => classId !== ofClass.id)
  const room = ofRoom?.plan ?? PLAIN_ROOM
  const floor = floorOf(
    all.filter(({ retiredAt }) => retiredAt === null),
    room,
    ofClass.roomId,
    places,
  )
  // Bikes that were ridden here and have left the room or retired since: behind the others, so that no rider is lost.
  const left = all
    .filter(({ id }) => assigned.some(({ bikeId }) => bikeId === id) && !floor.some(({ bike }) => bike.id === id))
    .map((bike, i) => ({ bike, xM: i + 1, yM: room.depthM }))
  const bikes = [...floor, ...left].map(({ bike, xM, yM }): WatchBike => {
    const rider = assigned.find(({ bikeId }) => bikeId === bike.id)
    const own = entries.filter(({ memberId }) => memberId === rider?.memberId)
    const listed = roster.find(({ memberId }) => memberId === rider?.memberId)
    const { marks, certainty } = numbersAt(bike, own)
    const isUnchecked = listed?.warmUp === true || own.length === 0 || own.some((one) => one.awaitsConfirmation)
    const toCheck = rider !== undefined && isUnchecked && !looked.has(rider.memberId) && !ready.has(rider.memberId)
    const lately = earlier.some(
      (note) => note.memberId === rider?.memberId && now.getTime() - note.createdAt.getTime() < LATELY_MS,
    )
    const plans = due.get(rider?.memberId ?? '') ?? []
    const unsure = certainty === 'told' || certainty === 'translated' || marks === null
    return {
      bikeId: bike.id,
      number: bike.number,
      xM,
      yM,
      rider: rider ? { id: rider.memberId, name: rider.name, agrees: agreed.has(rider.memberId) } : null,
      numbers: marks && formatMarks(bike.type, marks),
      marks,
      typeId: bike.typeId,
      movedToday: rider !== undefined && moved.has(rider.memberId),
      onTrial: rider !== undefined && trials.isRunning(rider.memberId),
      toCheck,
      isNew: rider !== undefined && own.length === 0,
      watchFor:
        rider !== undefined &&
        (toCheck ||
          unsure ||
          lately ||
          plans.length > 0 ||
          trials.isDue(rider.memberId) ||
          putTo(rider.memberId).length > 0),
      ankle: rider !== undefined && (limits.get(rider.memberId)?.ankles.length ?? 0) > 0,
      kneeNotes: rider !== undefined && knees.has(rider.memberId),
      stop: (rider && stops.get(rider.memberId)) ?? null,
      trial: rider ? [...trials.words(rider.memberId, bike.id), ...putTo(rider.memberId)].join('; ') || null : null,
      plans: plans.map(({ id, kind, text, short }) => ({ id, kind, text, short })),
      raiseMm: plans.find(({ raise }) => raise?.lineId === bike.lineId)?.raise?.mm ?? null,
    }
  })
  return {
    bikes,
    withoutBike: roster.filter(({ memberId, state: how }) => how !== 'cancelled' && !ids.includes(memberId)).length,
    widthM: room.widthM,
    scales: Object.fromEntries(
      all
        .filter(({ id }) => assigned.some(({ bikeId }) => bikeId === id))
        .map(({ typeId, type }) => [typeId, floorScales(type)]),
    ),
    mayMove: can(scope, 'setUpRiders'),
    state,
    earlier: earlier.map(({ memberId, sign, cued, held }) => ({ memberId, sign, cued, held })),
    cues,
    referral: (await getStudio(db, scope)).referral,
    wording: (await currentWording(db, scope)).wording,
  }
}

/** The seat heights that riders came to a class with, where one was moved there. `moves`: the oldest first. */
function seatsBefore(moves: readonly MoveState[]): ReadonlyMap<string, Label> {
  const ofSeats = moves.filter(({ axis }) => axis === 'seatHeight')
  return new Map(ofSeats.toReversed().map(({ memberId, from }) => [memberId, from]))
}
