import { createHash } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import type { DbExecutor } from '../../platform/db/connection'
import { feedRead, type FEEDS } from './tables'

export type Feed = (typeof FEEDS)[number]

/** Number of unfinished reads in a row after which a feed is skipped. */
export const MAX_UNFINISHED = 2
/** The server retries a skipped feed after this time, ms. */
const SKIPPED_MS = 86_400_000

type FeedOf = Readonly<{ studioId: string; feed: Feed; address: string }>

/**
 * Records the start of a feed read. Returns false if the feed must be skipped: the server died or hung during the last
 * two reads of this address, less than a day ago.
 */
export async function beginFeed(db: DbExecutor, { studioId, feed, address: url }: FeedOf, now: Date): Promise<boolean> {
  const address = createHash('sha256').update(url).digest('hex')
  const [before] = await db
    .select()
    .from(feedRead)
    .where(and(eq(feedRead.studioId, studioId), eq(feedRead.feed, feed)))
  const unfinished = before?.address === address ? before.unfinished : 0
  const isHung = unfinished >= MAX_UNFINISHED
  if (isHung && now.getTime() - before!.begunAt.getTime() < SKIPPED_MS) return false
  const begun = { address, unfinished: isHung ? 1 : unfinished + 1, begunAt: now }
  await db
    .insert(feedRead)
    .values({ studioId, feed, ...begun })
    .onDuplicateKeyUpdate({ set: begun })
  return true
}

/** Records the end of a feed read, successful or not. */
export async function endFeed(db: DbExecutor, { studioId, feed }: Pick<FeedOf, 'studioId' | 'feed'>): Promise<void> {
  await db
    .update(feedRead)
    .set({ unfinished: 0 })
    .where(and(eq(feedRead.studioId, studioId), eq(feedRead.feed, feed)))
}
