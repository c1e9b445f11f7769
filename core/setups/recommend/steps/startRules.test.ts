import { contactPoints } from '../../../bikes/bike/contactPoints'
import { FRACTION_OF_STATURE as F } from '../../../riders/rider/anthropometry'
import { HOLES_BIKE } from '../../../testing/meanRider'
import { startRuleMarks, type RuledBody } from './startRules'

/** The bike of holes as a ruler of millimetres, so that the rules can be read exactly. */
const MM_BIKE = {
  ...HOLES_BIKE,
  axes: {
    ...HOLES_BIKE.axes,
    seatHeight: {
      directionDeg: 107,
      scale: { ruler: { min: 0, max: 300, resolution: 1, mmPerUnit: 1, mmAtZero: 0 } },
    },
  },
}
const body = (statureMm: number): RuledBody => ({
  statureMm,
  inseamMm: F.inseam * statureMm,
  trochanterHeightMm: F.trochanterHeight * statureMm,
  hipCrestHeightMm: F.hipCrestHeight * statureMm,
  frontHipBoneHeightMm: F.frontHipBoneHeight * statureMm,
  soleMm: 10,
})
const rules = startRuleMarks(MM_BIKE, undefined, body(1700))
const lengths = (mm: number) => contactPoints(MM_BIKE, undefined, { seatHeight: mm, seatSlide: 0 })

test('0.883 × inseam from the axle, 109 % from the farthest pedal axle (Hamley & Thomas 1967; memory)', () => {
  const inseam = F.inseam * 1700
  expect(lengths(rules.factor0883.mm).lengths.saddleHeightMm).toBeCloseTo(0.883 * inseam, -0.3)
  // The post runs through the axle, so the pedal in line with it is a crank farther.
  expect(lengths(rules.percent109.mm).lengths.saddleHeightMm + 170).toBeCloseTo(1.09 * inseam, -0.3)
})

test('a landmark rule brings the saddle level with it, shod', () => {
  const top = (mm: number) => lengths(mm).seat.yMm + 300 - 10
  expect(Math.abs(top(rules.halfThigh.mm) - F.trochanterHeight * 1700)).toBeLessThan(1)
  expect(Math.abs(top(rules.hipCrest.mm) - F.hipCrestHeight * 1700)).toBeLessThan(1)
})

test('the hip crest comes out high, heel length low, half-way up lower than the thigh (common practice)', () => {
  expect(rules.hipCrest.mm).toBeGreaterThan(rules.percent109.mm + 20)
  expect(rules.heelLength.mm).toBeLessThan(rules.percent109.mm)
  expect(rules.halfThigh.mm).toBeLessThan(rules.raisedThigh.mm)
  expect(rules.between.mm).toBeLessThan(rules.hipCrest.mm)
})

test('outside the scale a rule ends at the scale’s end', () => {
  expect(startRuleMarks(MM_BIKE, undefined, body(2300)).hipCrest.mm).toBe(300)
})
