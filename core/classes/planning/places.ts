import { munkres } from 'munkres'
import type { AxisName } from '../../base/conventions'
import { carryMarks } from '../../setups/translate/translate'
import { minutesOf, needOn, type ClassRoom, type FloorBike, type FloorRider, type Need } from './room'
import { nearestPlace, turnDeg } from './sightLine'

/** Why a place costs what it does. */
export type PlaceReason =
  | Readonly<{
      code: 'pinned' | 'ownNumbers' | 'recheck' | 'firstSetUp' | 'lastBike' | 'rowAsWished' | 'seenByInstructor'
    }>
  | Readonly<{ code: 'otherBike' }>
  | Readonly<{ code: 'otherRow'; wish: 'front' | 'back' }>
  /** Numbers translated from another type, and the distance of the saddle from its former position, mm. */
  | Readonly<{ code: 'translated'; from: string; residueMm: number }>
  | Readonly<{ code: 'outOfRange'; axis: AxisName; missingMm: number }>
  /** Looks aside by so much, degrees. */
  | Readonly<{ code: 'turned'; deg: number }>

export type Pair = Readonly<{
  rider: string
  bike: string
  cost: number
  need: Need
  because: readonly PlaceReason[]
}>
export type Unplaced = Readonly<{ rider: string; why: 'noBike' | 'pinTaken' | 'pinUnknown' | 'pinOutOfService' }>
export type Places = Readonly<{ pairs: readonly Pair[]; unplaced: readonly Unplaced[]; totalCost: number }>

/** What counts against a place, in minutes of an instructor; ours, no source. */
export const COST = Object.freeze({
  /** A scale that ends before the mark, and each millimetre that is missing. */
  outOfRange: 15,
  missingMm: 0.2,
  /** Per millimetre between the saddle positions on the two types. */
  residueMm: 0.2,
  otherBike: 1,
  /** From the row wished for to the one farthest from it. */
  otherRow: 3,
  /** Per degree of view angle: all riders, newcomers, and beyond `TURNED_FROM_DEG` riders who should not sit turned. */
  asideDeg: 0.02,
  newcomerAsideDeg: 0.06,
  turnedDeg: 0.1,
  /** From the row nearest to the instructor, where newcomers are seen, to the one farthest. */
  newcomerRow: 1.5,
})
/** A look aside that counts begins here, degrees (common practice, no source). */
export const TURNED_FROM_DEG = 30

/**
 * The minimum-cost assignment of riders to bikes for the given pins (Kuhn 1955 and Munkres 1957, by the library), with
 * the reasons of each place. With more riders than bikes the last of the list get none, independent of set-up minutes.
 * Pins come first, in the riders' order: a bike that is taken, faulty or unknown leaves its rider unplaced.
 */
export function placeRiders(room: ClassRoom): Places {
  const cost = costsOf(room)
  const free = room.bikes.filter(({ inService }) => inService)
  const pairs: Pair[] = []
  const unplaced: Unplaced[] = []
  const taken = new Set<string>()
  for (const rider of room.riders.filter(({ pinnedBike }) => pinnedBike !== undefined)) {
    const bike = room.bikes.find(({ id }) => id === rider.pinnedBike)
    const why = !bike ? 'pinUnknown' : !bike.inService ? 'pinOutOfService' : taken.has(bike.id) ? 'pinTaken' : null
    if (why || !bike) unplaced.push({ rider: rider.id, why: why ?? 'pinUnknown' })
    else {
      taken.add(bike.id)
      const found = cost(rider, bike)
      pairs.push({ ...found, because: [{ code: 'pinned' }, ...found.because] })
    }
  }
  const bikes = free.filter(({ id }) => !taken.has(id))
  const unpinned = room.riders.filter(({ pinnedBike }) => pinnedBike === undefined)
  const [riders, leftOut] = [unpinned.slice(0, bikes.length), unpinned.slice(bikes.length)]
  const all = riders.map((rider) => bikes.map((bike) => cost(rider, bike)))
  const assigned = assignmentOf(all.map((row) => row.map((pair) => pair.cost)))
  riders.forEach((rider, r) => {
    const b = assigned[r]
    if (b === null) unplaced.push({ rider: rider.id, why: 'noBike' })
    else pairs.push(all[r][b])
  })
  leftOut.forEach(({ id }) => unplaced.push({ rider: id, why: 'noBike' }))
  return { pairs, unplaced, totalCost: pairs.reduce((sum, pair) => sum + pair.cost, 0) }
}

