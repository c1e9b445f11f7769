import { REASON, type Issue } from '../messages/issues'

/** Rows times samples, in thousands, that one `recommend` may ask for: some seconds of one core. Ours. */
export const MAX_WORK = 2000
const DEFAULT_SAMPLES = 4000

/** How much arithmetic a request asks for, in thousands of row-samples; other operations count by their readings. */
export function workOf(operation: string, request: unknown): number {
  const { evidence, samples, readings } = (request ?? {}) as {
    evidence?: unknown
    samples?: unknown
    readings?: unknown
  }
  if (operation === 'calibrate') return Array.isArray(readings) ? 4 * readings.length : 0
  if (operation !== 'recommend' || !Array.isArray(evidence)) return 0
  return (Math.max(1, evidence.length) * (typeof samples === 'number' ? samples : DEFAULT_SAMPLES)) / 1000
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
