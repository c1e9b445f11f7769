import { recommend } from '../../operations/requests/recommend'
import type { Evidence } from '../../riders/evidence/registry'
import { seatedAt, contactPoints } from '../../bikes/bike/contactPoints'
import { shorterLegDeg } from '../../riders/kinematics/leg'
import { HOLES_BIKE as bikeType } from '../../testing/meanRider'
import type { RecommendRequest } from './request/request'

const tape: Evidence[] = [
  { kind: 'stature', mm: 1750 },
  { kind: 'inseam', mm: 830, shod: false },
]
const at = { seatHeight: '9', seatSlide: 'D' }
const ask = (limits: RecommendRequest['limits'], ...rows: Evidence[]) =>
  recommend({ bikeType, limits, evidence: [...tape, ...rows], samples: 2000 })
const knee = (side: 'left' | 'right', deg: number): Evidence => ({
  kind: 'kneeAngle',
  deg,
  by: 'goniometer',
  side,
  at,
})
const SHORTER = { shorterLeg: { side: 'left', mm: 12 } } as const

test('a leg 8 mm shorter bends about 4° less: the law of cosines worked out both ways', () => {
  const [thigh, shank] = [420, 425]
  const span = (deg: number) => Math.sqrt(thigh ** 2 + shank ** 2 + 2 * thigh * shank * Math.cos((deg * Math.PI) / 180))
  const deg = shorterLegDeg(8, thigh, shank)
  // To the first order, since the leg bends by half of it to either side.
  expect(Math.abs(span(30 - deg) - span(30) - 8)).toBeLessThan(0.8)
  expect(deg).toBeGreaterThan(3.5)
  expect(deg).toBeLessThan(4.5)
  expect(shorterLegDeg(-8, thigh, shank)).toBeCloseTo(-deg, 9)
})

test('with a leg known to be shorter, a look at the other one leaves this one lower: the seat suits both', () => {
  const seen = knee('right', 27)
  const [known, unknown] = [ask(SHORTER, seen), ask({}, seen)]
  // The right knee's 27° leave the shorter left leg at about 21°, outside of its window.
  const chance = ({ chances }: typeof known) => chances.seatHeight!.find(({ label }) => label === '9')!.chance
  expect(chance(known)).toBeLessThan(chance(unknown) - 0.2)
  expect(known.next.because.join(' ')).toMatch(
    /The left leg is 12 mm shorter: each knee .* left one bends some 6° less/,
  )
  expect(unknown.next.because.join(' ')).not.toMatch(/shorter/)
})

test('knees that differ as the legs do are no doubt; those that differ the other way are', () => {
  const [less, more] = [knee('left', 24), knee('right', 36)]
  const codes = (limits: RecommendRequest['limits'], ...rows: Evidence[]) =>
    ask(limits, ...rows).doubts.filter(({ say }) => /left|right|leg|side/i.test(say)).length
  expect(codes({}, less, more)).toBeGreaterThan(0)
  expect(codes(SHORTER, less, more)).toBe(0)
  const swapped = { shorterLeg: { side: 'right', mm: 12 } } as const
  expect(codes(swapped, less, more)).toBeGreaterThan(0)
})

test('behind the saddle’s middle the seat point goes back, up by a nose that points down, and the nose stays', () => {
  const marks = { seatHeight: 100, seatSlide: 0 }
  const middle = contactPoints(bikeType, undefined, marks)
  const behind = contactPoints(seatedAt(bikeType, { tiltDeg: -3 }, -15), undefined, marks)
  expect(behind.seat.xMm - middle.seat.xMm).toBeCloseTo(-15 * Math.cos((3 * Math.PI) / 180), 6)
  expect(behind.seat.yMm - middle.seat.yMm).toBeCloseTo(15 * Math.sin((3 * Math.PI) / 180), 6)
  expect(behind.nose.xMm).toBeCloseTo(middle.nose.xMm, 6)
  expect(seatedAt(bikeType, { tiltDeg: -3, tiltAcross: 'frontHalf' }, -15).seatOrigin.yMm).toBe(bikeType.seatOrigin.yMm)
  expect(seatedAt(bikeType, undefined, undefined)).toBe(bikeType)
})

test('who sits 20 mm behind the middle gets the slide 20 mm farther forward, and is told where it was measured', () => {
  const [behind, middle] = [ask({ sitsAtMm: -20 }), ask({})]
  const slideMm = ({ marks }: typeof behind) => 10 * 'ABCDEFG'.indexOf(marks.seatSlide!)
  expect(slideMm(behind) - slideMm(middle)).toBe(20)
  expect(behind.belief.plumbOffsetMm.mean).toBeCloseTo(middle.belief.plumbOffsetMm.mean, 1)
  expect(behind.next.because.join(' ')).toMatch(/Measured where the rider sits, 20 mm behind the saddle’s middle/)
})

test('on an own cover of 20 mm the seat goes a hole of 20 mm lower, and it is put on before anything is read', () => {
  const [covered, plain] = [ask({ ownSaddleMm: 20 }), ask({})]
  expect(Number(plain.marks.seatHeight) - Number(covered.marks.seatHeight)).toBe(1)
  expect(covered.next.because.join(' ')).toMatch(/own saddle or cover on, 20 mm higher than the bike’s/)
})
