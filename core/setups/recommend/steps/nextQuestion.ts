import type { ContactPoints } from '../../../bikes/bike/contactPoints'
import type { BikeType } from '../../../bikes/bike/bike'
import { LEG_AXES } from '../../../base/adjustments'
import { agreeOn, type Marks } from '../../../base/conventions'
import type { ReadingContext } from '../../../riders/evidence/definition/defineKind'
import { likelihoodOf, type Evidence } from '../../../riders/evidence/registry'
import { intervalProbability, type SingleLikelihood } from '../../../riders/inference/likelihood'
import type { Posterior } from '../../../riders/inference/posterior'
import { normalQuantile } from '../../../base/rng'
import { spacingMm } from '../../../bikes/scale/scale'
import { DEFAULT_COSTS_S, QUESTIONS, type Costs, type Question } from '../request/questionCosts'
import { candidatePositions, type SaddleSearch } from '../saddle/saddleSearch'

/**
 * A check or measurement with its value: `gain` is the expected increase in the chance of the best mark after the
 * answer, `worthS` the seconds of dismounts saved minus its own duration.
 */
export type QuestionValue = Readonly<{ question: Question; gain: number; costS: number; worthS: number }>

/** Answers of a reading that are imagined, and particles looked at. */
const ANSWERS = 9
const MAX_PARTICLES = 1200
/**
 * Places whose chance is below this share of the best one's are not looked at: hardly an answer lifts them above it.
 */
const MIN_SHARE = 0.1
const MAX_PLACES = 30

export type QuestionInputs = Readonly<{
  search: SaddleSearch
  posterior: Posterior
  evidence: readonly Evidence[]
  /** Positions of the axes at each row, and current or proposed ones. */
  at: readonly Marks[]
  marks: Marks
  context: Omit<ReadingContext, 'contact' | 'spacingMm'>
  contact: ContactPoints
  /** The rider is in the saddle: what is done beside the bike would cost a dismount. */
  started: boolean
  costs?: Costs
}>

/** The rows a question may be answered with: one for a reading, whose value does not matter, or one for each word. */
const ROWS: Readonly<Record<Question, readonly Evidence[]>> = {
  hipCrestAtMark: [{ kind: 'landmarkAtMark', landmark: 'hipCrest' }],
  frontHipBoneAtMark: [{ kind: 'landmarkAtMark', landmark: 'frontHipBone' }],
  stature: [{ kind: 'stature', mm: 1700 }],
  inseam: [{ kind: 'inseam', mm: 800, shod: false }],
  trochanterHeight: [{ kind: 'landmarkHeight', landmark: 'trochanter', mm: 900, shod: false }],
  thigh: [{ kind: 'segment', segment: 'thigh', mm: 400 }],
  shank: [{ kind: 'segment', segment: 'shank', mm: 400 }],
  footPitch: [{ kind: 'footPitch', deg: 10 }],
  goniometer: [{ kind: 'kneeAngle', deg: 30, by: 'goniometer' }],
  plumb: [{ kind: 'plumb', mm: 0 }],
  kneeByEye: (['locked', 'slightBend', 'deepBend'] as const).map((seen) => ({ kind: 'kneeByEye', seen })),
  heelCheck: (['justStraight', 'stillBent', 'cannotReach'] as const).map((seen) => ({ kind: 'heelCheck', seen })),
  rocking: (['level', 'both'] as const).map((seen) => ({ kind: 'rocking', seen, foot: 'ball' })),
  plumbByEye: (['behindAnkle', 'midFoot', 'overAxle', 'aheadOfAxle', 'pastToes'] as const).map((seen) => ({
    kind: 'plumbByEye',
    seen,
  })),
}
const IN_THE_SADDLE: ReadonlySet<Question> = new Set([
  'footPitch',
  'goniometer',
  'plumb',
  'kneeByEye',
  'heelCheck',
  'rocking',
  'plumbByEye',
])
/** An answer closes its question, and every question with the same content and lower precision. */
const SHARPER: Partial<Record<Question, Question>> = { kneeByEye: 'goniometer', plumbByEye: 'plumb' }

/**
 * All possible questions, most valuable first: preposterior analysis over the particles (the expected value of sample
 * information; Raiffa & Schlaifer 1961, from memory). Simulates an answer, reweights the particles, and compares the
 * best mark then with the best mark now.
 */
export function questionValues(inputs: QuestionInputs): QuestionValue[] {
  const { posterior, costs } = inputs
  const sample = thinned(posterior)
  const withinMatrix = withinTargets(inputs, sample)
  const base = bestChance(withinMatrix, sample.weights)
  const dismountS = costs?.dismount ?? DEFAULT_COSTS_S.dismount
  return QUESTIONS.filter((question) => isOpen(question, inputs))
    .flatMap((question): QuestionValue[] => {
      const likelihoods = likelihoodsOf(question, inputs)
      if (likelihoods.length === 0) return []
      const costS = costs?.[question] ?? DEFAULT_COSTS_S[question]
      const gain = Math.max(0, expectedBest(likelihoods, inputs, sample, withinMatrix) - base)
      return [{ question, gain, costS, worthS: gain * dismountS - costS }]
    })
    .sort((a, b) => b.worthS - a.worthS)
}

