import { SHARED_VARIANCE } from '../../base/measurementNoise'
import type { Likelihood, SingleLikelihood } from './likelihood'

/** A row's likelihood, and what it shares its error with: rows of one key were taken by one way at one position. */
export type KeyedLikelihood = Readonly<{ key: string; likelihood: SingleLikelihood }>

/** Repeats differ by this many times what their own error allows: they contradict each other. */
const CONTRADICTION_SDS = 2.5
/** Of looks, a minority this large that saw the opposite contradicts the rest; a smaller one is outvoted. */
const CONTRADICTING_MINORITY = 1 / 3

/** Repeats combined into likelihoods that may be multiplied, and the keys whose repeats contradict each other. */
export type CombinedLikelihoods = Readonly<{
  likelihoods: readonly Likelihood[]
  contradicting: ReadonlySet<string>
}>

/**
 * Repeats at one position share part of their error, so a second look adds less than a first and ten add hardly more
 * than three. Readings become their mean with the shared standard deviation and their own over √n; where they differ
 * far beyond their own error the standard deviation found between them counts instead (the idea of the Birge ratio;
 * Birge 1932, from memory). Contradicting looks add nothing.
 */
export function combineRepeats(rows: readonly KeyedLikelihood[]): CombinedLikelihoods {
  const groups = new Map<string, SingleLikelihood[]>()
  for (const { key, likelihood } of rows) groups.set(key, [...(groups.get(key) ?? []), likelihood])
  const contradicting = new Set<string>()
  const likelihoods: Likelihood[] = []
  for (const [key, group] of groups) {
    const { likelihood, contradicts } =
      group.length === 1 ? { likelihood: group[0], contradicts: false } : combineGroup(group)
    if (contradicts) contradicting.add(key)
    if (likelihood) likelihoods.push(likelihood)
  }
  return { likelihoods, contradicting }
}

function combineGroup(group: readonly SingleLikelihood[]): { likelihood: Likelihood | null; contradicts: boolean } {
  const [first] = group
  const sharedSd = first.sd * Math.sqrt(SHARED_VARIANCE)
  const ownSd = first.sd * Math.sqrt(1 - SHARED_VARIANCE)
  if (first.form === 'gaussian') {
    const values = group.flatMap((l) => (l.form === 'gaussian' ? [l.value] : []))
    const mean = values.reduce((a, b) => a + b, 0) / values.length
    const between = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1))
    const contradicts = between > CONTRADICTION_SDS * ownSd
    const sd = Math.hypot(sharedSd, contradicts ? between : ownSd / Math.sqrt(values.length))
    return { likelihood: { ...first, value: mean, sd }, contradicts }
  }
  const intervals = group.flatMap((l) => (l.form === 'orderedProbit' ? [{ from: l.from, to: l.to }] : []))
  const low = intervals.filter((interval) => interval.from === -Infinity).length
  const high = intervals.filter((interval) => interval.to === Infinity).length
  const contradicts = Math.min(low, high) >= CONTRADICTING_MINORITY * (low + high) && low > 0 && high > 0
  const { quantity } = first
  return {
    likelihood: contradicts ? null : { form: 'repeatedProbit', intervals, ownSd, sharedSd, quantity },
    contradicts,
  }
}
