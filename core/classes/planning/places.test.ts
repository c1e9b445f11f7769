import { TYPES } from '@/scripts/netloftHall'
import type { Marks } from '../../base/conventions'
import { HOLES_BIKE } from '../../testing/meanRider'
import { positionsOf } from '../../bikes/scale/scale'
import { randomRoom } from '../../simulated/randomRoom'
import { costsOf, betterBikes, placeRiders, rowsOf, swapCost, type Pair } from './places'
import { needOn, type ClassRoom, type FloorBike, type FloorRider } from './room'

const marksOn = (type: keyof typeof TYPES, at: number): Marks =>
  Object.fromEntries(
    Object.entries(TYPES[type].axes).map(([axis, { scale }]) => {
      const all = positionsOf(scale)
      return [axis, all[Math.min(all.length - 1, Math.floor(at * all.length))].label]
    }),
  )
const bike = (id: string, of: Partial<FloorBike> = {}): FloorBike => ({
  id,
  type: 'sorrel',
  xM: 0,
  yM: 2,
  headingDeg: 0,
  inService: true,
  ...of,
})
const rider = (id: string, of: Partial<FloorRider> = {}): FloorRider => ({
  id,
  marksByType: { sorrel: marksOn('sorrel', 0.5) },
  setup: 'none',
  arrivesMin: 0,
  ...of,
})
const roomOf = (bikes: readonly FloorBike[], riders: readonly FloorRider[]): ClassRoom => ({
  types: TYPES,
  bikes,
  riders,
  room: { instructor: { xM: 0, yM: 0 } },
  hands: 1,
  doorsMin: -20,
  startMin: 0,
})

const seatOf = (pairs: readonly Pair[], id: string) => pairs.find((pair) => pair.rider === id)!

/** The least cost there is of seating the first of the list, by trying every way. */
function bruteForce(room: ClassRoom): number {
  const cost = costsOf(room)
  const free = room.bikes.filter(({ inService }) => inService)
  const all = room.riders.slice(0, free.length).map((one) => free.map((b) => cost(one, b).cost))
  let best = Infinity
  const walk = (r: number, taken: number, sum: number): void => {
    if (sum >= best) return
    if (r === all.length) best = sum
    else free.forEach((_, b) => (taken & (1 << b) ? undefined : walk(r + 1, taken | (1 << b), sum + all[r][b])))
  }
  walk(0, 0, 0)
  return best
}

test('no way to seat them costs less: 200 random rooms of six, by trying all, with riders or bikes to spare', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const room = randomRoom(TYPES, seed, 6, [4, 6, 7][seed % 3])
    const { totalCost, pairs, unplaced } = placeRiders(room)
    expect(totalCost).toBeCloseTo(bruteForce(room), 6)
    expect(pairs.length + unplaced.length).toBe(room.riders.length)
    expect(new Set(pairs.map((pair) => pair.bike)).size).toBe(pairs.length)
    const outOfUse = room.bikes.filter(({ inService }) => !inService).map(({ id }) => id)
    expect(pairs.filter((pair) => outOfUse.includes(pair.bike))).toEqual([])
  }
})

test('the order in which riders and bikes are named changes no cost where there are bikes enough', () => {
  const room = randomRoom(TYPES, 7, 20, 18)
  const turned = { ...room, bikes: [...room.bikes].reverse(), riders: [...room.riders].reverse() }
  expect(placeRiders(turned).totalCost).toBeCloseTo(placeRiders(room).totalCost, 6)
})

test('pins hold and the rest is solved around them, never for less', () => {
  const room = randomRoom(TYPES, 11, 12, 10)
  const free = placeRiders(room)
  const { bike: other } = free.pairs[3]
  const pinned = {
    ...room,
    riders: room.riders.map((one, i) => (i === 0 ? { ...one, pinnedBike: other } : one)),
  }
  const { pairs, totalCost } = placeRiders(pinned)
  const first = pairs.find((pair) => pair.rider === room.riders[0].id)!
  expect(first.bike).toBe(other)
  expect(first.because[0]).toEqual({ code: 'pinned' })
  expect(totalCost).toBeGreaterThanOrEqual(free.totalCost - 1e-9)
})