function isOpen(question: Question, { evidence, at, marks, started, search }: QuestionInputs): boolean {
  if (IN_THE_SADDLE.has(question) !== started) return false
  if (question.startsWith('plumb') && search.school.foreAft === 'unused') return false
  const answered = (other: Question) =>
    evidence.some((row, i) => {
      const [sample] = ROWS[other]
      const named = (field: string) =>
        (row as Record<string, unknown>)[field] === (sample as Record<string, unknown>)[field]
      if (row.kind !== sample.kind || !named('landmark') || !named('segment')) return false
      return !started || agreeOn(LEG_AXES, at[i], marks)
    })
  const sharper = SHARPER[question]
  return !answered(question) && !(sharper && answered(sharper))
}

const stepOf = (bikeType: BikeType): number => spacingMm(bikeType.axes.seatHeight.scale)

const likelihoodsOf = (question: Question, { context, contact }: QuestionInputs): readonly SingleLikelihood[] =>
  ROWS[question].flatMap((row) => {
    const likelihood = likelihoodOf(row, { ...context, contact, spacingMm: stepOf(context.bikeType) })
    return likelihood ? [likelihood] : []
  })

/** A share of the particles, evenly taken, with weights that sum to 1 again. */
type Sample = Readonly<{ index: Int32Array; weights: Float64Array }>

function thinned({ weights }: Posterior): Sample {
  const stride = Math.max(1, Math.ceil(weights.length / MAX_PARTICLES))
  const index = Int32Array.from({ length: Math.floor(weights.length / stride) }, (_, k) => k * stride)
  const thinnedWeights = Float64Array.from(index, (i) => weights[i])
  const sum = thinnedWeights.reduce((a, b) => a + b, 0)
  return { index, weights: thinnedWeights.map((w) => w / sum) }
}

/** For each candidate position and particle, whether knee and plumb line both pass. */
function withinTargets({ search }: QuestionInputs, { index }: Sample): readonly Uint8Array[] {
  const candidates = candidatePositions(search)
  const enough = MIN_SHARE * Math.max(...candidates.map((c) => c.chance))
  return [...candidates]
    .filter((c) => c.chance >= enough)
    .sort((a, b) => b.chance - a.chance)
    .slice(0, MAX_PLACES)
    .map(({ seat }) => search.targets.bothWithin(seat, index))
}

function bestChance(rows: readonly Uint8Array[], weights: Float64Array): number {
  let best = 0
  for (const row of rows) {
    let sum = 0
    for (let k = 0; k < weights.length; k++) if (row[k]) sum += weights[k]
    if (sum > best) best = sum
  }
  return best
}

/** The chance of the best place once the question is answered, over all it may be answered with. */
function expectedBest(
  likelihoods: readonly SingleLikelihood[],
  { posterior }: QuestionInputs,
  { index, weights }: Sample,
  rows: readonly Uint8Array[],
): number {
  const all = likelihoods[0].quantity(posterior.particles)
  const values = Float64Array.from(index, (i) => all[i])
  const weighed = new Float64Array(values.length)
  let total = 0
  let expected = 0
  for (const probability of answersOf(likelihoods, values, weights)) {
    for (let k = 0; k < values.length; k++) weighed[k] = weights[k] * probability(values[k])
    let sum = 0
    for (let k = 0; k < values.length; k++) sum += weighed[k]
    const best = bestChance(rows, weighed)
    // Of an imagined reading each answer counts alike; of words, by how likely it is.
    expected += likelihoods[0].form === 'gaussian' ? best / Math.max(sum, 1e-300) : best
    total += likelihoods[0].form === 'gaussian' ? 1 : sum
  }
  return expected / total
}

type Probability = (value: number) => number

function answersOf(
  likelihoods: readonly SingleLikelihood[],
  values: Float64Array,
  weights: Float64Array,
): readonly Probability[] {
  const [first] = likelihoods
  if (first.form === 'gaussian') {
    const { sd } = first
    return quantilesOf(values, weights, ANSWERS).map((value, k) => {
      // Each middle of an equal share of what is believed, read with an error from another equal share of all errors.
      const read = value + sd * normalQuantile(((k * ERROR_STEP) % ANSWERS) / ANSWERS + 0.5 / ANSWERS)
      return (at) => Math.exp(-0.5 * ((read - at) / sd) ** 2)
    })
  }
  return likelihoods.flatMap((one) =>
    one.form === 'orderedProbit' ? [(at: number) => intervalProbability(one, at, one.sd)] : [],
  )
}

/** Without a common factor with `ANSWERS`, so that every error goes with one answer. */
const ERROR_STEP = 4

function quantilesOf(values: Float64Array, weights: Float64Array, count: number): number[] {
  const order = Uint32Array.from(values, (_, k) => k).sort((a, b) => values[a] - values[b])
  const found: number[] = []
  let sum = 0
  for (const k of order) {
    sum += weights[k]
    while (found.length < count && sum >= (found.length + 0.5) / count) found.push(values[k])
  }
  while (found.length < count) found.push(values[order[order.length - 1]])
  return found
}
