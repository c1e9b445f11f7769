import type { BikeType } from '../../../bikes/bike/bike'
import { contactPoints } from '../../../bikes/bike/contactPoints'
import type { Evidence } from '../../../riders/evidence/registry'
import { FRACTION_OF_STATURE as F } from '../../../riders/rider/anthropometry'
import type { School } from '../../../base/school/school'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { advise } from '../recommend'

const rider = (experience: 'new' | 'regular' | 'experienced'): Evidence[] => [{ kind: 'rider', experience }]
type Setting = { school?: Partial<School>; bikeType?: BikeType; statureMm?: number }
function advice(evidence: Evidence[], { school, bikeType = HOLES_BIKE, statureMm = 1700 }: Setting = {}) {
  const stature: Evidence = { kind: 'stature', mm: statureMm }
  return advise({ bikeType, school, evidence: [stature, ...evidence], samples: 1000 })
}
const bars = (evidence: Evidence[], setting: Setting = {}) => advice(evidence, setting).bars

test('the bars stand as near the middle of their window as the post’s marks allow', () => {
  for (const experience of ['new', 'regular', 'experienced'] as const) {
    const { gripAboveSeatMm, windowMm, fits } = bars(rider(experience))
    const lowest = Math.max(0, windowMm[0])
    expect(Math.abs(gripAboveSeatMm - (lowest + windowMm[1]) / 2)).toBeLessThanOrEqual(10)
    expect(fits).toBe(true)
  }
})

test('the stated height is what the tape would read: grip above the seat point', () => {
  const { marks, bars: advised } = advice(rider('regular'))
  const positions = { barHeight: advised.height.mm, seatHeight: 20 * (Number(marks.seatHeight) - 1), seatSlide: 0 }
  const { seat, grip } = contactPoints(HOLES_BIKE, undefined, positions)
  expect(grip.yMm - seat.yMm).toBeCloseTo(advised.gripAboveSeatMm, 9)
})

test('a post that ends too low gives its highest mark and states that it does not fit', () => {
  const marks = [
    { label: '1', mm: 0 },
    { label: '2', mm: 20 },
  ]
  const barHeight = { directionDeg: 90, scale: { marks, halfMarks: false } }
  const short: BikeType = { ...HOLES_BIKE, gripOrigin: { xMm: 400, yMm: 480 }, axes: { ...HOLES_BIKE.axes, barHeight } }
  expect(bars(rider('new'), { bikeType: short })).toMatchObject({ height: { label: '2' }, fits: false, chance: 0 })
})

test('without anything recorded of the rider the bars stay up', () => {
  expect(bars([])).toMatchObject({ posture: 'above', why: 'unknown' })
})

test('the latest word about the rider counts, health before a wish, a wish before experience', () => {
  const wish: Evidence = { kind: 'wish', posture: 'low' }
  const sore: Evidence = { kind: 'rider', experience: 'experienced', backSore: true }
  expect(bars([...rider('experienced'), sore])).toMatchObject({ posture: 'above', why: 'backSore' })
  expect(bars([sore, wish])).toMatchObject({ posture: 'above', why: 'backSore' })
  expect(bars([...rider('new'), wish])).toMatchObject({ posture: 'low', why: 'wish' })
  expect(bars([wish], { school: { bars: 'neverBelow' } })).toMatchObject({ posture: 'level', why: 'school' })
})

test('the slide follows the forearm: elbow at the nose, fingertips at the grip, within half a mark', () => {
  for (const statureMm of [1650, 1700, 1750]) {
    const { marks, bars: advised } = advice([], { statureMm })
    const { nose, grip } = contactPoints(HOLES_BIKE, undefined, {
      seatSlide: 10 * ('ABCDEFG'.indexOf(marks.seatSlide!) - 3),
      seatHeight: 20 * (Number(marks.seatHeight) - 1),
      barSlide: advised.slide!.mm,
    })
    const gapMm = grip.xMm - nose.xMm - (F.forearm + F.hand) * statureMm
    expect(Math.abs(gapMm - advised.forearmGapMm!)).toBeLessThan(6)
    expect(Math.abs(advised.forearmGapMm!)).toBeLessThanOrEqual(Math.abs(advised.slide!.mm) >= 40 ? 60 : 4)
  }
})

