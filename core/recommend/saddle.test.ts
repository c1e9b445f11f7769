import { believe } from '../belief/belief'
import { priorFor, tableOf } from '../rider/prior'
import { nearestStop, stopsOf, type Stop } from '../scale/scale'
import { schoolOf, type School } from '../school/school'
import { HOLES_BIKE } from '../testing/meanRider'
import { bestHeight, bestPair, pairAt, scaleEnd, seatAt, type SaddleQuestion } from './saddle'
import { saddleChecks } from './windows'

const setting = { bikeType: HOLES_BIKE, prior: tableOf(priorFor('natural')), soleMm: 10 }
const ofStature = (mm: number) => believe(setting, [{ form: 'reading', read: mm, sd: 10, of: (s) => s.body.statureMm }], 1, 2000)
const question = (statureMm: number, school: Partial<School> = {}, plumbTaken = false): SaddleQuestion => ({
  bikeType: HOLES_BIKE, school: schoolOf(school), checks: saddleChecks(ofStature(statureMm), schoolOf(school)), plumbTaken,
})
const heights = stopsOf(HOLES_BIKE.axes.seatHeight.scale)
const middle = nearestStop(HOLES_BIKE.axes.seatSlide.scale, 0)
const at = (q: SaddleQuestion, height: Stop) => seatAt(q, height, middle)

test('at every mark a rider’s knee is right, too low or too high: the three chances sum to 1', () => {
  for (const school of [{}, { heelCheck: 'target' }, { heelCheck: 'ceiling' }, { kneeWindowDeg: [30, 35] as const }] as Partial<School>[]) {
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

test('the best height is a brute-force search over the marks', () => {
  const q = question(1700)
  const chances = heights.map((height) => q.checks.kneeChance(at(q, height)))
  expect(bestHeight(q, middle).chance).toBe(Math.max(...chances))
})

test('the best mark stays; a pair only a sampling error better is not worth moving for', () => {
  const q = question(1700)
  const best = bestHeight(q, middle)
  const again = bestPair(q, best)
  expect(again === best || again.chance > best.chance + 0.01).toBe(true)
  expect(bestPair(q, again)).toBe(again)
})

test('the scale ends where no mark is high or low enough for most; in between it has not ended', () => {
  const end = (statureMm: number) => {
    const q = question(statureMm)
    return scaleEnd(q, pairAt(q, bestHeight(q, middle).height, middle))
  }
  expect(end(1700)).toBeNull()
  expect(end(2150)).toMatchObject({ end: 'top', nearest: { label: '15' } })
  expect(end(2150)!.wantedMm).toBeGreaterThan(280)
  expect(end(1150)).toMatchObject({ end: 'bottom', nearest: { label: '1' } })
  expect(end(1150)!.wantedMm).toBeLessThan(0)
})
