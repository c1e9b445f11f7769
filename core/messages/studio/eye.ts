import type { EyeError } from '../../setups/learning/observerFromPairs'

/** Minimum pairs for an estimate of an eye's error. */
const FEW = 5

/** "Your eye reads knees 3° low, ± 5°, from 14 pairs." */
export function formatEye(what: 'knees' | 'the knee over the pedal', error: EyeError): string {
  const [unit, low, high] = what === 'knees' ? ['°', 'low', 'high'] : [' mm', 'too far behind', 'too far ahead']
  const pairs = error.pairs === 1 ? 'one pair' : `${error.pairs} pairs`
  if (error.pairs < FEW)
    return `Not enough yet of ${what}: ${error.pairs === 0 ? 'no look was measured' : pairs}; ${FEW} are wanted.`
  const size = Math.round(Math.abs(error.bias))
  const bias = size === 0 ? 'true' : `${size}${unit} ${error.bias < 0 ? low : high}`
  return `Your eye reads ${what} ${bias}, ± ${Math.round(error.sd)}${unit}, from ${pairs}.`
}
