import { believe } from '../belief/belief'
import { priorFor, tableOf } from '../rider/prior'
import { nearestStop, stopsOf, type Stop } from '../scale/scale'
import { schoolOf, type School } from '../school/school'
import { HOLES_BIKE } from '../testing/meanRider'
import { bestPair, heightEnd, legEffectMm, pairAt, seatAt, slideEnd, startPair, type SaddleQuestion } from './saddle'
import { saddleChecks } from './windows'

const setting = { bikeType: HOLES_BIKE, prior: tableOf(priorFor('natural')), soleMm: 10 }
const ofStature = (mm: number) =>
  believe(setting, [{ form: 'reading', read: mm, sd: 10, of: (s) => s.body.statureMm }], 1, 2000)
const question = (statureMm: number, school: Partial<School> = {}): SaddleQuestion => ({
  bikeType: HOLES_BIKE,
  school: schoolOf(school),
  checks: saddleChecks(ofStature(statureMm), schoolOf(school)),
})
const heights = stopsOf(HOLES_BIKE.axes.seatHeight.scale)
const middle = nearestStop(HOLES_BIKE.axes.seatSlide.scale, 0)
const at = (q: SaddleQuestion, height: Stop) => seatAt(q, height, middle)

test('at every mark a rider’s knee is right, too low or too high: the three chances sum to 1', () => {
  for (const school of [
    {},
    { heelCheck: 'target' },
    { heelCheck: 'ceiling' },
    { kneeWindowDeg: [30, 35] as const },
  ] as Partial<School>[]) {
    const q = question(1700, school)
    for (const height of heights) {
      const seat = at(q, height)
      expect(q.checks.kneeChance(seat) + q.checks.tooLowChance(seat) + q.checks.tooHighChance(seat)).toBeCloseTo(1, 9)
    }
  }
})

test('the higher the seat, the straighter the knee, the fewer sit too low', () => {
  const q = question(1700)
  const seats = heights.map((height) => at(q, height))
  seats.slice(1).forEach((seat, i) => {
    expect(q.checks.knee(seat).mean).toBeLessThanOrEqual(q.checks.knee(seats[i]).mean)
    expect(q.checks.tooLowChance(seat)).toBeLessThanOrEqual(q.checks.tooLowChance(seats[i]))
    expect(q.checks.tooHighChance(seat)).toBeGreaterThanOrEqual(q.checks.tooHighChance(seats[i]))
  })
})

test('both checks together are never likelier than either', () => {
  const q = question(1700)
  const seat = at(q, heights[8])
  expect(q.checks.bothChance(seat)).toBeLessThanOrEqual(Math.min(q.checks.kneeChance(seat), q.checks.plumbChance(seat)))
})

const slides = stopsOf(HOLES_BIKE.axes.seatSlide.scale)
const everyPair = (q: SaddleQuestion) => heights.flatMap((height) => slides.map((slide) => pairAt(q, height, slide)))

test('the start is a brute-force search over all heights and slides for both checks; of ties the slide nearest 0 mm', () => {
  for (const stature of [1550, 1700, 1850]) {
    const q = question(stature)
    const all = everyPair(q)
    const top = Math.max(...all.map((p) => p.chance))
    const start = startPair(q, middle)
    expect(start.chance).toBeGreaterThanOrEqual(top - 0.02)
    const nearer = all.filter((p) => p.chance >= top - 0.02 && Math.abs(p.slide.mm) < Math.abs(start.slide.mm))
    expect(nearer).toEqual([])
  }
})

test.each<[string, Partial<School>]>([
  ['a wide window', {}],
  ['a narrow window', { kneeWindowDeg: [30, 35] }],
  ['the heel as target', { heelCheck: 'target' }],
  ['the heel as ceiling', { heelCheck: 'ceiling' }],
])('no pair passed over is better than the best one looked at: %s', (_, school) => {
  for (const stature of [1450, 1600, 1750, 1900, 2050]) {
    const q = question(stature, school)
    const top = Math.max(...everyPair(q).map((p) => p.chance))
    expect(bestPair(q, pairAt(q, heights[0], slides[0])).chance).toBeGreaterThanOrEqual(top - 0.03)
  }
})

