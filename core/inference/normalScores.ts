import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { dot } from './weights'

/** A joint normal distribution over standard scores: mean, and lower Cholesky factor of its covariance. */
export type NormalScores = Readonly<{ mean: Float64Array; root: Matrix }>

/** Added to each variance, so that the factorization never fails on particles that all agree. */
const JITTER = 1e-6

/** Columns drawn from such a distribution, from columns of independent standard normals. */
export function drawFrom({ mean, root }: NormalScores, normals: readonly Float64Array[], size: number): Float64Array[] {
  const rows = root.to2DArray()
  return normals.map((_, r) => {
    const column = new Float64Array(size).fill(mean[r])
    for (let c = 0; c <= r; c++) addScaled(column, normals[c], rows[r][c])
    return column
  })
}

/** The one with the mean and covariance of weighted columns, the covariance times `inflation`. */
export function fitNormalScores(columns: readonly Float64Array[], weights: Float64Array, inflation = 1): NormalScores {
  const mean = Float64Array.from(columns, (column) => dot(weights, column))
  const centered = columns.map((column, c) => column.map((value) => value - mean[c]))
  const covariance = Matrix.zeros(columns.length, columns.length)
  for (let r = 0; r < columns.length; r++) {
    const weighted = centered[r].map((value, i) => value * weights[i])
    for (let c = 0; c <= r; c++) {
      const value = inflation * (dot(weighted, centered[c]) + (r === c ? JITTER : 0))
      covariance.set(r, c, value)
      covariance.set(c, r, value)
    }
  }
  return { mean, root: new CholeskyDecomposition(covariance).lowerTriangularMatrix }
}

/**
 * The same with some scores independent of all others, with mean 0 and variance 1 again: what is not the rider's own.
 */
export function withIndependent({ mean, root }: NormalScores, scores: readonly number[]): NormalScores {
  const covariance = root.mmul(root.transpose())
  const fresh = Float64Array.from(mean)
  for (const s of scores) {
    for (let c = 0; c < fresh.length; c++) {
      covariance.set(s, c, s === c ? 1 : 0)
      covariance.set(c, s, s === c ? 1 : 0)
    }
    fresh[s] = 0
  }
  return { mean: fresh, root: new CholeskyDecomposition(covariance).lowerTriangularMatrix }
}

function addScaled(sum: Float64Array, column: Float64Array, factor: number): void {
  if (factor === 0) return
  for (let i = 0; i < sum.length; i++) sum[i] += factor * column[i]
}
