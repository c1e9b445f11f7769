import { EigenvalueDecomposition, Matrix, solve } from 'ml-matrix'
import type { NormalScores } from '../../riders/inference/normalScores'
import { priorFromHistory, type EarlierSetup } from '../recommend/history/riderHistory'
import { PRIOR_PARTS, priorFor, priorVectorOf, type Prior, type PriorPart } from '../../riders/rider/prior'
import type { School } from '../../base/school/school'

/** With fewer finished set-ups the prior stays the published one. */
export const MIN_SETUPS = 10
/** How far a studio's mean rider may lie from the published one, in standard deviations between riders. Assumption. */
const STUDIO_SD = 0.5
/** A rider farther from all others than this many standard deviations counts less the farther. */
const USUAL_DISTANCE = 2.5

export type StudioPrior = Readonly<{
  /** Set-ups it was learned from. */
  setups: number
  /** How far each part's mean was moved, in standard deviations between riders, with its own standard deviation. */
  moved: Readonly<Record<PriorPart, Readonly<{ shift: number; sd: number }>>>
  /** Parts of the prior to be used; empty with too few set-ups. */
  prior: Partial<Prior>
}>

/** Posterior of one finished set-up, computed from the published proportions as prior. */
export function riderScores(setup: Omit<EarlierSetup, 'agoDays'>, school: School, seed = 1): NormalScores {
  const prior = priorVectorOf(priorFor(school.foot))
  return priorFromHistory({ history: [{ ...setup, agoDays: 0 }], school, prior, seed })!
}

/**
 * A studio's prior from its finished, checked set-ups: the mean of its riders shrunk toward the published proportions.
 * With m and C the mean and covariance a set-up leaves of the standard scores, the studio's mean has precision 1/s² +
 * Σ(I − C) and information Σm (a normal hierarchy with unit standard deviation between riders; Lindley & Smith 1972,
 * from memory). Riders far from the rest count less (Huber's weights; 1964, from memory). Pure: recomputed, never
 * stored.
 */
export function studioPrior(riders: readonly NormalScores[], school: School): StudioPrior {
  const base = priorFor(school.foot)
  const parts = PRIOR_PARTS.length
  const nothing = { shift: 0, sd: STUDIO_SD }
  if (riders.length < MIN_SETUPS) return { setups: riders.length, moved: perPart(() => nothing), prior: {} }
  const contributions = riders.map(informationOf)
  let centre = Matrix.zeros(parts, 1)
  let precision = Matrix.eye(parts)
  // Weights follow the centre and the centre the weights; it settles in a few rounds.
  for (let round = 0; round < 5; round++) {
    precision = Matrix.eye(parts).mul(1 / STUDIO_SD ** 2)
    const information = Matrix.zeros(parts, 1)
    for (const one of contributions) {
      const off = Matrix.sub(one.mean, one.precision.mmul(centre))
      const distance = Math.sqrt(off.dot(off) / Math.max(1e-9, one.precision.trace()))
      const weight = Math.min(1, USUAL_DISTANCE / Math.max(1e-9, distance))
      precision.add(Matrix.mul(one.precision, weight))
      information.add(Matrix.mul(one.mean, weight))
    }
    centre = solve(precision, information)
  }
  const covariance = solve(precision, Matrix.eye(parts))
  const moved = perPart((_, k) => ({ shift: centre.get(k, 0), sd: Math.sqrt(Math.max(0, covariance.get(k, k))) }))
  const prior = perPart((part) => ({ mean: base[part].mean + base[part].sd * moved[part].shift, sd: base[part].sd }))
  return { setups: riders.length, moved, prior }
}

/**
 * Minimum share by which a set-up narrows a direction of the scores; below it lies the sampling error.
 */
const MIN_EIGENVALUE = 0.1

/** Information (m) and precision (I − C) of one set-up about the studio's mean, in its informative directions. */
function informationOf({ mean, root }: NormalScores): Readonly<{ mean: Matrix; precision: Matrix }> {
  const parts = PRIOR_PARTS.length
  const covariance = root.mmul(root.transpose()).subMatrix(0, parts - 1, 0, parts - 1)
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(Matrix.eye(parts).sub(covariance), {
    assumeSymmetric: true,
  })
  const informative = Matrix.diag(realEigenvalues.map((value) => (value > MIN_EIGENVALUE ? 1 : 0)))
  const conditionalPrecision = Matrix.diag(
    realEigenvalues.map((value) => (value > MIN_EIGENVALUE ? Math.min(1, value) : 0)),
  )
  const back = eigenvectorMatrix.transpose()
  return {
    mean: eigenvectorMatrix
      .mmul(informative)
      .mmul(back)
      .mmul(Matrix.columnVector(Array.from(mean.subarray(0, parts)))),
    precision: eigenvectorMatrix.mmul(conditionalPrecision).mmul(back),
  }
}

const perPart = <T>(of: (part: PriorPart, k: number) => T): Record<PriorPart, T> =>
  Object.fromEntries(PRIOR_PARTS.map((part, k) => [part, of(part, k)])) as Record<PriorPart, T>
