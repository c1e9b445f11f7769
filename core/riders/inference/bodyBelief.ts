import { Type } from '@sinclair/typebox'
import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { closed, oneOf, type Plain } from '../../base/schema'
import { PRIOR_PARTS, type PriorPart, type PriorVector } from '../rider/prior'
import type { NormalScores } from './normalScores'
import { SCORE_COUNT } from './particles'

const PARTS = PRIOR_PARTS.length
const TRIANGLE = (PARTS * (PARTS + 1)) / 2

/**
 * What is believed of a body, whoever believes it: means and covariance of the parts of a prior, in the order of
 * `PRIOR_PARTS` and in their units; the covariance as its lower triangle, row by row. `foot`: how the foot was ridden.
 */
export const bodyBeliefSchema = closed({
  foot: oneOf(['natural', 'level']),
  mean: Type.Array(Type.Number({ minimum: -1e5, maximum: 1e5 }), { minItems: PARTS, maxItems: PARTS }),
  covariance: Type.Array(Type.Number({ minimum: -1e9, maximum: 1e9 }), { minItems: TRIANGLE, maxItems: TRIANGLE }),
})
export type BodyBelief = Plain<typeof bodyBeliefSchema>

/** Significant digits that are written: far below any spread, and short enough for a code. */
const [MEAN_DIGITS, COVARIANCE_DIGITS] = [6, 5]
const rounded = (value: number, digits: number): number => Number(value.toPrecision(digits))

/** The belief that scores of a prior amount to. */
export function bodyBelief({ mean, root }: NormalScores, prior: PriorVector, foot: BodyBelief['foot']): BodyBelief {
  const scores = root.mmul(root.transpose())
  const { means, sds } = prior
  return {
    foot,
    mean: means.map((m, k) => rounded(m + sds[k] * mean[k], MEAN_DIGITS)),
    covariance: means.flatMap((_, r) =>
      Array.from({ length: r + 1 }, (__, c) => rounded(sds[r] * sds[c] * scores.get(r, c), COVARIANCE_DIGITS)),
    ),
  }
}

/** Standard deviation of what has changed about a rider since, mm along the seat's axes. */
export type Widening = Readonly<{ seatHeight: number; seatSlide: number }>

/** Parts in which a change since acts millimetre for millimetre on height and slide of the seat. */
const CARRIES: Readonly<Record<keyof Widening, PriorPart>> = {
  seatHeight: 'tissueCompressionMm',
  seatSlide: 'patellaAheadMm',
}
/** Parts that depend on how a school has the foot ridden. */
const OF_THE_FOOT: readonly PriorPart[] = ['bottomPitchDeg', 'forwardPitchDeg']
/** Relative jitter of the diagonal: digits are lost in writing. */
const JITTER = 1e-4

/**
 * Scores of a prior from a belief, widened by what may have changed since: a joint normal distribution to carry on
 * from. Where the foot is ridden otherwise, its pitch is that of the prior. Null where the belief is no distribution.
 */
export function scoresFromBelief(
  { foot, mean, covariance }: BodyBelief,
  prior: PriorVector,
  priorFoot: BodyBelief['foot'],
  widening: Widening,
): NormalScores | null {
  const { means, sds } = prior
  const at = (r: number, c: number) => covariance[(Math.max(r, c) * (Math.max(r, c) + 1)) / 2 + Math.min(r, c)]
  const isFresh = (k: number) => k >= PARTS || (foot !== priorFoot && OF_THE_FOOT.includes(PRIOR_PARTS[k]))
  const scores = Matrix.eye(SCORE_COUNT)
  const centre = new Float64Array(SCORE_COUNT)
  for (let r = 0; r < PARTS; r++) {
    if (isFresh(r)) continue
    centre[r] = (mean[r] - means[r]) / sds[r]
    for (let c = 0; c < PARTS; c++)
      if (!isFresh(c)) scores.set(r, c, (at(r, c) / (sds[r] * sds[c])) * (r === c ? 1 + JITTER : 1))
  }
  for (const [axis, part] of Object.entries(CARRIES) as [keyof Widening, PriorPart][]) {
    const k = PRIOR_PARTS.indexOf(part)
    scores.set(k, k, scores.get(k, k) + (widening[axis] / sds[k]) ** 2)
  }
  const cholesky = new CholeskyDecomposition(scores)
  return cholesky.isPositiveDefinite() ? { mean: centre, root: cholesky.lowerTriangularMatrix } : null
}
