import { Matrix } from 'ml-matrix'
import { fitNormalScores, type NormalScores } from './normalScores'
import { SCORE_COUNT } from './particles'

/** A normal proposal over the standard scores, with the log determinant of its Cholesky factor. */
export type Proposal = NormalScores & Readonly<{ logDet: number }>

/** The prior itself: independent standard scores. */
export const PRIOR_PROPOSAL: Proposal = {
  mean: new Float64Array(SCORE_COUNT),
  root: Matrix.eye(SCORE_COUNT),
  logDet: 0,
}

/** The covariance is inflated by this beyond that of the particles it was fitted to, so that the tails are covered. */
const COVARIANCE_INFLATION = 1.15

/** log prior − log density of the proposal each particle was drawn from, up to a constant they share. */
export function logImportanceRatio(
  drawn: readonly Float64Array[],
  normals: readonly Float64Array[],
  { logDet }: Proposal,
  size: number,
): Float64Array {
  const sum = new Float64Array(size).fill(logDet)
  drawn.forEach((column, c) => {
    const normal = normals[c]
    for (let i = 0; i < size; i++) sum[i] += 0.5 * (normal[i] * normal[i] - column[i] * column[i])
  })
  return sum
}

/** The normal proposal with the mean and covariance of weighted particles, a little wider. */
export function fitProposal(drawn: readonly Float64Array[], weights: Float64Array): Proposal {
  const fitted = fitNormalScores(drawn, weights, COVARIANCE_INFLATION)
  return { ...fitted, logDet: fitted.root.diagonal().reduce((sum, d) => sum + Math.log(d), 0) }
}
