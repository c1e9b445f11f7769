import { REASON, type Issue } from '../messages/words/issues'

/** Rows times samples, in thousands, limit of one `recommend`: some seconds of one core. Assumption. */
export const MAX_WORK = 2000
const DEFAULT_SAMPLES = 4000

/** Arithmetic of a request, in thousands of row-samples; other operations count by their readings. */
export function workOf(operation: string, request: unknown): number {
  const { evidence, samples, readings, history, otherTypes, setups, bikeTypes } = (request ?? {}) as {
    evidence?: unknown
    history?: unknown
    otherTypes?: unknown
    setups?: unknown
    bikeTypes?: unknown
    samples?: unknown
    readings?: unknown
  }
  if (operation === 'body') return Array.isArray(history) ? 1.5 * history.map(rowsIn).reduce(plus, 0) : 0
  if (operation === 'learn') return Array.isArray(setups) ? 1.5 * setups.map(rowsIn).reduce(plus, 0) : 0
  // One inference of the rider on either bike, and one prediction for each neighbouring mark.
  if (operation === 'translate') return Array.isArray(evidence) ? 3 * (evidence.length + 5) : 0
  if (operation === 'suggestions') return Array.isArray(setups) ? setups.map(suggestionWork).reduce(plus, 0) : 0
  // Some twenty ways a bike may be mis-set are weighed, each on the samples of one set-up.
  if (operation === 'misSet') {
    const earlier = Array.isArray(history) ? history.map(rowsIn).reduce(plus, 0) : 0
    return Array.isArray(evidence) ? 20 * (evidence.length + 1) + 1.5 * earlier : 0
  }
  if (operation === 'accommodation') return Array.isArray(bikeTypes) ? 60 * bikeTypes.length : 0
  if (operation === 'calibrate') return Array.isArray(readings) ? 4 * readings.length : 0
  if ((operation !== 'recommend' && operation !== 'alone') || !Array.isArray(evidence)) return 0
  const earlier = Array.isArray(history) ? history.map(rowsIn).reduce(plus, 0) : 0
  const rows = Math.max(1, evidence.length + earlier)
  const others = Array.isArray(otherTypes) ? otherTypes.length * (rows + 1) : 0
  return (rows * (typeof samples === 'number' ? samples : DEFAULT_SAMPLES)) / 1000 + others
}

const plus = (a: number, b: number): number => a + b

/** Two inferences a set-up, one for each earlier set-up. */
function suggestionWork(setup: unknown): number {
  const history = (setup as { history?: unknown } | null)?.history
  return 2 * rowsIn(setup) + 3 * (Array.isArray(history) ? history.map(rowsIn).reduce(plus, 0) : 0)
}

/** The rows of an earlier set-up, and as much again as one row for drawing its riders. */
function rowsIn(earlier: unknown): number {
  const rows = (earlier as { evidence?: unknown } | null)?.evidence
  return 1 + (Array.isArray(rows) ? rows.length : 0)
}

/** A request whose rows and samples together are more than one answer may cost. */
export function costIssues(operation: string, request: unknown): Issue[] {
  const work = workOf(operation, request)
  if (work <= MAX_WORK) return []
  return [
    {
      pointer: '/samples',
      reason: REASON.tooCostly(MAX_WORK * 1000),
    },
  ]
}
