import { createHash } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import { feedRead, type FEEDS } from '../db/tables/runs'

export type Feed = (typeof FEEDS)[number]

/** Begun so often in a row and never ended, the reading of a feed is what the server hangs over: it is left out. */
export const HUNG_TIMES = 2
/** After so long it is tried again. */
const SKIPPED_MS = 86_400_000

type FeedOf = Readonly<{ studioId: string; feed: Feed; address: string }>

/**
 * Says that a feed is going to be read. False where it is to be left out: a server died or hung over it twice in a row,
 * and within a day.
 */
export async function beginFeed(db: DbExecutor, { studioId, feed, address: url }: FeedOf, now: Date): Promise<boolean> {
  const address = createHash('sha256').update(url).digest('hex')
  const [before] = await db
    .select()
    .from(feedRead)
    .where(and(eq(feedRead.studioId, studioId), eq(feedRead.feed, feed)))
  const unfinished = before?.address === address ? before.unfinished : 0
  const isHung = unfinished >= HUNG_TIMES
  if (isHung && now.getTime() - before!.begunAt.getTime() < SKIPPED_MS) return false
  const begun = { address, unfinished: isHung ? 1 : unfinished + 1, begunAt: now }
  await db
    .insert(feedRead)
    .values({ studioId, feed, ...begun })
    .onDuplicateKeyUpdate({ set: begun })
  return true
}

/** Says that the reading of a feed has ended, whatever came of it. */
export async function endFeed(db: DbExecutor, { studioId, feed }: Pick<FeedOf, 'studioId' | 'feed'>): Promise<void> {
  await db
    .update(feedRead)
    .set({ unfinished: 0 })
    .where(and(eq(feedRead.studioId, studioId), eq(feedRead.feed, feed)))
}
