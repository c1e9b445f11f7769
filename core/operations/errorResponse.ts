import type { Issue } from '../messages/words/issues'

export type ErrorKind = 'badJson' | 'badRequest' | 'unknownOperation' | 'busy'

/** `more` counts the issues beyond the first hundred, which are not spelled out. The wire format calls them faults. */
export type ErrorResponse = Readonly<{ error: Readonly<{ kind: ErrorKind; faults: readonly Issue[]; more?: number }> }>

/** More than this helps nobody, and a list of thousands is work. */
const MAX_ISSUES = 100

export function errorResponse(kind: ErrorKind, issues: readonly Issue[]): ErrorResponse {
  if (issues.length <= MAX_ISSUES) return { error: { kind, faults: issues } }
  return { error: { kind, faults: issues.slice(0, MAX_ISSUES), more: issues.length - MAX_ISSUES } }
}

export const isErrorResponse = (response: object): response is ErrorResponse => 'error' in response

/** One issue a place: the first one wins (a kind refused by name is not also called unknown). */
export function uniqueByPointer(issues: readonly Issue[]): Issue[] {
  const seen = new Set<string>()
  return issues.filter(({ pointer }) => !seen.has(pointer) && seen.add(pointer))
}