test('an overbooked class leaves out the last of the list, independent of set-up minutes', () => {
  const bikes = [bike('a'), bike('b')]
  const newcomer = rider('newcomer', { setup: 'new', marksByType: {} })
  const first = placeRiders(roomOf(bikes, [newcomer, rider('regular'), rider('late')]))
  expect(first.pairs.map((pair) => pair.rider).sort()).toEqual(['newcomer', 'regular'])
  expect(first.unplaced).toEqual([{ rider: 'late', why: 'noBike' }])
  const last = placeRiders(roomOf(bikes, [rider('regular'), rider('late'), newcomer]))
  expect(last.unplaced).toEqual([{ rider: 'newcomer', why: 'noBike' }])
})

test('looking aside costs everybody a little and newcomers more, who sit where the instructor sees them', () => {
  const straight = bike('straight', { xM: 0, yM: 2 })
  const aside = bike('aside', { xM: 0, yM: 2, headingDeg: 40 })
  const far = bike('far', { xM: 0, yM: 8 })
  const newcomer = rider('newcomer', { setup: 'new', marksByType: {} })
  const room = roomOf([straight, aside, far], [newcomer, rider('regular')])
  const extra = (one: FloorRider, b: FloorBike) => costsOf(room)(one, b).cost - costsOf(room)(one, straight).cost
  expect(extra(room.riders[1], aside)).toBeCloseTo(0.02 * 40, 6)
  expect(extra(newcomer, aside)).toBeGreaterThan(extra(room.riders[1], aside))
  expect(extra(newcomer, far)).toBeGreaterThan(extra(room.riders[1], far))
  const { pairs } = placeRiders(room)
  expect(seatOf(pairs, 'newcomer')).toMatchObject({ bike: 'straight' })
  expect(seatOf(pairs, 'newcomer').because).toContainEqual({ code: 'seenByInstructor' })
})

test('two on one bike, a faulty one, one not there, and more riders than bikes: reported, and the others sit', () => {
  const bikes = [bike('a'), bike('b', { inService: false })]
  const riders = [
    rider('first', { pinnedBike: 'a' }),
    rider('second', { pinnedBike: 'a' }),
    rider('third', { pinnedBike: 'b' }),
    rider('fourth', { pinnedBike: 'z' }),
    rider('fifth'),
  ]
  const { pairs, unplaced } = placeRiders(roomOf(bikes, riders))
  expect(pairs.map((pair) => [pair.rider, pair.bike])).toEqual([['first', 'a']])
  expect(unplaced).toEqual([
    { rider: 'second', why: 'pinTaken' },
    { rider: 'third', why: 'pinOutOfService' },
    { rider: 'fourth', why: 'pinUnknown' },
    { rider: 'fifth', why: 'noBike' },
  ])
  expect(placeRiders(roomOf([], [])).pairs).toEqual([])
})

test('each wish is fulfilled where nothing speaks against it, with a note', () => {
  const bikes = [
    bike('front', { yM: 2 }),
    bike('back', { yM: 6 }),
    bike('aside', { yM: 4, headingDeg: 80 }),
    bike('other', { type: 'bracken', yM: 4 }),
  ]
  const riders = [
    rider('in front', { row: 'front' }),
    rider('behind', { row: 'back' }),
    rider('stiff neck', { avoidTwist: true, marksByType: { bracken: marksOn('bracken', 0.5) } }),
    rider('as ever', { lastBike: 'aside' }),
  ]
  const { pairs } = placeRiders(roomOf(bikes, riders))
  expect(seatOf(pairs, 'in front')).toMatchObject({ bike: 'front' })
  expect(seatOf(pairs, 'behind')).toMatchObject({ bike: 'back' })
  expect(seatOf(pairs, 'stiff neck')).toMatchObject({ bike: 'other', because: [{ code: 'ownNumbers' }] })
  expect(seatOf(pairs, 'as ever').because).toContainEqual({ code: 'lastBike' })
  expect(seatOf(pairs, 'as ever').because).toContainEqual({ code: 'turned', deg: 80 })
})

