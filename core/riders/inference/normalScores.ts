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
    for (let c = 0; c <= r; c += 4) addFourScaled(column, normals, rows[r], c, r)
    return column
  })
}

/** The one with the mean and covariance of weighted columns, the covariance times `inflation`. */
export function fitNormalScores(columns: readonly Float64Array[], weights: Float64Array, inflation = 1): NormalScores {
  const mean = Float64Array.from(columns, (column) => dot(weights, column))
  const centered = columns.map((column, c) => shiftedBy(column, -mean[c]))
  const covariance = Matrix.zeros(columns.length, columns.length)
  for (let r = 0; r < columns.length; r++) {
    const weighted = timesEach(centered[r], weights)
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

/** Adds columns `c` to `c + 3` times their factors, none beyond `last`: four at a time, once through memory. */
function addFourScaled(
  sum: Float64Array,
  columns: readonly Float64Array[],
  factors: readonly number[],
  c: number,
  last: number,
): void {
  const factor = (k: number) => (k <= last ? factors[k] : 0)
  const [a, b, d, e] = [factor(c), factor(c + 1), factor(c + 2), factor(c + 3)]
  if (a === 0 && b === 0 && d === 0 && e === 0) return
  const column = (k: number) => columns[Math.min(k, last)]
  const [ca, cb, cd, ce] = [column(c), column(c + 1), column(c + 2), column(c + 3)]
  for (let i = 0; i < sum.length; i++) sum[i] += a * ca[i] + b * cb[i] + d * cd[i] + e * ce[i]
}

function shiftedBy(column: Float64Array, by: number): Float64Array {
  const shifted = new Float64Array(column.length)
  for (let i = 0; i < column.length; i++) shifted[i] = column[i] + by
  return shifted
}

function timesEach(column: Float64Array, factors: Float64Array): Float64Array {
  const product = new Float64Array(column.length)
  for (let i = 0; i < column.length; i++) product[i] = column[i] * factors[i]
  return product
}
