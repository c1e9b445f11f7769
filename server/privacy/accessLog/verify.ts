import { and, asc, count, eq, gt, isNull } from 'drizzle-orm'
import type { AccessVerdict } from '../../../core/messages/studio/accessLog'
import type { DbExecutor } from '../../platform/db/connection'
import { linkHash, type AccessEntry } from './settle'
import { accessChain, accessLog } from './tables'

const PAGE = 2000

/**
 * Follows a studio's chain from its first link: whether every entry is as it was written and none is missing.
 * `ends`: ends of the chain noted earlier outside the database, by link; a chain that ends before one was cut.
 */
export async function verifyAccessLog(
  db: DbExecutor,
  studioId: string,
  ends: ReadonlyMap<number, string> = new Map(),
): Promise<AccessVerdict> {
  let [link, hash] = [0, studioId]
  for (;;) {
    const rows = await db
      .select({ link: accessChain.link, hash: accessChain.hash, entry: accessLog })
      .from(accessChain)
      .leftJoin(accessLog, eq(accessLog.position, accessChain.logPosition))
      .where(and(eq(accessChain.studioId, studioId), gt(accessChain.link, link)))
      .orderBy(asc(accessChain.link))
      .limit(PAGE)
    for (const row of rows) {
      if (row.link !== link + 1 || !row.entry) return { outcome: 'broken', link: link + 1, why: 'missing' }
      const own = linkHash(hash, row.entry as AccessEntry)
      if (own !== row.hash) return { outcome: 'broken', link: row.link, why: 'changed' }
      ;[link, hash] = [row.link, row.hash]
      if (ends.has(link) && ends.get(link) !== hash) return { outcome: 'broken', link, why: 'changed' }
    }
    if (rows.length < PAGE) break
  }
  if ([...ends.keys()].some((end) => end > link)) return { outcome: 'broken', link: link + 1, why: 'cut' }
  const [{ waiting }] = await db
    .select({ waiting: count() })
    .from(accessLog)
    .leftJoin(accessChain, eq(accessChain.logPosition, accessLog.position))
    .where(and(eq(accessLog.studioId, studioId), isNull(accessChain.link)))
  return { outcome: 'whole', entries: link, waiting }
}
