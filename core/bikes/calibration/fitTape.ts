import { axisPositions } from '../bike/contactPoints'
import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import type { BikeType } from '../bike/bike'
import { initialParameters, priorWeights, lengthAt, type Parameters } from './parameters'
import type { Observation } from './readings'

/** Parameters that explain the readings, what they leave over (read − fitted, mm), and how sure each combination is. */
export type TapeFit = Readonly<{
  parameters: Parameters
  residuals: readonly number[]
  covariance: Matrix
  information: Matrix
  tapeSdMm: number
}>

/** Prior standard deviation of one careful reading, mm, and its weight in pseudo-observations. */
export const TAPE_SD_MM = 1.5
const TAPE_SD_PRIOR_WEIGHT = 4
const MAX_ITERATIONS = 40
const CONVERGED = 1e-7

/**
 * Least squares with the guess as a weak prior (Gauss–Newton; the model is nearly linear), so that a parameter that the
 * readings do not determine yet stays at the guess. `weights`, 0 to 1, are those of the readings.
 */
export function fitTape(
  bikeType: BikeType,
  observed: readonly Observation[],
  weights: readonly number[],
  from = initialParameters(bikeType),
  rounds = MAX_ITERATIONS,
): TapeFit {
  const guess = initialParameters(bikeType)
  const prior = priorWeights(bikeType)
  const positions = observed.map(({ marks }) => axisPositions(bikeType, marks))
  let p = from
  let information = Matrix.zeros(p.length, p.length)
  for (let round = 0; round < rounds; round++) {
    information = Matrix.diag(Array.from(prior))
    const rightHandSide = Matrix.columnVector(prior.map((w, i) => w * (guess[i] - p[i])))
    observed.forEach(({ length, mm }, k) => {
      const slope = lengthAt(bikeType, p, positions[k], length)
      addNormalEquation(information, rightHandSide, slope.by, weights[k] / TAPE_SD_MM ** 2, mm - slope.mm)
    })
    const step = new CholeskyDecomposition(information).solve(rightHandSide).to1DArray()
    p = p.map((value, i) => value + step[i])
    if (Math.max(...step.map(Math.abs)) < CONVERGED) break
  }
  const residuals = observed.map(({ length, mm }, k) => mm - lengthAt(bikeType, p, positions[k], length).mm)
  const squares = residuals.reduce((sum, r, k) => sum + weights[k] * r * r, 0)
  const count = weights.reduce((sum, w) => sum + w, 0)
  const free = Math.max(0, count - p.length)
  const tapeSdMm = Math.sqrt(
    (TAPE_SD_PRIOR_WEIGHT * TAPE_SD_MM ** 2 + (free > 0 ? squares : 0)) / (TAPE_SD_PRIOR_WEIGHT + free),
  )
  const covariance = new CholeskyDecomposition(information)
    .solve(Matrix.eye(p.length))
    .mul((tapeSdMm / TAPE_SD_MM) ** 2)
  return { parameters: p, residuals, covariance, information, tapeSdMm }
}

/** Adds one weighted row of the normal equations in place. */
export function addNormalEquation(
  information: Matrix,
  rightHandSide: Matrix,
  gradient: readonly number[],
  weight: number,
  residual: number,
): void {
  for (let i = 0; i < gradient.length; i++) {
    if (gradient[i] === 0) continue
    rightHandSide.set(i, 0, rightHandSide.get(i, 0) + weight * gradient[i] * residual)
    // Both halves get the very same number: the solver needs the matrix symmetric to the last bit.
    for (let j = 0; j <= i; j++) {
      if (gradient[j] === 0) continue
      const sum = information.get(i, j) + weight * gradient[i] * gradient[j]
      information.set(i, j, sum)
      information.set(j, i, sum)
    }
  }
}

/**
 * Readings beyond this many standard deviations get weight 0 (Tukey's biweight; Beaton & Tukey 1974, constant from
 * memory).
 */
const BIWEIGHT = 4.685
const MAX_ROBUST_ITERATIONS = 30

/**
 * Robust fit: iteratively reweighted least squares, first with weights of one over the residual (least absolute
 * deviations), then with weight 0 for outliers, until the weights converge.
 */
export function fitRobust(bikeType: BikeType, observed: readonly Observation[]): TapeFit {
  let fit = fitTape(
    bikeType,
    observed,
    observed.map(() => 1),
  )
  for (let round = 0; round < 12; round++)
    fit = fitTape(bikeType, observed, inverseResidualWeights(fit), fit.parameters)
  let before: readonly number[] = []
  for (let round = 0; round < MAX_ROBUST_ITERATIONS; round++) {
    const reach = BIWEIGHT * robustScaleMm(fit.residuals)
    const weights = fit.residuals.map((r) => (Math.abs(r) < reach ? (1 - (r / reach) ** 2) ** 2 : 0))
    fit = fitTape(bikeType, observed, weights, fit.parameters)
    if (weights.every((w, k) => Math.abs(w - before[k]) < 1e-4)) break
    before = weights
  }
  return fit
}

/** Weights of least absolute deviations: one over the residual, 1 within the deviation of a careful reading. */
export const inverseResidualWeights = ({ residuals }: TapeFit): number[] =>
  residuals.map((r) => Math.min(1, TAPE_SD_MM / Math.max(1e-9, Math.abs(r))))

/** Robust standard deviation of the residuals, mm: from their median, clamped between a careful and a careless tape. */
function robustScaleMm(residuals: readonly number[]): number {
  const sizes = residuals.map(Math.abs).sort((a, b) => a - b)
  const middle = sizes[Math.floor(sizes.length / 2)] ?? 0
  return Math.min(3, Math.max(TAPE_SD_MM, 1.4826 * middle))
}

/**
 * Standard deviation of one reading from the median absolute residual of a robust fit, mm, corrected for the number of
 * `fitted` parameters.
 */
export function robustSdMm(residuals: readonly number[], fitted: number): number {
  const sizes = residuals.map(Math.abs).sort((a, b) => a - b)
  const free = Math.max(1, residuals.length - fitted)
  return 1.4826 * (sizes[Math.floor(sizes.length / 2)] ?? 0) * Math.sqrt(residuals.length / free)
}
