import { formatMarks } from '../../../core/messages/words/labels'
import { formatCarryOver, formatPlaceReason } from '../../../core/messages/classes/planning'
import { formatNote, formatPutHere } from '../../../core/messages/classes/watch'
import type { Need } from '../../../core/classes/planning/room'
import type { RoomPlan } from '../../../core/classes/planning/roomPlan'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { stopsOf } from '../../comfort/stops'
import { trialsOnFloor } from '../../comfort/trialsOnFloor'
import type { StudioClass } from '../../classes/classes'
import { listPutToClass } from '../../classes/followUps'
import { listNotesOfMembers, type Note } from '../../classes/notes'
import { planClass, type ClassPlan } from '../../classes/planning'
import { areDoorsOpen } from '../../classes/replan'
import { numbersAt } from '../../classes/seats'
import { atOrAfter, duePlans } from '../riders/plans'
import { outdatedSheet } from './sheet'

/** What a bike's tile shows before a class. */
export type FloorTile = Readonly<{
  bikeId: string
  number: number
  type: string
  faulty: boolean
  xM: number
  yM: number
  headingDeg: number
  rider: Readonly<{
    id: string
    name: string
    state: 'booked' | 'here' | 'cancelled' | null
    pinned: boolean
    need: Need
    ready: boolean
    warmUp: boolean
    /** Why they sit here. */
    because: readonly string[]
  }> | null
  /** The four numbers as this machine takes them. */
  numbers: readonly string[] | null
  remark: string | null
  /** Source of the numbers, where it is shown: reported, translated, new. */
  mark: 'new' | 'told' | 'translated' | 'trial' | null
  /** What is due, on trial, or was noted lately: what to watch for. */
  watchFor: readonly string[]
  /** What is planned for the rider and due; `isHere`: a starter of this type, raised on this bike. */
  plans: readonly Readonly<{ text: string; isHere: boolean }>[]
  /** An open red flag of the rider, in words; null without one, or for who may not see notes. */
  stop: string | null
}>

/** Somebody to be set up: on the seat they have; without a seat on the bike that the plan proposes. */
export type QueueItem = Readonly<{
  memberId: string
  name: string
  bikeId: string
  number: number
  isSeated: boolean
  /** Another bike that would cost less, or the way off a bike out of use; `savesMin` null for the latter. */
  offer: Readonly<{ bikeId: string; number: number; savesMin: number | null }> | null
  need: Exclude<Need, 'none'>
  stop: string | null
  hand: number
  fromMin: number
  toMin: number
}>

/** A class before it begins. */
export type FloorBefore = Readonly<{
  room: RoomPlan
  tiles: readonly FloorTile[]
  queue: readonly QueueItem[]
  late: readonly Readonly<{ memberId: string; name: string; comeByMin: number | null; why: string }>[]
  /** When the latest sheet was printed, ms since 1970, where it is out of date; else null. */
  outdatedSheetMs: number | null
  /** The doors are open: seated riders move only on request. */
  doorsOpen: boolean
  /** Once the class runs: who sits there without having been set up. */
  notSetUp: readonly string[]
  unplaced: readonly Readonly<{ memberId: string; name: string; why: string }>[]
  /** On the list and without a bike, though there would be one: the places have not been worked out yet. */
  waiting: number
  roster: readonly Readonly<{
    memberId: string
    name: string
    state: 'booked' | 'here' | 'cancelled'
    comesMinBefore: number
    rowWish: 'front' | 'back' | null
    number: number | null
  }>[]
  totalCost: number | null
  minutes: ClassPlan['minutes']
}>

/** Maximum age of notes that show what to watch for, ms. */
const WATCH_FOR_MS = 42 * 86_400_000
const MAX_WATCHED = 3

