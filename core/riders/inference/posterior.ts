import { LRUCache } from 'lru-cache'
import { columnOf } from '../../base/columns'
import { createRng } from '../../base/rng'
import { logLikelihoods, type Likelihood } from './likelihood'
import { particlesFromScores, SCORE_COUNT, SHIFT_SCORES, type ModelInputs, type Particles } from './particles'
import { drawFrom, fitNormalScores, withIndependent, type NormalScores } from './normalScores'
import { fitProposal, logImportanceRatio, PRIOR_PROPOSAL, type Proposal } from './proposal'
import { effectiveSampleSize, nextExponent, normalizedWeights } from './weights'

/** Weighted particles; the weights sum to 1. */
export type Posterior = Readonly<{
  particles: Particles
  weights: Float64Array
  /** The independent standard scores the particles are made of, a column each. */
  drawn: readonly Float64Array[]
  effectiveSampleSize: number
  /** False where the iterations ran out before the likelihoods entered at full strength. */
  converged: boolean
}>

/** Iterations of moving the proposal; a set-up of ten rows needs three or four, contradicting rows twenty. */
const MAX_ITERATIONS = 24
/** An iteration may concentrate the weights down to this share of the particles before the proposal is moved. */
const MIN_ESS_SHARE = 0.3
/** Until the exponent reaches 1 the proposal is moved by this share of the particles, and by at least so many. */
const PILOT_SHARE = 0.25
const MIN_PILOT_PARTICLES = 1000

/**
 * The posterior of a rider by tempered adaptive importance sampling: seeded particles are drawn from a normal proposal
 * and weighed by prior × likelihood^exponent over the proposal's density, with the exponent as large as leaves enough
 * effective particles; the proposal is fitted to them and drawn from again. At exponent 1 every weight makes up exactly
 * for where its particle was drawn. Plain weighting of prior draws leaves a few dozen effective particles after three
 * sharp readings; with these, a third of them or more stay effective. Where rows contradict each other strongly the
 * exponent may not reach 1: the posterior is then that of the exponent reached, and not `converged`.
 *
 * `from` is the proposal to begin with, that of the first of the same likelihoods, which saves iterations.
 */
export function samplePosterior(
  inputs: ModelInputs,
  likelihoods: readonly Likelihood[],
  seed: number,
  count: number,
  from = PRIOR_PROPOSAL,
): Posterior {
  const normals = standardNormals(seed, count)
  const adapted =
    likelihoods.length === 0 ? { proposal: from, iterations: 0 } : adapt(inputs, likelihoods, normals, from)
  let { proposal } = adapted
  for (let iteration = adapted.iterations; ; iteration++) {
    const columns = rotatedColumns(normals, iteration, count)
    const { particles, exponent, weights, drawn } = weighParticles(inputs, likelihoods, proposal, columns)
    const converged = exponent === 1
    if (converged || iteration >= MAX_ITERATIONS)
      return { particles, weights, drawn, effectiveSampleSize: effectiveSampleSize(weights), converged }
    proposal = fitProposal(drawn, weights)
  }
}

/**
 * What a posterior knows of the rider as a person, for another set-up on another bike: the scores of the body, without
 * those of this bike's saddle offset.
 */
export function carryOverPrior({ carriedPrior }: ModelInputs, { drawn, weights }: Posterior): NormalScores {
  const scores = carriedPrior ? drawFrom(carriedPrior, drawn, weights.length) : drawn
  return withIndependent(fitNormalScores(scores, weights), SHIFT_SCORES)
}

/** The proposal that some likelihoods lead to: where a posterior of these and more of them may begin. */
export function adaptProposal(
  inputs: ModelInputs,
  likelihoods: readonly Likelihood[],
  seed: number,
  count: number,
  from = PRIOR_PROPOSAL,
): Proposal {
  return adapt(inputs, likelihoods, standardNormals(seed, count), from).proposal
}

/**
 * Moves the proposal with a share of the particles until the exponent reaches 1, and returns how many iterations that
 * took.
 */
function adapt(
  inputs: ModelInputs,
  likelihoods: readonly Likelihood[],
  normals: readonly Float64Array[],
  from: Proposal,
): Readonly<{ proposal: Proposal; iterations: number }> {
  const size = Math.min(normals[0].length, Math.max(MIN_PILOT_PARTICLES, PILOT_SHARE * normals[0].length))
  let proposal = from
  for (let iterations = 1; ; iterations++) {
    const columns = rotatedColumns(normals, iterations - 1, size)
    const { exponent, weights, drawn } = weighParticles(inputs, likelihoods, proposal, columns)
    proposal = fitProposal(drawn, weights)
    if (exponent === 1 || iterations === MAX_ITERATIONS) return { proposal, iterations }
  }
}

/** Particles drawn from a proposal, weighed with as large an exponent as leaves enough of them effective. */
function weighParticles(
  inputs: ModelInputs,
  likelihoods: readonly Likelihood[],
  proposal: Proposal,
  normals: readonly Float64Array[],
) {
  const size = normals[0].length
  const drawn = drawFrom(proposal, normals, size)
  const particles = particlesFromScores(inputs, drawn, size)
  const logRatio = logImportanceRatio(drawn, normals, proposal, size)
  for (const likelihood of likelihoods) {
    const logLikelihood = logLikelihoods(likelihood, particles)
    for (let i = 0; i < size; i++) logRatio[i] += logLikelihood[i]
  }
  const exponent = nextExponent(logRatio, MIN_ESS_SHARE * size)
  return { particles, drawn, exponent, weights: normalizedWeights(logRatio, exponent) }
}

/** Standard normals of recent seeds and counts: a set-up needs the same ones again, its history others. */
const recentNormals = new LRUCache<string, readonly Float64Array[]>({
  maxSize: 2_000_000,
  sizeCalculation: (columns) => columns.length * Math.max(1, columns[0].length),
})

/** Columns of standard normals: the same seed and count give the same. */
function standardNormals(seed: number, count: number): readonly Float64Array[] {
  const key = `${seed} ${count}`
  const cached = recentNormals.get(key)
  if (cached) return cached
  const rng = createRng(seed)
  const columns = Array.from({ length: SCORE_COUNT }, () => columnOf(count, rng.normal))
  recentNormals.set(key, columns)
  return columns
}

/**
 * The first `size` rows with every column given to another quantity: as good as new draws, so that a proposal is not
 * judged by the very numbers it was fitted to.
 */
const rotatedColumns = (columns: readonly Float64Array[], by: number, size: number): Float64Array[] =>
  columns.map((_, c) => columns[(c + by) % SCORE_COUNT].subarray(0, size))
