import { normalCdf } from '../../base/rng'
import type { Particles } from './particles'

/** A quantity of every particle, in its own unit. */
export type Quantity = (particles: Particles) => Float64Array

/** A range of a quantity; either end may be infinite. */
export type Interval = Readonly<{ from: number; to: number }>

/** The likelihood of one row: a number read with Gaussian error, or a category seen of a quantity (ordered probit). */
export type SingleLikelihood =
  | Readonly<{ form: 'gaussian'; value: number; sd: number; quantity: Quantity }>
  | Readonly<{ form: 'orderedProbit'; from: number; to: number; sd: number; quantity: Quantity }>

/**
 * Of one row, or of several looks at one position: each in its interval, with an error of its own and one they share.
 */
export type Likelihood =
  | SingleLikelihood
  | Readonly<{
      form: 'repeatedProbit'
      intervals: readonly Interval[]
      ownSd: number
      sharedSd: number
      quantity: Quantity
    }>

/** A number that was read of a quantity, with Gaussian error. */
export const gaussian = (value: number, sd: number, quantity: Quantity): SingleLikelihood => ({
  form: 'gaussian',
  value,
  sd,
  quantity,
})

/** A category that was seen: the quantity, seen with Gaussian error, fell into the interval. */
export const orderedProbit = (interval: Interval, sd: number, quantity: Quantity): SingleLikelihood => ({
  ...interval,
  form: 'orderedProbit',
  sd,
  quantity,
})

/** Floor of a category's probability, so that contradicting rows stay comparable. */
const MIN_PROBABILITY = 1e-12

/** The last result of each likelihood: the same particles are evaluated again when the rows are checked. */
const lastQuantity = new WeakMap<Likelihood, Readonly<{ particles: Particles; values: Float64Array }>>()

/** The quantity a likelihood is of, for every particle; not to be written to. */
export function quantityOf(likelihood: Likelihood, particles: Particles): Float64Array {
  const last = lastQuantity.get(likelihood)
  if (last?.particles === particles) return last.values
  const values = likelihood.quantity(particles)
  lastQuantity.set(likelihood, { particles, values })
  return values
}

/** Log likelihood of every particle, natural logarithm, up to a constant of the likelihood. */
export function logLikelihoods(likelihood: Likelihood, particles: Particles): Float64Array {
  const values = quantityOf(likelihood, particles)
  if (likelihood.form === 'gaussian') {
    const { value: read, sd } = likelihood
    const logs = new Float64Array(values.length)
    for (let i = 0; i < logs.length; i++) {
      const off = (read - values[i]) / sd
      logs[i] = -0.5 * off * off
    }
    return logs
  }
  if (likelihood.form === 'orderedProbit') {
    const logs = new Float64Array(values.length)
    for (let i = 0; i < logs.length; i++)
      logs[i] = flooredLog(intervalProbability(likelihood, values[i], likelihood.sd))
    return logs
  }
  const { intervals, ownSd, sharedSd } = likelihood
  return values.map((value) => {
    let sum = 0
    for (const [node, weight] of GAUSS_HERMITE_NODES) {
      let product = weight
      for (const interval of intervals) product *= intervalProbability(interval, value + sharedSd * node, ownSd)
      sum += product
    }
    return flooredLog(sum)
  })
}

const flooredLog = (probability: number): number => Math.log(Math.max(MIN_PROBABILITY, probability))

/** Chance that a value, seen with Gaussian error, falls into an interval. */
export function intervalProbability({ from, to }: Interval, value: number, sd: number): number {
  const below = to === Infinity ? 1 : normalCdf((to - value) / sd)
  return from === -Infinity ? below : below - normalCdf((from - value) / sd)
}

/**
 * Nodes and weights of a standard normal (Gauss–Hermite, five points; Abramowitz & Stegun, table 25.10, from memory).
 */
const GAUSS_HERMITE_NODES: readonly (readonly [node: number, weight: number])[] = [
  [-2.85697, 0.0112574],
  [-1.355626, 0.2220759],
  [0, 0.5333333],
  [1.355626, 0.2220759],
  [2.85697, 0.0112574],
]
