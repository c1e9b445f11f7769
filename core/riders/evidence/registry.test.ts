import { likelihoodOf, type Evidence } from './registry'
import { DEFAULT_SCHOOL } from '../../base/school/school'
import { holesContext, holesInputs } from '../../testing/modelInputs'
import { logLikelihoods } from '../inference/likelihood'
import { particlesFromScores, SCORE_COUNT, type Particles } from '../inference/particles'
import type { ReadingContext } from './definition/defineKind'
import { landmarkHeightMm } from './definition/landmarks'

const mean: Particles = particlesFromScores(
  holesInputs({ statureMm: { mean: 1700, sd: 88 } }),
  Array.from({ length: SCORE_COUNT }, () => Float64Array.of(0)),
  1,
)
const seen = holesContext(160)
const toLikelihood = (row: Evidence, more: Partial<ReadingContext> = {}) => likelihoodOf(row, { ...seen, ...more })!
const likely = (row: Evidence) => logLikelihoods(toLikelihood(row), mean)[0]

test(
  'the mean rider has the table’s heights: crest 0.604, front bone 0.565, trochanter 0.530 ' +
    'of stature, between half-way',
  () => {
    const heights = (['hipCrest', 'frontHipBone', 'trochanter', 'between'] as const).map(
      (l) => landmarkHeightMm(mean.body, l)[0] / 1700,
    )
    expect(heights.map((h) => h.toFixed(3))).toEqual(['0.604', '0.565', '0.530', '0.567'])
  },
)

test('a reading is likeliest where the body truly is', () => {
  const inseam = (mm: number) => likely({ kind: 'inseam', mm, shod: false })
  expect(inseam(0.482 * 1700)).toBeGreaterThan(inseam(0.482 * 1700 + 8))
  expect(inseam(0.482 * 1700) - inseam(0.482 * 1700 + 8)).toBeCloseTo(0.5, 6)
})

test('taken in shoes, the sole is part of the reading', () => {
  expect(likely({ kind: 'inseam', mm: 830, shod: true })).toBeCloseTo(
    likely({ kind: 'inseam', mm: 820, shod: false }),
    9,
  )
  expect(likely({ kind: 'landmarkHeight', landmark: 'hipCrest', mm: 1040, shod: true })).toBeCloseTo(
    likely({ kind: 'landmarkHeight', landmark: 'hipCrest', mm: 1030, shod: false }),
    9,
  )
})

test('a landmark at a mark: landmark + sole = seat y + axle height, read as coarsely as the marks are', () => {
  const likelihood = toLikelihood({ kind: 'landmarkAtMark', landmark: 'hipCrest' })
  if (likelihood.form !== 'gaussian') throw new Error('not a reading')
  const height = likelihood.value + (landmarkHeightMm(mean.body, 'hipCrest')[0] - likelihood.quantity(mean)[0])
  expect(height).toBeCloseTo(seen.contact.seat.yMm + 300 - 10, 6)
  expect(likelihood.sd).toBeCloseTo(Math.hypot(12, 20 / Math.sqrt(12)), 6)
  expect(toLikelihood({ kind: 'landmarkAtMark', landmark: 'hipCrest' }, { spacingMm: 5 })).toMatchObject({
    sd: expect.closeTo(Math.hypot(12, 5 / Math.sqrt(12)), 6),
  })
})

test('what the eye and the heel can see covers every case: the chances of the answers add up to one', () => {
  const eye = (['locked', 'slightBend', 'deepBend'] as const).map((s) =>
    Math.exp(likely({ kind: 'kneeByEye', seen: s })),
  )
  const heel = (['justStraight', 'stillBent', 'cannotReach'] as const).map((s) =>
    Math.exp(likely({ kind: 'heelCheck', seen: s })),
  )
  expect(eye.reduce((a, b) => a + b)).toBeCloseTo(1, 9)
  expect(heel.reduce((a, b) => a + b)).toBeCloseTo(1, 9)
})

test('at a good height the eye mostly sees a slight bend, and hardly ever calls it locked well above', () => {
  expect(Math.exp(likely({ kind: 'kneeByEye', seen: 'slightBend' }))).toBeGreaterThan(0.7)
  const high = logLikelihoods(toLikelihood({ kind: 'kneeByEye', seen: 'deepBend' }, holesContext(220)), mean)[0]
  expect(Math.exp(high)).toBeLessThan(0.01)
})

test('an impossible sight keeps a smallest chance, so that contradictions stay comparable', () => {
  const low = logLikelihoods(toLikelihood({ kind: 'kneeByEye', seen: 'locked' }, holesContext(-200)), mean)[0]
  expect(Number.isFinite(low)).toBe(true)
})

test('what was done and who the rider is are no evidence about the body; an unused heel check is silent', () => {
  expect(likelihoodOf({ kind: 'set' }, seen)).toBeNull()
  expect(likelihoodOf({ kind: 'rider', experience: 'new' }, seen)).toBeNull()
  expect(
    likelihoodOf(
      { kind: 'heelCheck', seen: 'stillBent' },
      { ...seen, school: { ...DEFAULT_SCHOOL, heelCheck: 'unused' } },
    ),
  ).toBeNull()
})
