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

/** Posterior median of a quantity of the particles: where a mean would be drawn off by a long tail. */
export function medianOf({ particles, weights }: Posterior, quantity: Quantity): number {
  const values = quantity(particles)
  const order = Uint32Array.from(values, (_, i) => i).sort((a, b) => values[a] - values[b])
  let sum = 0
  for (const i of order) {
    sum += weights[i]
    if (sum >= 0.5) return values[i]
  }
  return values[order[order.length - 1]]
}
