import { LRUCache } from 'lru-cache'
import type { Cloud } from './belief'

/** Fewer rows than this are not worth a start of their own. */
const LEAST_ROWS = 4

/** Clouds of the first rows of set-ups lately asked about: each is some kilobytes. */
const clouds = new LRUCache<string, Cloud>({ max: 100 })

/**
 * Where a belief in `rows` rows begins: at the cloud of its first 4, 8, 16 … rows, each reached from the one before, so
 * that a row more need not start anew. Since only the rows decide where it begins, the answer is the same whether the
 * cloud was kept or is worked out again; and all of them together look at no more than twice the rows.
 *
 * `key` names everything that the cloud of the first so many rows depends on.
 */
export function cloudBefore(
  rows: number,
  of: Readonly<{ key: (rows: number) => string; cloud: (rows: number, from?: Cloud) => Cloud }>,
): Cloud | undefined {
  let first = LEAST_ROWS
  while (2 * first < rows) first *= 2
  if (first >= rows) return undefined
  const key = of.key(first)
  const known = clouds.get(key) ?? of.cloud(first, cloudBefore(first, of))
  clouds.set(key, known)
  return known
}