/**
 * What it costs that two change places, in minutes of an instructor; minus where it is cheaper, which pins allow. Null
 * where one of them has no place.
 */
export function swapCost(room: ClassRoom, pairs: readonly Pair[], first: string, second: string): number | null {
  const cost = costsOf(room)
  const [a, b] = [first, second].map((id) => pairs.find(({ rider }) => rider === id))
  if (!a || !b) return null
  const after = ([from, to]: readonly [Pair, Pair]) =>
    cost(
      room.riders.find(({ id }) => id === from.rider)!,
      room.bikes.find(({ id }) => id === to.bike)!,
    ).cost
  return after([a, b]) + after([b, a]) - a.cost - b.cost
}

/** Minimum saving for which another bike is proposed, minutes of an instructor; ours, no source. */
const MIN_SAVING_MIN = 1.5

/** A free bike that would cost less than the seat a rider has. */
export type BetterBike = Readonly<{ rider: string; bike: string; savesMin: number }>

/**
 * Free bikes that would cost their rider at least 1.5 minutes less than the given pair does, each bike for one rider;
 * nobody else moves. Greedy, the largest saving first.
 */
export function betterBikes(room: ClassRoom, pairs: readonly Pair[]): BetterBike[] {
  const cost = costsOf(room)
  const seats = new Set(pairs.map(({ bike }) => bike))
  const free = room.bikes.filter(({ id, inService }) => inService && !seats.has(id))
  const moves = pairs
    .flatMap((pair) => {
      const rider = room.riders.find(({ id }) => id === pair.rider)!
      return free.map((bike) => ({ rider: rider.id, bike: bike.id, savesMin: pair.cost - cost(rider, bike).cost }))
    })
    .filter(({ savesMin }) => savesMin >= MIN_SAVING_MIN)
    .sort((a, b) => b.savesMin - a.savesMin)
  const used = new Set<string>()
  return moves.filter(({ rider, bike }) => {
    if (used.has(rider) || used.has(bike)) return false
    used.add(rider).add(bike)
    return true
  })
}

/** For each row the column it is given, null where there are fewer columns; the sum is the least possible. */
function assignmentOf(costs: readonly (readonly number[])[]): (number | null)[] {
  if (costs.length === 0 || costs[0].length === 0) return costs.map(() => null)
  const columnOf = new Map(munkres(costs))
  return costs.map((_, row) => columnOf.get(row) ?? null)
}

