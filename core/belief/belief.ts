import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { logLikelihood, type Statement } from './statement'
import { randomFrom } from './random'
import { sampleAt, SCORES, type Sample, type Setting } from './sample'

/** Imagined riders and how much each counts; the weights sum to 1. */
export type Belief = Readonly<{ samples: readonly Sample[]; weights: Float64Array; effectiveSamples: number }>

export type Summary = Readonly<{ mean: number; sd: number }>

/** Rounds of moving the cloud toward the evidence; a set-up of ten rows needs three or four, contradicting rows twenty. */
const MOST_ROUNDS = 24
/** A round may concentrate the weights down to this share of the samples before the cloud is moved. */
const KEPT_SHARE = 0.3
/** The cloud is drawn this much wider than what it was fitted to, so that its tails are covered. */
const WIDENING = 1.15

type Cloud = Readonly<{ mean: Float64Array; root: Matrix; logDet: number }>

/**
 * Belief about a rider given statements: a seeded cloud of samples, moved toward the evidence step by step
 * (adaptive importance sampling: the likelihood is let in by a growing power, a normal cloud is fitted to the
 * weighted samples and drawn again, and every sample keeps the weight that makes up for where it was drawn).
 * Plain weighting of prior draws leaves a few dozen useful samples after three sharp readings; this keeps a
 * third of them or more. Where rows contradict each other beyond all reason the cloud may not get there; the belief
 * is then that of the power reached, and `doubtsAbout` points at the rows.
 */
export function believe(setting: Setting, statements: readonly Statement[], seed: number, count: number): Belief {
  const scores = standardScores(seed, count)
  let cloud: Cloud = { mean: new Float64Array(SCORES), root: Matrix.eye(SCORES), logDet: 0 }
  let power = statements.length === 0 ? 1 : 0
  for (let round = 0; ; round++) {
    const drawn = draw(cloud, scores, count)
    const samples = Array.from({ length: count }, (_, i) => sampleAt(setting, drawn, i * SCORES))
    const logFit = samples.map((sample) => statements.reduce((sum, s) => sum + logLikelihood(s, sample), 0))
    const logBase = samples.map((_, i) => logPriorOverCloud(drawn, scores, i, cloud))
    const settled = power === 1
    power = nextPower(logBase, logFit, power, KEPT_SHARE * count)
    const weights = normalised(logBase.map((base, i) => base + power * logFit[i]))
    const effectiveSamples = effective(weights)
    if (round >= MOST_ROUNDS || (power === 1 && (settled || effectiveSamples > 0.5 * count)))
      return { samples, weights, effectiveSamples }
    cloud = fitted(drawn, weights, count)
  }
}

/** Weighted mean and spread of a quantity. */
export function summary(belief: Belief, of: (sample: Sample) => number): Summary {
  const { samples, weights } = belief
  const values = new Float64Array(weights.length)
  let mean = 0
  for (let i = 0; i < weights.length; i++) {
    values[i] = of(samples[i])
    mean += weights[i] * values[i]
  }
  let variance = 0
  for (let i = 0; i < weights.length; i++) variance += weights[i] * (values[i] - mean) ** 2
  return { mean, sd: Math.sqrt(variance) }
}

/** Weighted median of a quantity: where a mean would be drawn off by a long tail. */
export function median(belief: Belief, of: (sample: Sample) => number): number {
  const { samples, weights } = belief
  const values = Float64Array.from(samples, of)
  const order = Uint32Array.from(values, (_, i) => i).sort((a, b) => values[a] - values[b])
  let sum = 0
  for (const i of order) {
    sum += weights[i]
    if (sum >= 0.5) return values[i]
  }
  return values[order[order.length - 1]]
}

/** The same seed and count give the same scores; the last table is kept, since a set-up asks again and again. */
let lastTable: { seed: number; count: number; scores: Float64Array } | null = null
function standardScores(seed: number, count: number): Float64Array {
  if (lastTable?.seed === seed && lastTable.count === count) return lastTable.scores
  const random = randomFrom(seed)
  const scores = Float64Array.from({ length: count * SCORES }, () => random.normal())
  lastTable = { seed, count, scores }
  return scores
}

function draw(cloud: Cloud, scores: Float64Array, count: number): Float64Array {
  const size = SCORES
  const drawn = new Float64Array(count * size)
  const root = cloud.root.to2DArray()
  for (let i = 0; i < count; i++) {
    for (let r = 0; r < size; r++) {
      let value = cloud.mean[r]
      for (let c = 0; c <= r; c++) value += root[r][c] * scores[i * size + c]
      drawn[i * size + r] = value
    }
  }
  return drawn
}

/** log prior − log density of the cloud it was drawn from, up to a shared constant. */
function logPriorOverCloud(drawn: Float64Array, scores: Float64Array, i: number, cloud: Cloud): number {
  const size = SCORES
  let sum = cloud.logDet
  for (let c = i * size; c < (i + 1) * size; c++) sum += 0.5 * (scores[c] * scores[c] - drawn[c] * drawn[c])
  return sum
}

/** The largest power of the likelihood that leaves `least` effective samples, or most of those there were. */
function nextPower(logBase: number[], logFit: number[], last: number, least: number): number {
  const left = (power: number) => effective(normalised(logBase.map((base, i) => base + power * logFit[i])))
  const floor = Math.min(least, 0.7 * left(last))
  const enough = (power: number) => left(power) >= floor
  if (last === 1 || enough(1)) return 1
  let low = last
  let high = 1
  for (let step = 0; step < 12; step++) {
    const middle = (low + high) / 2
    if (enough(middle)) low = middle
    else high = middle
  }
  return low
}

function fitted(drawn: Float64Array, weights: Float64Array, count: number): Cloud {
  const size = SCORES
  const mean = new Float64Array(size)
  for (let i = 0; i < count; i++) for (let c = 0; c < size; c++) mean[c] += weights[i] * drawn[i * size + c]
  const spread = new Float64Array(size * size)
  const off = new Float64Array(size)
  for (let i = 0; i < count; i++) {
    for (let c = 0; c < size; c++) off[c] = drawn[i * size + c] - mean[c]
    for (let r = 0; r < size; r++) for (let c = 0; c <= r; c++) spread[r * size + c] += weights[i] * off[r] * off[c]
  }
  const covariance = Matrix.zeros(size, size)
  for (let r = 0; r < size; r++) {
    for (let c = 0; c <= r; c++) {
      const value = WIDENING * (spread[r * size + c] + (r === c ? 1e-6 : 0))
      covariance.set(r, c, value)
      covariance.set(c, r, value)
    }
  }
  const root = new CholeskyDecomposition(covariance).lowerTriangularMatrix
  return { mean, root, logDet: root.diagonal().reduce((sum, d) => sum + Math.log(d), 0) }
}

function normalised(logWeights: number[]): Float64Array {
  let top = -Infinity
  for (const w of logWeights) if (w > top) top = w
  const weights = new Float64Array(logWeights.length)
  let sum = 0
  for (let i = 0; i < weights.length; i++) sum += weights[i] = Math.exp(logWeights[i] - top)
  for (let i = 0; i < weights.length; i++) weights[i] /= sum
  return weights
}

function effective(weights: Float64Array): number {
  let squares = 0
  for (const w of weights) squares += w * w
  return 1 / squares
}
