import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { SCORE_COUNT } from './particles'
import { dot } from './weights'

/**
 * A normal proposal over the standard scores: mean, lower Cholesky factor of its covariance, log determinant of that.
 */
export type Proposal = Readonly<{ mean: Float64Array; root: Matrix; logDet: number }>

/** The prior itself: independent standard scores. */
export const PRIOR_PROPOSAL: Proposal = {
  mean: new Float64Array(SCORE_COUNT),
  root: Matrix.eye(SCORE_COUNT),
  logDet: 0,
}

/** The covariance is inflated by this beyond that of the particles it was fitted to, so that the tails are covered. */
const COVARIANCE_INFLATION = 1.15
/** Added to each variance, so that the factorization never fails on particles that all agree. */
const JITTER = 1e-6

/** Columns drawn from a proposal, from columns of independent standard normals. */
export function drawFrom({ mean, root }: Proposal, normals: readonly Float64Array[], size: number): Float64Array[] {
  const rows = root.to2DArray()
  return normals.map((_, r) => {
    const column = new Float64Array(size).fill(mean[r])
    for (let c = 0; c <= r; c++) addScaled(column, normals[c], rows[r][c])
    return column
  })
}

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
  const mean = Float64Array.from(drawn, (column) => dot(weights, column))
  const centered = drawn.map((column, c) => column.map((value) => value - mean[c]))
  const covariance = Matrix.zeros(SCORE_COUNT, SCORE_COUNT)
  for (let r = 0; r < SCORE_COUNT; r++) {
    const weighted = centered[r].map((value, i) => value * weights[i])
    for (let c = 0; c <= r; c++) {
      const value = COVARIANCE_INFLATION * (dot(weighted, centered[c]) + (r === c ? JITTER : 0))
      covariance.set(r, c, value)
      covariance.set(c, r, value)
    }
  }
  const root = new CholeskyDecomposition(covariance).lowerTriangularMatrix
  return { mean, root, logDet: root.diagonal().reduce((sum, d) => sum + Math.log(d), 0) }
}

function addScaled(sum: Float64Array, column: Float64Array, factor: number): void {
  if (factor === 0) return
  for (let i = 0; i < sum.length; i++) sum[i] += factor * column[i]
}
