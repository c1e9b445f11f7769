import type { Evidence } from '../../../riders/evidence/registry'
import { recommend } from '../../../operations/requests/recommend'
import { HOLES_BIKE as bikeType } from '../../../testing/meanRider'

const at = { seatHeight: '9', seatSlide: 'D' }
const body: Evidence[] = [
  { kind: 'stature', mm: 1700 },
  { kind: 'inseam', mm: 820, shod: false },
  { kind: 'plumb', mm: 12, at },
]
const gonio = (deg: number, more: object = {}): Evidence => ({ kind: 'kneeAngle', deg, by: 'goniometer', at, ...more })
const slipOf = (...evidence: Evidence[]) => {
  const { doubts } = recommend({ bikeType, evidence: [...body, ...evidence], samples: 2000 })
  return doubts.flatMap((d) => (d.code === 'contradicts' && d.slip ? [[d.evidence, d.slip] as const] : []))
}

test('what goes together has no slip', () => {
  expect(slipOf(gonio(33))).toEqual([])
})

test('a landmark no such body has needs a confirmation: another spot', () => {
  const trochanter = 901
  const slips = slipOf(gonio(33), { kind: 'landmarkHeight', landmark: 'hipCrest', mm: trochanter, shod: false })
  expect(slips).toContainEqual([4, 'otherLandmark'])
})

test('a heel taken for the ball needs a confirmation', () => {
  const low = { at: { seatHeight: '7', seatSlide: 'D' } }
  const foot: Evidence = { kind: 'footPitch', deg: 14, ...low }
  const slips = slipOf(gonio(33), foot, gonio(49, low), gonio(29, { by: 'gauge', ...low }))
  expect(slips).toContainEqual([6, 'heelForBall'])
})

test('locked by eye and 45° at one mark is reported, stored, and the posterior stays stable', () => {
  const answer = recommend({
    bikeType,
    evidence: [...body, gonio(45), { kind: 'kneeByEye', seen: 'locked', at }],
    samples: 2000,
  })
  expect(answer.doubts.some((d) => d.code === 'contradicts')).toBe(true)
  expect(Number.isFinite(answer.belief.kneeFlexionDeg.mean)).toBe(true)
  expect(answer.belief.effectiveSamples).toBeGreaterThan(200)
})

test('a pelvis that rocks one way is reported as such, and the height is not changed for it', () => {
  const without = recommend({ bikeType, evidence: [...body, gonio(30)], samples: 1000 })
  const rocks = recommend({
    bikeType,
    evidence: [...body, gonio(30), { kind: 'rocking', seen: 'left', at }],
    samples: 1000,
  })
  expect(rocks.doubts.map((d) => d.code)).toEqual(['rocksOneWay'])
  expect(rocks.doubts[0].say).toMatch(/one side only/)
  expect(rocks.belief.kneeFlexionDeg.mean).toBeCloseTo(without.belief.kneeFlexionDeg.mean, 0)
})

test('words that differ from left to right are reported, never averaged silently', () => {
  const eye = (side: 'left' | 'right', seen: 'locked' | 'deepBend'): Evidence => ({ kind: 'kneeByEye', seen, side, at })
  const { doubts } = recommend({ bikeType, evidence: [...body, eye('left', 'locked'), eye('right', 'deepBend')] })
  expect(doubts.map((d) => d.code)).toContain('sidesDiffer')
})
