import { samplePosterior } from '../../../riders/inference/posterior'
import { likelihoodOf, type Evidence } from '../../../riders/evidence/registry'
import { holesContext, holesInputs } from '../../../testing/modelInputs'
import { detectAnomalies } from './anomalies'

const setting = holesInputs()
const seen = holesContext(160)

function anomalies(...evidence: Evidence[]) {
  const likelihoods = evidence.map((row) => likelihoodOf(row, seen))
  const posterior = samplePosterior(
    setting,
    likelihoods.filter((s) => s !== null),
    1,
    2000,
  )
  return detectAnomalies(evidence, likelihoods, posterior)
}
const stature = (mm: number): Evidence => ({ kind: 'stature', mm })
const inseam = (mm: number): Evidence => ({ kind: 'inseam', mm, shod: false })

test('what goes together raises no doubt; what was done is no evidence about the body', () => {
  expect(anomalies(stature(1700), inseam(820), { kind: 'set', at: { seatHeight: '8' } })).toEqual([])
})

test('two tapes that disagree are both named', () => {
  expect(anomalies(stature(1700), stature(1850)).map((d) => [d.evidence, d.code])).toEqual([
    [0, 'contradicts'],
    [1, 'contradicts'],
  ])
})

test('a category the readings leave no room for is named', () => {
  const goniometer: Evidence[] = [36, 36, 36].map((deg) => ({ kind: 'kneeAngle', deg, by: 'goniometer' }))
  expect(anomalies(...goniometer, { kind: 'kneeByEye', seen: 'locked' })).toContainEqual({
    evidence: 3,
    code: 'contradicts',
  })
  expect(anomalies(...goniometer, { kind: 'kneeByEye', seen: 'slightBend' })).toEqual([])
})

test('an inseam is rare beyond some three spreads of its share of stature, either way', () => {
  const codes = (mm: number) => anomalies(stature(1700), inseam(mm)).filter((d) => d.code === 'unusualInseam').length
  expect([1700 * 0.41, 1700 * 0.43, 1700 * 0.54, 1700 * 0.56].map(codes)).toEqual([1, 0, 0, 1])
})