test('on two rulers of 400 fine steps a few thousand places are looked at, not 160,000, and none is much better', () => {
  const ruler = (mmPerUnit: number, mmAtZero: number) => ({
    ruler: { min: 0, max: 399, resolution: 1, mmPerUnit, mmAtZero },
  })
  const { axes } = HOLES_BIKE
  const bikeType = {
    ...HOLES_BIKE,
    axes: {
      ...axes,
      seatHeight: { directionDeg: 107, scale: ruler(1, 0) },
      seatSlide: { directionDeg: 0, scale: ruler(0.2, -40) },
    },
  }
  const coarse = question(1700)
  let looks = 0
  const bothChance: SaddleQuestion['checks']['bothChance'] = (seat) => {
    looks++
    return coarse.checks.bothChance(seat)
  }
  const fine: SaddleQuestion = { ...coarse, bikeType, checks: { ...coarse.checks, bothChance } }
  const start = startPair(fine, { label: '200', mm: 0 })
  expect(looks).toBeLessThan(5000)
  expect(start.chance).toBeGreaterThanOrEqual(Math.max(...everyPair(coarse).map((p) => p.chance)) - 0.02)
})

test('a change goes to where both checks together are likeliest, not to the best knee beside a slide judged at the old height', () => {
  const q = question(1700)
  for (const [height, slide] of [
    [heights[4], slides[6]],
    [heights[12], slides[0]],
    [heights[9], slides[5]],
  ]) {
    const standing = pairAt(q, height, slide)
    const top = Math.max(...everyPair(q).map((p) => p.chance))
    expect(bestPair(q, standing).chance).toBeGreaterThanOrEqual(top - 0.03)
  }
})

test('the best pair stays; a pair only a sampling error better is not worth moving for', () => {
  const q = question(1700)
  const again = bestPair(q, startPair(q, middle))
  expect(bestPair(q, again)).toBe(again)
})

test('a slide moves the seat for the leg as a third of a height does (common practice 3:1), forward lower, with its sign', () => {
  const q = question(1700)
  const from = seatAt(q, heights[8], middle)
  const forward = legEffectMm(q, from, seatAt(q, heights[8], { label: '', mm: middle.mm + 30 }))
  expect(forward).toBeLessThan(-6)
  expect(forward).toBeGreaterThan(-13)
  expect(legEffectMm(q, from, seatAt(q, heights[9], middle))).toBeCloseTo(20, 0)
  expect(legEffectMm(q, from, seatAt(q, heights[7], middle))).toBeCloseTo(-20, 0)
})

test('the post ends where no mark is high or low enough for most; in between it has not ended', () => {
  const end = (statureMm: number) => {
    const q = question(statureMm)
    return heightEnd(q, startPair(q, middle))
  }
  expect(end(1700)).toBeNull()
  expect(end(2150)).toMatchObject({ axis: 'seatHeight', end: 'top', nearest: { label: '15' } })
  expect(end(2150)!.wantedMm).toBeGreaterThan(280)
  expect(end(1150)).toMatchObject({ end: 'bottom', nearest: { label: '1' } })
  expect(end(1150)!.wantedMm).toBeLessThan(0)
})

test('the slide ends where at every height that suits the knee it still hangs too far ahead, or behind, for most', () => {
  const onSlide = (mm: number): SaddleQuestion => {
    const marks = [
      { label: 'A', mm },
      { label: 'B', mm: mm + 10 },
    ]
    const bikeType = {
      ...HOLES_BIKE,
      axes: { ...HOLES_BIKE.axes, seatSlide: { directionDeg: 0, scale: { marks, halfMarks: false } } },
    }
    return { ...question(1700), bikeType }
  }
  const end = (mm: number) => {
    const q = onSlide(mm)
    return slideEnd(q, startPair(q, stopsOf(q.bikeType.axes.seatSlide.scale)[0]))
  }
  expect(end(0)).toBeNull()
  expect(end(60)).toMatchObject({ axis: 'seatSlide', end: 'rear', nearest: { label: 'A' } })
  expect(end(60)!.wantedMm).toBeLessThan(60)
  expect(end(-80)).toMatchObject({ axis: 'seatSlide', end: 'front', nearest: { label: 'B' } })
  expect(end(-80)!.wantedMm).toBeGreaterThan(-70)
})
