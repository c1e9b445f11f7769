import { SHARED_VARIANCE } from '../evidence/readingSpreads'
import type { SingleStatement, Statement } from './statement'

/** A row's statement, and what it shares its error with: rows of one key were taken by one way at one position. */
export type Keyed = Readonly<{ key: string; statement: SingleStatement }>

/** Repeats stray from each other by this many times what their own error allows: they contradict each other. */
const CONTRADICTS = 2.5
/** Of looks, a minority this large that saw the opposite contradicts the rest; a smaller one is outvoted. */
const MINORITY = 1 / 3

/** Repeats drawn together into statements that may be multiplied, and the keys whose repeats contradict each other. */
export type Combined = Readonly<{ statements: readonly Statement[]; contradicting: ReadonlySet<string> }>

/**
 * Repeats at one position share part of their error, so a second look tells less than a first and ten tell hardly more
 * than three. Readings become their mean with the shared spread and their own over √n; where they stray far beyond their
 * own error the spread found between them counts instead (the Birge ratio's idea). Looks that saw opposites say nothing.
 */
export function combineRepeats(rows: readonly Keyed[]): Combined {
  const groups = new Map<string, SingleStatement[]>()
  for (const { key, statement } of rows) groups.set(key, [...(groups.get(key) ?? []), statement])
  const contradicting = new Set<string>()
  const statements: Statement[] = []
  for (const [key, group] of groups) {
    const { statement, contradicts } =
      group.length === 1 ? { statement: group[0], contradicts: false } : combined(group)
    if (contradicts) contradicting.add(key)
    if (statement) statements.push(statement)
  }
  return { statements, contradicting }
}

function combined(group: readonly SingleStatement[]): { statement: Statement | null; contradicts: boolean } {
  const [first] = group
  const sharedSd = first.sd * Math.sqrt(SHARED_VARIANCE)
  const ownSd = first.sd * Math.sqrt(1 - SHARED_VARIANCE)
  if (first.form === 'reading') {
    const reads = group.flatMap((s) => (s.form === 'reading' ? [s.read] : []))
    const mean = reads.reduce((a, b) => a + b, 0) / reads.length
    const between = Math.sqrt(reads.reduce((sum, read) => sum + (read - mean) ** 2, 0) / (reads.length - 1))
    const contradicts = between > CONTRADICTS * ownSd
    const sd = Math.hypot(sharedSd, contradicts ? between : ownSd / Math.sqrt(reads.length))
    return { statement: { ...first, read: mean, sd }, contradicts }
  }
  const cuts = group.flatMap((s) => (s.form === 'category' ? [{ from: s.from, to: s.to }] : []))
  const low = cuts.filter((c) => c.from === -Infinity).length
  const high = cuts.filter((c) => c.to === Infinity).length
  const contradicts = Math.min(low, high) >= MINORITY * (low + high) && low > 0 && high > 0
  return { statement: contradicts ? null : { form: 'looks', cuts, ownSd, sharedSd, of: first.of }, contradicts }
}