/** What one rider's place on one bike costs, and why; numbers carried to a type are worked out once a rider. */
export function costsOf(room: ClassRoom): (rider: FloorRider, bike: FloorBike) => Pair {
  const rows = rowsOf(room.bikes)
  const carried = new Map<string, readonly PlaceReason[]>()
  const numbersOn = (rider: FloorRider, type: string): readonly PlaceReason[] => {
    const key = JSON.stringify([rider.id, type])
    const cached = carried.get(key) ?? carriedTo(room, rider, type)
    carried.set(key, cached)
    return cached
  }
  return (rider, bike) => {
    const need = needOn(rider, bike.type)
    const because: PlaceReason[] = [...(need === 'new' ? [FIRST] : numbersOn(rider, bike.type))]
    if (need === 'recheck') because.push({ code: 'recheck' })
    if (rider.lastBike !== undefined) because.push({ code: rider.lastBike === bike.id ? 'lastBike' : 'otherBike' })
    const off = rowOff(rows.get(bike.id) ?? 0, rider.row)
    if (rider.row) because.push(off === 0 ? { code: 'rowAsWished' } : { code: 'otherRow', wish: rider.row })
    const deg = viewAngleDeg(room, bike)
    if (deg > TURNED_FROM_DEG) because.push({ code: 'turned', deg })
    const isNew = need === 'new'
    const turned =
      (isNew ? COST.newcomerAsideDeg : COST.asideDeg) * deg +
      (rider.avoidTwist ? COST.turnedDeg * Math.max(0, deg - TURNED_FROM_DEG) : 0)
    // Newcomers sit where the instructor sees them.
    const unseen = isNew ? COST.newcomerRow * (rows.get(bike.id) ?? 0) : 0
    if (isNew && (rows.get(bike.id) ?? 0) < NEAR_ROW) because.push({ code: 'seenByInstructor' })
    const cost =
      minutesOf(room, need) +
      because.reduce((sum, reason) => sum + reasonCost(reason), 0) +
      COST.otherRow * off +
      turned +
      unseen
    return { rider: rider.id, bike: bike.id, cost, need, because }
  }
}
/** Rows nearer than this share of the room are where an instructor sees a newcomer. */
const NEAR_ROW = 0.5
const FIRST: PlaceReason = { code: 'firstSetUp' }

/** Fixed cost of each reason; costs that depend on the place are computed with it. */
function reasonCost(reason: PlaceReason): number {
  switch (reason.code) {
    case 'translated':
      return COST.residueMm * reason.residueMm
    case 'outOfRange':
      return COST.outOfRange + COST.missingMm * reason.missingMm
    case 'otherBike':
      return COST.otherBike
    default:
      return 0
  }
}

/** How a rider's numbers serve on a type: their own there, or those of another that leave the least over. */
function carriedTo({ types }: ClassRoom, { marksByType }: FloorRider, type: string): readonly PlaceReason[] {
  if (Object.hasOwn(marksByType, type)) return [{ code: 'ownNumbers' }]
  const ways = Object.entries(marksByType).map(([from, marks]): readonly PlaceReason[] => {
    const { residueMm, outOfRange } = carryMarks({
      from: { bikeType: types[from], marks },
      to: { bikeType: types[type] },
    })
    const saddleMm = Math.hypot(residueMm.saddleHeightMm, residueMm.setbackMm)
    const ends = outOfRange.filter(({ axis }) => axis === 'seatHeight' || axis === 'seatSlide')
    return [
      { code: 'translated', from: types[from].name, residueMm: ends.length > 0 ? 0 : saddleMm },
      ...ends.map(({ axis, missingMm }): PlaceReason => ({ code: 'outOfRange', axis, missingMm })),
    ]
  })
  const worth = (way: readonly PlaceReason[]) => way.reduce((sum, reason) => sum + reasonCost(reason), 0)
  return ways.reduce((best, way) => (worth(way) < worth(best) ? way : best))
}

/** How far somebody here looks aside, degrees: to the instructor or the nearest screen, whichever is farther. */
function viewAngleDeg({ room }: ClassRoom, bike: FloorBike): number {
  const screen = nearestPlace(bike, room.screens ?? [])
  return Math.max(...[room.instructor, ...(screen ? [screen] : [])].map((place) => Math.abs(turnDeg(bike, place))))
}

/** Bikes whose distances from the wall differ by less than this form one row, metres. */
const ROW_M = 0.6

/** The row of each bike as a share: 0 the one nearest to the instructor's wall, 1 the farthest. */
export function rowsOf(bikes: readonly FloorBike[]): ReadonlyMap<string, number> {
  const sorted = [...bikes].sort((a, b) => a.yM - b.yM)
  let row = 0
  const numbers = sorted.map((bike, i) => {
    if (i > 0 && bike.yM - sorted[i - 1].yM > ROW_M) row += 1
    return [bike.id, row] as const
  })
  return new Map(numbers.map(([id, number]) => [id, row === 0 ? 0 : number / row]))
}

const rowOff = (share: number, wish: FloorRider['row']): number =>
  wish === 'front' ? share : wish === 'back' ? 1 - share : 0
