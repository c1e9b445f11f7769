import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { columnOf } from '../columns'
import { logLikelihoods, type Statement } from './statement'
import { randomFrom } from './random'
import { samplesAt, SCORES, type Samples, type Setting } from './sample'

/** Where standard scores are drawn from: a normal distribution in all of them together. */
export type Cloud = Readonly<{ mean: Float64Array; root: Matrix; logDet: number }>

/** Imagined riders and how much each counts; the weights sum to 1. */
export type Belief = Readonly<{
  samples: Samples
  weights: Float64Array
  effectiveSamples: number
  /** False where the rounds ran out before all that was said could be let in. */
  settled: boolean
}>

export type Summary = Readonly<{ mean: number; sd: number }>

/** Rounds of moving the cloud toward the evidence; a set-up of ten rows needs three or four, contradicting rows twenty. */
const MOST_ROUNDS = 24
/** A round may concentrate the weights down to this share of the samples before the cloud is moved. */
const KEPT_SHARE = 0.3
/** Until the cloud has arrived it is moved by this share of the samples, and by at least so many. */
const FEW_SHARE = 0.25
const FEWEST = 1000
/** The cloud is drawn this much wider than what it was fitted to, so that its tails are covered. */
const WIDENING = 1.15

/** The prior itself: independent standard scores. */
const PRIOR_CLOUD: Cloud = { mean: new Float64Array(SCORES), root: Matrix.eye(SCORES), logDet: 0 }

/**
 * Belief about a rider given statements: a seeded cloud of samples, moved toward the evidence step by step
 * (adaptive importance sampling: from the cloud's density toward the posterior by as large a power as leaves enough
 * samples; a normal cloud is fitted to the weighted samples and drawn again, and at power 1 every sample's weight makes
 * up exactly for where it was drawn). Plain weighting of prior draws leaves a few dozen useful samples after three sharp
 * readings; this keeps a third of them or more. Where rows contradict each other beyond all reason the cloud may not get
 * there in its rounds: the belief is then that of the power reached, and not `settled`.
 *
 * `from` is where to begin, the cloud of a belief in the first of the same statements, which saves rounds.
 */
export function believe(
  setting: Setting,
  statements: readonly Statement[],
  seed: number,
  count: number,
  from = PRIOR_CLOUD,
): Belief {
  const table = standardScores(seed, count)
  const arrived = statements.length === 0 ? { cloud: from, rounds: 0 } : approach(setting, statements, table, from)
  let { cloud } = arrived
  for (let round = arrived.rounds; ; round++) {
    const { samples, power, weights, drawn } = look(setting, statements, cloud, turned(table, round, count))
    const effectiveSamples = effective(weights)
    const settled = power === 1
    if (settled || round >= MOST_ROUNDS) return { samples, weights, effectiveSamples, settled }
    cloud = fitted(drawn, weights)
  }
}

/** The cloud that some statements lead to: where a belief in these and more of them may begin. */
export function cloudOf(
  setting: Setting,
  statements: readonly Statement[],
  seed: number,
  count: number,
  from = PRIOR_CLOUD,
): Cloud {
  return approach(setting, statements, standardScores(seed, count), from).cloud
}

/** Moves the cloud by a share of the samples until it has arrived; `rounds` is how many that took. */
function approach(setting: Setting, statements: readonly Statement[], table: readonly Float64Array[], from: Cloud) {
  const size = Math.min(table[0].length, Math.max(FEWEST, FEW_SHARE * table[0].length))
  let cloud = from
  for (let rounds = 1; ; rounds++) {
    const { power, weights, drawn } = look(setting, statements, cloud, turned(table, rounds - 1, size))
    cloud = fitted(drawn, weights)
    if (power === 1 || rounds === MOST_ROUNDS) return { cloud, rounds }
  }
}

/** Samples drawn from a cloud, weighed toward the posterior by as large a power as leaves enough of them. */
function look(setting: Setting, statements: readonly Statement[], cloud: Cloud, scores: readonly Float64Array[]) {
  const size = scores[0].length
  const drawn = draw(cloud, scores, size)
  const samples = samplesAt(setting, drawn, size)
  const logGain = logPriorOverCloud(drawn, scores, cloud, size)
  for (const statement of statements) addTo(logGain, logLikelihoods(statement, samples))
  const power = nextPower(logGain, KEPT_SHARE * size)
  return { samples, drawn, power, weights: normalised(logGain, power) }
}

/** Weighted mean and spread of a quantity of the samples. */
export function summary({ samples, weights }: Belief, of: (samples: Samples) => Float64Array): Summary {
  const values = of(samples)
  let mean = 0
  for (let i = 0; i < weights.length; i++) mean += weights[i] * values[i]
  let variance = 0
  for (let i = 0; i < weights.length; i++) variance += weights[i] * (values[i] - mean) ** 2
  return { mean, sd: Math.sqrt(variance) }
}