test('longer arms sit farther from the bars: by stature, and by a limb’s own length at one stature', () => {
  const slides = [1600, 1650, 1700, 1750].map((statureMm) => bars([], { statureMm }).slide!.mm)
  slides.slice(1).forEach((mm, i) => expect(mm).toBeGreaterThanOrEqual(slides[i] - 5))
  const arm = (mm: number): Evidence => ({ kind: 'segment', segment: 'arm', mm })
  expect(bars([arm(700)]).slide!.mm).toBeGreaterThan(bars([arm(620)]).slide!.mm)
})

test('a wish sets the reach by the trunk: upright nearer than level, level nearer than low', () => {
  const at = (posture: 'upright' | 'level' | 'low') => bars([{ kind: 'wish', posture }])
  const [upright, level, low] = (['upright', 'level', 'low'] as const).map(at)
  expect([upright, level, low].map((b) => b.reach.by)).toEqual(['trunk', 'trunk', 'trunk'])
  expect(upright.trunkDeg.mean).toBeGreaterThan(level.trunkDeg.mean)
  expect(level.trunkDeg.mean).toBeGreaterThan(low.trunkDeg.mean)
  expect(inWindow(upright.trunkDeg.mean, [60, 72])).toBe(true)
})

const inWindow = (v: number, [a, b]: readonly [number, number]) => v >= a && v <= b

test('without a slide the reach is only looked at; every bar mark has its chance', () => {
  const { seatHeight, seatSlide, barHeight } = HOLES_BIKE.axes
  const none = advice([], { bikeType: { ...HOLES_BIKE, axes: { seatHeight, seatSlide, barHeight } } })
  expect(none.bars.slide).toBeUndefined()
  expect(none.chances.barSlide).toBeUndefined()
  const { chances } = advice(rider('regular'))
  expect(chances.barHeight!.length).toBe(12)
  expect(chances.barSlide!.length).toBe(17)
  for (const { chance } of [...chances.barHeight!, ...chances.barSlide!]) {
    expect(chance).toBeGreaterThanOrEqual(0)
    expect(chance).toBeLessThanOrEqual(1)
  }
})

test('on a bar post that leans forward height and slide are chosen together: the higher, the nearer the slide', () => {
  const leaning: BikeType = {
    ...HOLES_BIKE,
    gripOrigin: { xMm: 320, yMm: 600 },
    axes: { ...HOLES_BIKE.axes, barHeight: { ...HOLES_BIKE.axes.barHeight, directionDeg: 65 } },
  }
  const reach = (experience: 'new' | 'regular') => bars(rider(experience), { bikeType: leaning })
  const [high, low] = [reach('new'), reach('regular')]
  expect(high.gripAboveSeatMm).toBeGreaterThan(low.gripAboveSeatMm)
  expect(high.slide!.mm).toBeLessThan(low.slide!.mm)
  for (const { forearmGapMm } of [high, low]) expect(Math.abs(forearmGapMm!)).toBeLessThanOrEqual(20)
})

test('where the rider chooses, the lowest and the highest within reason are both shown', () => {
  const { choices, posture } = bars(rider('regular'), { school: { bars: 'riderChooses' } })
  expect(posture).toBe('lowest')
  expect(choices!.low.gripAboveSeatMm).toBeGreaterThanOrEqual(-80)
  expect(choices!.high.gripAboveSeatMm).toBeLessThanOrEqual(100)
  expect(choices!.high.gripAboveSeatMm - choices!.low.gripAboveSeatMm).toBeGreaterThan(100)
})

test('with the saddle right, locked elbows bring the bars nearer, and only the bars', () => {
  const at = { seatHeight: '9', seatSlide: 'D', barHeight: '7', barSlide: '2' }
  const rows: Evidence[] = [
    { kind: 'inseam', mm: 820, shod: false },
    { kind: 'kneeAngle', deg: 30, by: 'goniometer', at },
    { kind: 'plumb', mm: 2, at },
    { kind: 'elbows', seen: 'locked', at },
    { kind: 'forearmGauge', gapMm: 45, at },
  ]
  const { next } = advice([...rider('regular'), ...rows])
  expect(next.kind).toBe('change')
  expect(next.moves.map((m) => m.axis)).not.toContain('seatHeight')
  expect(next.moves.find((m) => m.axis === 'barSlide')!.mm).toBeLessThan(0)
  expect(next.checks).toEqual(['barAgainstSaddle', 'reach', 'clearance'])
})
