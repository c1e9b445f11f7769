import { LRUCache } from 'lru-cache'
import type { Proposal } from './proposal'

/** Fewer rows than this are not worth a proposal of their own. */
const MIN_ROWS = 4

/** Proposals of the first rows of recent set-ups: each is some kilobytes. */
const proposals = new LRUCache<string, Proposal>({ max: 100 })

/**
 * Where sampling the posterior of `rows` rows begins: at the proposal of its first 4, 8, 16 … rows, each adapted from
 * the one before, so that a row more need not start again from the prior. Since only the rows decide where it begins,
 * the answer is the same whether the proposal was cached or is computed again; all of them together look at no more
 * than twice the rows.
 *
 * `key` names everything that the proposal of the first so many rows depends on.
 */
export function cachedProposal(
  rows: number,
  of: Readonly<{ key: (rows: number) => string; proposal: (rows: number, from?: Proposal) => Proposal }>,
): Proposal | undefined {
  let first = MIN_ROWS
  while (2 * first < rows) first *= 2
  if (first >= rows) return undefined
  const key = of.key(first)
  const cached = proposals.get(key) ?? of.proposal(first, cachedProposal(first, of))
  proposals.set(key, cached)
  return cached
}
