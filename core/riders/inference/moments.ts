import type { Particles } from './particles'
import type { Posterior } from './posterior'

/** Mean and standard deviation, in the quantity's own unit. */
export type Moments = Readonly<{ mean: number; sd: number }>

type Quantity = (particles: Particles) => Float64Array

/** Posterior mean and standard deviation of a quantity of the particles. */
export function momentsOf({ particles, weights }: Posterior, quantity: Quantity): Moments {
  const values = quantity(particles)
  let mean = 0
  for (let i = 0; i < weights.length; i++) mean += weights[i] * values[i]
  let variance = 0
  for (let i = 0; i < weights.length; i++) variance += weights[i] * (values[i] - mean) ** 2
  return { mean, sd: Math.sqrt(variance) }
}

/**
 * Posterior median of a quantity of the particles: where a mean would be drawn off by a long tail. The largest value
 * below the place at which half of the weight lies, found by halving the range of the values: no sorting.
 */
export function medianOf({ particles, weights }: Posterior, quantity: Quantity): number {
  const values = quantity(particles)
  let [below, above] = [Infinity, -Infinity]
  for (let i = 0; i < values.length; i++) {
    if (values[i] < below) below = values[i]
    if (values[i] > above) above = values[i]
  }
  // Everything at `above` or below weighs at least half; what is at `below` or less, once it was moved, does not.
  for (let halving = 0; halving < HALVINGS; halving++) {
    const middle = (below + above) / 2
    let sum = 0
    for (let i = 0; i < values.length; i++) if (values[i] <= middle) sum += weights[i]
    if (sum >= 0.5) above = middle
    else below = middle
  }
  let median = -Infinity
  for (let i = 0; i < values.length; i++) if (values[i] <= above && values[i] > median) median = values[i]
  return median
}
/** A range of a metre or of 100° is halved to a thousandth: finer than the particles resolve. */
const HALVINGS = 20