/** Weighted median of a quantity of the samples: where a mean would be drawn off by a long tail. */
export function median({ samples, weights }: Belief, of: (samples: Samples) => Float64Array): number {
  const values = of(samples)
  const order = Uint32Array.from(values, (_, i) => i).sort((a, b) => values[a] - values[b])
  let sum = 0
  for (const i of order) {
    sum += weights[i]
    if (sum >= 0.5) return values[i]
  }
  return values[order[order.length - 1]]
}

/** Columns of standard scores: the same seed and count give the same. The last is kept, since a set-up asks again. */
let lastTable: { seed: number; count: number; columns: readonly Float64Array[] } | null = null
function standardScores(seed: number, count: number): readonly Float64Array[] {
  if (lastTable?.seed === seed && lastTable.count === count) return lastTable.columns
  const random = randomFrom(seed)
  const columns = Array.from({ length: SCORES }, () => columnOf(count, random.normal))
  lastTable = { seed, count, columns }
  return columns
}

/**
 * The table's first `size` rows with every column given to another quantity: as good as drawn anew, so that a cloud is
 * not judged by the very numbers it was fitted to.
 */
const turned = (table: readonly Float64Array[], round: number, size: number): Float64Array[] =>
  table.map((_, c) => table[(c + round) % SCORES].subarray(0, size))

function draw({ mean, root }: Cloud, scores: readonly Float64Array[], size: number): Float64Array[] {
  const rows = root.to2DArray()
  return scores.map((_, r) => {
    const column = new Float64Array(size).fill(mean[r])
    for (let c = 0; c <= r; c++) addTimes(column, scores[c], rows[r][c])
    return column
  })
}

/** log prior − log density of the cloud each sample was drawn from, up to a shared constant. */
function logPriorOverCloud(
  drawn: readonly Float64Array[],
  scores: readonly Float64Array[],
  { logDet }: Cloud,
  size: number,
): Float64Array {
  const sum = new Float64Array(size).fill(logDet)
  drawn.forEach((column, c) => {
    const score = scores[c]
    for (let i = 0; i < size; i++) sum[i] += 0.5 * (score[i] * score[i] - column[i] * column[i])
  })
  return sum
}

function addTimes(sum: Float64Array, more: Float64Array, factor: number): void {
  if (factor === 0) return
  for (let i = 0; i < sum.length; i++) sum[i] += factor * more[i]
}

function addTo(sum: Float64Array, more: Float64Array): void {
  for (let i = 0; i < sum.length; i++) sum[i] += more[i]
}

/** The largest power of what is gained over the cloud that leaves `least` effective samples. */
function nextPower(logGain: Float64Array, least: number): number {
  const enough = (power: number) => effective(normalised(logGain, power)) >= least
  if (enough(1)) return 1
  let low = 0
  let high = 1
  for (let step = 0; step < 12; step++) {
    const middle = (low + high) / 2
    if (enough(middle)) low = middle
    else high = middle
  }
  return low
}

/** The normal cloud with the mean and spread of weighted samples, a little wider. */
function fitted(drawn: readonly Float64Array[], weights: Float64Array): Cloud {
  const mean = Float64Array.from(drawn, (column) => dot(weights, column))
  const off = drawn.map((column, c) => column.map((value) => value - mean[c]))
  const covariance = Matrix.zeros(SCORES, SCORES)
  for (let r = 0; r < SCORES; r++) {
    const weighted = off[r].map((value, i) => value * weights[i])
    for (let c = 0; c <= r; c++) {
      const value = WIDENING * (dot(weighted, off[c]) + (r === c ? 1e-6 : 0))
      covariance.set(r, c, value)
      covariance.set(c, r, value)
    }
  }
  const root = new CholeskyDecomposition(covariance).lowerTriangularMatrix
  return { mean, root, logDet: root.diagonal().reduce((sum, d) => sum + Math.log(d), 0) }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}

/** Weights in proportion to exp(power · log weight), summing to 1. */
function normalised(logWeights: Float64Array, power: number): Float64Array {
  let top = -Infinity
  for (const w of logWeights) if (w > top) top = w
  const weights = new Float64Array(logWeights.length)
  let sum = 0
  for (let i = 0; i < weights.length; i++) sum += weights[i] = Math.exp(power * (logWeights[i] - top))
  for (let i = 0; i < weights.length; i++) weights[i] /= sum
  return weights
}

function effective(weights: Float64Array): number {
  let squares = 0
  for (const w of weights) squares += w * w
  return 1 / squares
}
