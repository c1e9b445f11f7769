import fc from 'fast-check'
import { createRng } from '../../base/rng'
import { bodyFromScores, PRIOR_PARTS, priorFor, priorVectorOf, type Body } from '../rider/prior'
import { contactAt, CRANK, meanRider } from '../../testing/meanRider'
import {
  bottomFlexionDeg,
  heelReachDeficitMm,
  hipToAnkleSquared,
  prepareLeg,
  kneeOverPedalMm,
  squaredAtFlexion,
} from './leg'
import { poseAt, type Rider } from './pose'

const BOTTOM = 163
const table = priorVectorOf(priorFor('natural'))
const scores = fc.array(fc.double({ min: -2.5, max: 2.5, noNaN: true }), {
  minLength: PRIOR_PARTS.length,
  maxLength: PRIOR_PARTS.length,
})

/** The same body as the linkage sees one. */
const riderOf = (body: Body, footPitchDeg: number): Rider => ({
  ...meanRider(body.statureMm),
  ...body,
  soleMm: 10,
  footPitchDeg,
})
const legOf = (body: Body) => prepareLeg(body, 10, CRANK, BOTTOM)

/** The mean body with a fixed foot pitch at the bottom. */
function meanBody(statureMm: number, bottomPitchDeg: number): Body {
  const prior = priorFor('natural', {
    statureMm: { mean: statureMm, sd: 0 },
    bottomPitchDeg: { mean: bottomPitchDeg, sd: 0 },
  })
  return bodyFromScores(priorVectorOf(prior), new Float64Array(PRIOR_PARTS.length))
}

/** Saddle height at which a falling quantity crosses zero, found by halving. */
function crossing(of: (saddleHeightMm: number) => number): number {
  let [low, high] = [500, 1000]
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if (of(middle) < 0) low = middle
    else high = middle
  }
  return low
}

test('the quick leg and the full pose agree on the knee at the bottom and on the plumb offset, for any body', () => {
  fc.assert(
    fc.property(scores, fc.double({ min: 0.36, max: 0.42, noNaN: true }), (drawn, share) => {
      const body = bodyFromScores(table, drawn)
      const contact = contactAt(share * body.statureMm, 620)
      const bottom = poseAt(riderOf(body, body.bottomPitchDeg), contact, CRANK, BOTTOM)
      if (bottom.outcome === 'posed')
        expect(bottomFlexionDeg(legOf(body), contact.seat)).toBeCloseTo(bottom.kneeFlexionDeg, 6)
      const forward = poseAt(riderOf(body, body.forwardPitchDeg), contact, CRANK, 90)
      if (forward.outcome === 'posed')
        expect(kneeOverPedalMm(legOf(body), contact.seat)).toBeCloseTo(forward.plumbOffsetMm, 6)
    }),
  )
})

test('a knee angle and its hip–ankle distance are two names of one thing', () => {
  fc.assert(
    fc.property(scores, fc.double({ min: 1, max: 120, noNaN: true }), (drawn, deg) => {
      const leg = legOf(bodyFromScores(table, drawn))
      const far = Math.sqrt(squaredAtFlexion(leg, deg))
      const seat = { xMm: leg.bottomAnkleXMm[0], yMm: leg.bottomAnkleYMm[0] + far - leg.hipAboveSeatMm[0] }
      expect(hipToAnkleSquared(leg, seat)).toBeCloseTo(far * far, 4)
      expect(bottomFlexionDeg(leg, seat)).toBeCloseTo(deg, 5)
    }),
  )
})

describe('heel check, mean rider of 1700 mm', () => {
  const justStraight = (pitch: number) =>
    crossing((height) => heelReachDeficitMm(legOf(meanBody(1700, pitch)), contactAt(height).seat))

  test('just straight at 701 mm, whatever the foot’s own pitch (trade notes)', () => {
    for (const pitch of [0, 5, 10, 15, 20]) expect(Math.abs(justStraight(pitch) - 701)).toBeLessThan(0.6)
  })

  test.each([
    [5, 33],
    [10, 36],
    [15, 39],
    [20, 41],
  ])('at pitch %i° it leaves the knee at %i°: low, as the literature on it reports', (pitch, deg) => {
    const flexion = bottomFlexionDeg(legOf(meanBody(1700, pitch)), contactAt(justStraight(pitch)).seat)
    expect(Math.abs(flexion - deg)).toBeLessThan(0.6)
  })
})

test('109 % lands near the window on average, single riders fall out on both sides (Peveler; memory)', () => {
  const random = createRng(3)
  const flexion = Array.from({ length: 200 }, () => {
    const body = bodyFromScores(
      table,
      PRIOR_PARTS.map(() => random.normal()),
    )
    // From the pedal axle at its farthest, in line with the post: the crank's length less from the crank axle.
    return bottomFlexionDeg(legOf(body), contactAt(1.09 * body.inseamMm - 170).seat)
  })
  const mean = flexion.reduce((a, b) => a + b, 0) / flexion.length
  expect(mean).toBeGreaterThan(20)
  expect(mean).toBeLessThan(35)
  const share = (out: (deg: number) => boolean) => flexion.filter(out).length / flexion.length
  expect(share((deg) => deg < 25)).toBeGreaterThan(0.05)
  expect(share((deg) => deg > 35)).toBeGreaterThan(0.05)
})

test('30° at mid slide hangs the knee 11 to 16 mm ahead of the axle over statures 1550 to 1950 (trade notes)', () => {
  for (const stature of [1550, 1700, 1850, 1950]) {
    const leg = legOf(meanBody(stature, 15))
    const height = crossing((h) => 30 - bottomFlexionDeg(leg, contactAt(h).seat))
    const plumb = kneeOverPedalMm(leg, contactAt(height).seat)
    expect(plumb).toBeGreaterThan(10.5)
    expect(plumb).toBeLessThan(16.5)
  }
})

test('sliding back by 30 mm lifts as raising by some 10 (common practice 3:1, no source)', () => {
  const leg = legOf(meanBody(1700, 15))
  const { seat } = contactAt(715)
  const back = bottomFlexionDeg(leg, { xMm: seat.xMm - 30, yMm: seat.yMm })
  const raised = crossing((h) => back - bottomFlexionDeg(leg, contactAt(h).seat)) - 715
  expect(raised).toBeGreaterThan(6)
  expect(raised).toBeLessThan(13)
})

test('beyond the leg’s reach the angle goes on falling instead of breaking off', () => {
  const leg = legOf(meanBody(1500, 15))
  const angles = [700, 720, 740, 760].map((height) => bottomFlexionDeg(leg, contactAt(height).seat))
  angles.slice(1).forEach((angle, i) => expect(angle).toBeLessThan(angles[i]))
  expect(angles.at(-1)).toBeLessThan(0)
})
