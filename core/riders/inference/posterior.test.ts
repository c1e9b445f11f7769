import jstat from 'jstat'
import { MEASUREMENT_SD } from '../../base/measurementNoise'
import { holesInputs } from '../../testing/modelInputs'
import { momentsOf } from './moments'
import { samplePosterior } from './posterior'
import { normalCdf, createRng } from '../../base/rng'
import { gaussian, orderedProbit } from './likelihood'

const setting = holesInputs()

test('with no evidence the belief is the prior', () => {
  const { mean, sd } = momentsOf(samplePosterior(setting, [], 1, 4000), (s) => s.body.statureMm)
  expect(Math.abs(mean - 1690)).toBeLessThan(5)
  expect(Math.abs(sd - 88)).toBeLessThan(3)
})

test('one reading of a normal quantity gives the textbook posterior (normal prior, normal reading)', () => {
  const read = 1800
  const { mean, sd } = momentsOf(
    samplePosterior(setting, [gaussian(read, MEASUREMENT_SD.statureMm, (s) => s.body.statureMm)], 1, 4000),
    (s) => s.body.statureMm,
  )
  const precision = 1 / 88 ** 2 + 1 / MEASUREMENT_SD.statureMm ** 2
  expect(mean).toBeCloseTo((1690 / 88 ** 2 + read / MEASUREMENT_SD.statureMm ** 2) / precision, 0)
  expect(sd).toBeCloseTo(Math.sqrt(1 / precision), 0)
})

test('repeating a sharp reading ten times keeps a useful number of samples and narrows as the square root', () => {
  const rows = Array.from({ length: 10 }, () => gaussian(1850, MEASUREMENT_SD.statureMm, (s) => s.body.statureMm))
  const posterior = samplePosterior(setting, rows, 1, 4000)
  expect(posterior.effectiveSampleSize).toBeGreaterThan(1200)
  expect(momentsOf(posterior, (s) => s.body.statureMm).sd).toBeCloseTo(MEASUREMENT_SD.statureMm / Math.sqrt(10), 0)
})

test('a category bounds: "taller than 1800" leaves almost nobody below 1780', () => {
  const taller = orderedProbit({ from: 1800, to: Infinity }, 5, (s) => s.body.statureMm)
  const posterior = samplePosterior(setting, [taller], 1, 4000)
  const below = momentsOf(posterior, (s) => s.body.statureMm.map((mm) => (mm < 1780 ? 1 : 0))).mean
  expect(below).toBeLessThan(0.005)
  const { mean } = momentsOf(posterior, (s) => s.body.statureMm)
  // Mean of a normal cut off at z: mu + sd · pdf(z)/(1 − cdf(z)).
  const z = (1800 - 1690) / 88
  const cut = 1690 + (88 * Math.exp((-z * z) / 2)) / Math.sqrt(2 * Math.PI) / (1 - normalCdf(z))
  expect(Math.abs(mean - cut)).toBeLessThan(4)
})

test('the same seed gives the same samples, another seed others', () => {
  const of = (seed: number) => momentsOf(samplePosterior(setting, [], seed, 500), (s) => s.body.statureMm).mean
  expect(of(3)).toBe(of(3))
  expect(of(3)).not.toBe(of(4))
})

test('weights sum to one, also for readings that contradict each other beyond reason', () => {
  const posterior = samplePosterior(
    setting,
    [gaussian(1400, 10, (s) => s.body.statureMm), gaussian(2000, 10, (s) => s.body.statureMm)],
    1,
    1000,
  )
  expect(posterior.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
  expect(momentsOf(posterior, (s) => s.body.statureMm).mean).toBeCloseTo(1700, -1)
})

test('the normal draws have the quartiles of the standard normal, by the statistics library’s percentiles', () => {
  const random = createRng(7)
  const draws = Array.from({ length: 20_000 }, () => random.normal())
  expect(jstat.jStat.percentile(draws, 0.25)).toBeCloseTo(-0.6745, 1)
  expect(jstat.jStat.percentile(draws, 0.975)).toBeCloseTo(1.96, 1)
})

test('the seeds 0, 1, 2 … are as good as any: their first numbers spread evenly and do not follow each other', () => {
  const first = Array.from({ length: 2000 }, (_, seed) => createRng(seed).uniform())
  const second = first.slice(1)
  const mean = first.reduce((a, b) => a + b, 0) / first.length
  expect(Math.abs(mean - 0.5)).toBeLessThan(4 * Math.sqrt(1 / 12 / first.length))
  const tenths = Array.from({ length: 10 }, (_, t) => first.filter((u) => Math.floor(10 * u) === t).length)
  tenths.forEach((count) => expect(Math.abs(count - 200)).toBeLessThan(4 * Math.sqrt(200)))
  const together = second.reduce((sum, u, i) => sum + (u - 0.5) * (first[i] - 0.5), 0) / second.length
  expect(Math.abs(12 * together)).toBeLessThan(0.1)
})
