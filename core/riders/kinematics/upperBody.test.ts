import fc from 'fast-check'
import { bodyFromScores, columnsOf, PRIOR_PARTS, priorFor, priorVectorOf, type Body } from '../rider/prior'
import { FRACTION_OF_STATURE as F } from '../rider/anthropometry'
import { contactAt, CRANK, meanRider } from '../../testing/meanRider'
import { heelFlexionDeg, heelReachDeficitMm, prepareLeg, prepareLegs } from './leg'
import { poseAt } from './pose'
import {
  forearmGapMm,
  forearmShare,
  prepareUpperBodies,
  reachExcessMm,
  standingClearanceMm,
  trunkAngleDeg,
  trunkShare,
} from './upperBody'

const table = priorVectorOf(priorFor('natural'))
const meanBody = (statureMm: number): Body => {
  const prior = priorFor('natural', { statureMm: { mean: statureMm, sd: 0 } })
  return bodyFromScores(priorVectorOf(prior), new Float64Array(PRIOR_PARTS.length))
}
const upperOf = (body: Body) => {
  const bodies = columnsOf(body)
  return prepareUpperBodies(bodies, prepareLegs(bodies, 10, CRANK, 163))
}
const scores = fc.array(fc.double({ min: -2, max: 2, noNaN: true }), {
  minLength: PRIOR_PARTS.length,
  maxLength: PRIOR_PARTS.length,
})

test('the model’s own figures: trunk 64.7, 61.4, 58.1° at reach 620, 660, 700, and some 7° more 80 mm higher', () => {
  const upper = upperOf(meanBody(1700))
  const trunk = (reach: number, above = 0) => {
    const { seat, grip } = contactAt(715, reach, above)
    return trunkAngleDeg(upper, seat, grip, 0)
  }
  expect([620, 660, 700].map((r) => Number(trunk(r).toFixed(1)))).toEqual([64.7, 61.4, 58.1])
  expect(trunk(660, 80) - trunk(660)).toBeGreaterThan(6)
  expect(trunk(660, 80) - trunk(660)).toBeLessThan(8)
})

test('the quick trunk and the full pose agree, for any body', () => {
  fc.assert(
    fc.property(scores, fc.double({ min: 560, max: 700, noNaN: true }), (drawn, reach) => {
      const body = bodyFromScores(table, drawn)
      const { seat, grip } = contactAt(0.42 * body.statureMm, reach)
      const pose = poseAt({ ...meanRider(1700), ...body, footPitchDeg: 15 }, { seat, grip }, CRANK, 163)
      if (pose.outcome === 'posed')
        expect(trunkAngleDeg(upperOf(body), seat, grip, 0)).toBeCloseTo(pose.trunkAngleDeg, 6)
    }),
  )
})

test('a share of riders is what counting them one by one gives', () => {
  const upper = upperOf(meanBody(1700))
  const one = Float64Array.of(1)
  const { seat, grip } = contactAt(715, 660)
  const deg = trunkAngleDeg(upper, seat, grip, 0)
  expect(trunkShare(upper, [deg - 0.01, deg + 0.01], one)(seat, grip)).toBe(1)
  expect(trunkShare(upper, [deg + 0.01, deg + 5], one)(seat, grip)).toBe(0)
  expect(trunkShare(upper, [deg - 5, deg - 0.01], one)(seat, grip)).toBe(0)
  const gap = forearmGapMm(upper, seat, grip, 0)
  expect(forearmShare(upper, [gap - 1, gap + 1], one)(seat, grip)).toBe(1)
  expect(forearmShare(upper, [gap + 1, gap + 9], one)(seat, grip)).toBe(0)
})

test('the forearm gauge reads elbow to fingertips; farther bars stretch and clear the standing knees', () => {
  const upper = upperOf(meanBody(1700))
  const { seat, grip } = contactAt(715, 660)
  const nose = { xMm: seat.xMm + 150, yMm: seat.yMm }
  expect(forearmGapMm(upper, nose, grip, 0)).toBeCloseTo(660 - 150 - (F.forearm + F.hand) * 1700, 6)
  const far = { ...grip, xMm: grip.xMm + 30 }
  expect(reachExcessMm(upper, seat, far, 0)).toBeGreaterThan(reachExcessMm(upper, seat, grip, 0) + 15)
  expect(standingClearanceMm(upper, seat, far, 150, 0)).toBeGreaterThan(
    standingClearanceMm(upper, seat, grip, 150, 0) + 5,
  )
})

test('heel on the pedal: just straight is 0°, and 30° on the heel is some 45 to 50° on the ball (model notes)', () => {
  const body = meanBody(1700)
  const leg = prepareLeg(body, 10, CRANK, 163)
  let height = 750
  while (heelReachDeficitMm(leg, contactAt(height).seat) > 0) height -= 0.5
  expect(heelFlexionDeg(leg, contactAt(height).seat)).toBeLessThan(6)
  while (heelFlexionDeg(leg, contactAt(height).seat) < 30) height -= 0.5
  const pose = poseAt(meanRider(1700, 10), contactAt(height), CRANK, 163)
  expect(pose.outcome).toBe('posed')
  if (pose.outcome === 'posed') {
    expect(pose.kneeFlexionDeg).toBeGreaterThan(44)
    expect(pose.kneeFlexionDeg).toBeLessThan(51)
  }
})
