/** Importance weights in proportion to exp(exponent · log ratio), summing to 1. */
export function normalizedWeights(logRatio: Float64Array, exponent: number): Float64Array {
  let top = -Infinity
  for (const value of logRatio) if (value > top) top = value
  const weights = new Float64Array(logRatio.length)
  let sum = 0
  for (let i = 0; i < weights.length; i++) sum += weights[i] = Math.exp(exponent * (logRatio[i] - top))
  for (let i = 0; i < weights.length; i++) weights[i] /= sum
  return weights
}

/** Effective sample size of normalized weights, 1 / Σw² (Kish 1965; from memory): from 1 to the number of particles. */
export function effectiveSampleSize(weights: Float64Array): number {
  let squares = 0
  for (const w of weights) squares += w * w
  return 1 / squares
}

/** Bisections of the exponent: to a four-thousandth. */
const BISECTIONS = 12

/** The largest exponent of the importance ratio, 0…1, that leaves at least `minSize` effective particles. */
export function nextExponent(logRatio: Float64Array, minSize: number): number {
  const enough = (exponent: number) => effectiveSampleSize(normalizedWeights(logRatio, exponent)) >= minSize
  if (enough(1)) return 1
  let low = 0
  let high = 1
  for (let step = 0; step < BISECTIONS; step++) {
    const middle = (low + high) / 2
    if (enough(middle)) low = middle
    else high = middle
  }
  return low
}

/** Sum of products of two columns of one length. */
export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}
