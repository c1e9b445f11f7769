import { LRUCache } from 'lru-cache'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { accessLog } from './tables'

/** The same person who sees the same again within so long is one entry, ms. */
const AGAIN_MS = 600_000
const recently = new LRUCache<string, true>({ max: 10_000, ttl: AGAIN_MS })

/** Somebody of a studio; `userId` null for a member's own page. */
export type Seer = Pick<Scope, 'studioId'> & Readonly<{ userId: string | null }>

/**
 * Notes that somebody saw a page or took a file with health data (`what`: a key of `SAW_TEXT`), about a member or a
 * class; once within ten minutes.
 */
export async function recordSeen(
  db: DbExecutor,
  { studioId, userId }: Seer,
  what: string,
  subject: string | null,
  now: Date,
): Promise<void> {
  const key = [studioId, userId, what, subject].join(' ')
  if (recently.has(key)) return
  recently.set(key, true)
  try {
    await db.insert(accessLog).values({ studioId, at: now, actor: userId, kind: 'saw', what, subject })
  } catch (error) {
    recently.delete(key)
    throw error
  }
}