/** Everything the floor shows before a class; `seesNotes`: whether what was seen of bodies may be shown. */
export async function floorBefore(
  db: DbExecutor,
  scope: Scope,
  ofClass: StudioClass,
  seesNotes: boolean,
  now: Date,
): Promise<FloorBefore> {
  const found = await planClass(db, scope, ofClass, now)
  const { room, floor, roster, needs, ready, entries, seats, plan, minutes } = found
  const memberAt = new Map([...seats].map(([memberId, bikeId]) => [bikeId, memberId]))
  const notes = seesNotes
    ? await listNotesOfMembers(db, scope, [...seats.keys()], new Date(now.getTime() - WATCH_FOR_MS))
    : []
  const trials = seesNotes ? await trialsOnFloor(db, scope, [...seats.keys()], [...seats.values()], now) : null
  const put = seesNotes ? await listPutToClass(db, scope, ofClass) : []
  const due = seesNotes ? await duePlans(db, scope, [...seats.keys()], atOrAfter(now, ofClass)) : null
  const stops = seesNotes ? await stopsOf(db, scope, [...nameOfAll(found).keys()], now) : new Map<string, string>()
  const numberOf = new Map(floor.map(({ bike }) => [bike.id, bike.number]))
  const nameOf = nameOfAll(found)
  const name = (id: string) => nameOf.get(id) ?? ''
  const pairOf = new Map((plan?.pairs ?? []).map((pair) => [pair.rider, pair]))
  const tiles = floor.map(({ bike, xM, yM, headingDeg }): FloorTile => {
    const memberId = memberAt.get(bike.id)
    const listed = roster.find((r) => r.memberId === memberId)
    const own = memberId ? entries.filter((entry) => entry.memberId === memberId) : []
    const { marks, certainty, remark, elsewhere } = numbersAt(bike, own)
    const need = memberId ? needOn(needs.get(memberId) ?? (own.length === 0 ? 'new' : 'none'), marks !== null) : 'none'
    const pair = memberId ? pairOf.get(memberId) : undefined
    return {
      bikeId: bike.id,
      number: bike.number,
      type: bike.type.name,
      faulty: bike.openFaults > 0,
      xM,
      yM,
      headingDeg,
      rider: memberId
        ? {
            id: memberId,
            name: name(memberId),
            state: listed?.state ?? null,
            pinned: listed?.pinnedBikeId === bike.id,
            need: ready.has(memberId) && marks !== null ? 'none' : need,
            ready: ready.has(memberId),
            warmUp: (listed?.warmUp ?? false) && !ready.has(memberId),
            because: pair?.bike === bike.id ? reasonsAt(pair.because, listed?.pinnedBikeId === bike.id) : [],
          }
        : null,
      numbers: marks && formatMarks(bike.type, marks).split(' · '),
      remark: remark ?? (elsewhere ? formatCarryOver(elsewhere) : null),
      mark: !memberId
        ? null
        : trials?.of(memberId)
          ? 'trial'
          : own.length === 0
            ? 'new'
            : markOf(certainty, marks !== null),
      watchFor: memberId
        ? [
            ...(due?.get(memberId) ?? []).map(({ short }) => short),
            ...(trials?.words(memberId, bike.id) ?? []),
            ...put.filter((one) => one.memberId === memberId).map(({ said: text }) => formatPutHere(text)),
            ...watchFor(notes, memberId),
          ]
        : [],
      plans: (due?.get(memberId ?? '') ?? []).map(({ text, raise }) => ({
        text,
        isHere: raise?.lineId === bike.lineId,
      })),
      stop: (memberId && stops.get(memberId)) || null,
    }
  })
  const seated = new Set(seats.keys())
  const better = new Map((plan?.better ?? []).map((one) => [one.rider, one]))
  // Once the class runs nobody is set up before it any more.
  const hasBegun = now >= ofClass.startsAt
  return {
    room,
    tiles,
    queue: (hasBegun ? [] : (plan?.queue ?? [])).map((slot): QueueItem => {
      const seat = seats.get(slot.rider)
      const isPinned = roster.some(({ memberId, pinnedBikeId }) => memberId === slot.rider && pinnedBikeId !== null)
      const cheaper = isPinned ? undefined : better.get(slot.rider)
      const offer =
        seat !== undefined && seat !== slot.bike ? { bike: slot.bike, savesMin: null } : seat ? cheaper : undefined
      const bikeId = seat ?? slot.bike
      return {
        memberId: slot.rider,
        name: name(slot.rider),
        bikeId,
        number: numberOf.get(bikeId) ?? 0,
        isSeated: seat !== undefined,
        offer: offer ? { bikeId: offer.bike, number: numberOf.get(offer.bike) ?? 0, savesMin: offer.savesMin } : null,
        need: queueNeed(needs.get(slot.rider) ?? 'none'),
        stop: stops.get(slot.rider) ?? null,
        hand: slot.hand,
        fromMin: slot.fromMin,
        toMin: slot.toMin,
      }
    }),
    late: (hasBegun ? [] : (plan?.late ?? [])).map(({ rider, comeByMin, why }) => ({
      memberId: rider,
      name: name(rider),
      comeByMin: comeByMin ?? null,
      why,
    })),
    outdatedSheetMs: (await outdatedSheet(db, scope, ofClass.id))?.getTime() ?? null,
    doorsOpen: areDoorsOpen(ofClass, now),
    notSetUp: hasBegun ? (plan?.queue ?? []).filter(({ rider }) => seated.has(rider)).map((s) => name(s.rider)) : [],
    unplaced: (plan?.unplaced ?? []).map(({ rider, why }) => ({ memberId: rider, name: name(rider), why })),
    waiting: (plan?.pairs ?? []).filter(({ rider }) => !seated.has(rider)).length,
    roster: roster.map(({ memberId, state, comesMinBefore, rowWish }) => ({
      memberId,
      name: name(memberId),
      state,
      comesMinBefore,
      rowWish,
      number: numberOf.get(seats.get(memberId) ?? '') ?? null,
    })),
    totalCost: plan?.totalCost ?? null,
    minutes,
  }
}

const nameOfAll = ({ roster, names }: ClassPlan): ReadonlyMap<string, string> =>
  new Map([...roster.map((r) => [r.memberId, r.name] as const), ...names])

/** Drops the reason of a pin for riders who only stay on their seat. */
const reasonsAt = (because: readonly string[], isPinned: boolean): readonly string[] =>
  isPinned ? because : because.filter((reason) => reason !== formatPlaceReason({ code: 'pinned' }))

/** Numbers that this machine's type does not have are carried over first. */
const needOn = (need: Need, hasNumbers: boolean): Need => (need === 'none' && !hasNumbers ? 'translate' : need)
/** In the queue without another need: the numbers are carried to this type. */
const queueNeed = (need: Need): Exclude<Need, 'none'> => (need === 'none' ? 'translate' : need)

function markOf(certainty: string | null, hasNumbers: boolean): FloorTile['mark'] {
  if (!hasNumbers || certainty === 'translated') return 'translated'
  return certainty === 'told' ? 'told' : null
}

function watchFor(notes: readonly Note[], memberId: string): string[] {
  const own = notes.filter((note) => note.memberId === memberId && note.held !== true)
  return [...new Set(own.map(formatNote))].slice(0, MAX_WATCHED)
}