test('numbers of another type cost what they take and leave over; without any it is a first set-up', () => {
  const room = roomOf([bike('a'), bike('b', { type: 'meadowsweet' })], [rider('r'), rider('none', { marksByType: {} })])
  const cost = costsOf(room)
  const [own, other] = room.bikes.map((one) => cost(room.riders[0], one))
  expect(own).toMatchObject({ cost: 0, need: 'none', because: [{ code: 'ownNumbers' }] })
  expect(other.need).toBe('translate')
  expect(other.cost).toBeGreaterThan(1.5)
  expect(cost(room.riders[1], room.bikes[0])).toMatchObject({ cost: 6, need: 'new' })
  expect(needOn(rider('x', { setup: 'recheck' }), 'bracken')).toBe('recheck')
})

test('what a swap costs is what pins to the swapped bikes cost, and never less than nothing without pins', () => {
  const room = randomRoom(TYPES, 17, 14, 12)
  const { pairs, totalCost } = placeRiders(room)
  for (const [a, b] of [
    [pairs[0], pairs[5]],
    [pairs[2], pairs[9]],
  ] as const) {
    const found = swapCost(room, pairs, a.rider, b.rider)!
    expect(found).toBeGreaterThanOrEqual(-1e-9)
    const seat = (id: string) => (id === a.rider ? b.bike : id === b.rider ? a.bike : seatOf(pairs, id)?.bike)
    const pinned = room.riders.map((one) => ({ ...one, pinnedBike: seat(one.id) }))
    expect(placeRiders({ ...room, riders: pinned }).totalCost).toBeCloseTo(totalCost + found, 6)
  }
  expect(swapCost(room, pairs, pairs[0].rider, 'nobody')).toBeNull()
})

test('rows are distinguished by their distance from the instructor’s wall', () => {
  const rows = rowsOf([bike('a', { yM: 2 }), bike('b', { yM: 2.3 }), bike('c', { yM: 3.6 }), bike('d', { yM: 5.2 })])
  expect([...rows.values()]).toEqual([0, 0, 0.5, 1])
  expect([...rowsOf([bike('a')]).values()]).toEqual([0])
})

test('a free bike that saves its rider minutes is proposed, one bike a rider, nobody else moved', () => {
  const marks = { seatHeight: '7', seatSlide: 'C', barHeight: '4', barSlide: '1' }
  const place = (id: string, type: string, xM: number) => ({ id, type, xM, yM: 2, headingDeg: 0, inService: true })
  const room = {
    types: { own: HOLES_BIKE, other: { ...HOLES_BIKE, name: 'Other' } },
    bikes: [place('seat', 'other', 4), place('free', 'own', 6), place('broken', 'own', 5)].map((bike) => ({
      ...bike,
      inService: bike.id !== 'broken',
    })),
    room: { instructor: { xM: 5, yM: 0.5 } },
    riders: [{ id: 'Runa', marksByType: { own: marks }, setup: 'none' as const, arrivesMin: -10, pinnedBike: 'seat' }],
    hands: 1,
    doorsMin: -20,
    startMin: 0,
  }
  const { pairs } = placeRiders(room)
  expect(betterBikes(room, pairs)).toEqual([{ rider: 'Runa', bike: 'free', savesMin: expect.closeTo(1.5, 0) }])
  // On a bike of their own type there is nothing to gain.
  expect(
    betterBikes(room, placeRiders({ ...room, riders: [{ ...room.riders[0], pinnedBike: 'free' }] }).pairs),
  ).toEqual([])
})
