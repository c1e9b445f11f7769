import { eq, or } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import type { Scope } from '../../platform/accounts/scope'
import { user } from '../../platform/accounts/tables'
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
  const row = { studioId, at: now, actor: userId, kind: 'saw', what, subject } as const
  await once(
    recently,
    [studioId, userId, what, subject].join(' '),
    async () => void (await db.insert(accessLog).values(row)),
  )
}

/** Does `work` unless it was done for this key a while ago; where it fails it is due again. */
async function once(done: LRUCache<string, true>, key: string, work: () => Promise<void>): Promise<void> {
  if (done.has(key)) return
  done.set(key, true)
  try {
    await work()
  } catch (error) {
    done.delete(key)
    throw error
  }
}

/** Accounts by the name typed or the id sent, with too many guesses a while ago; most names typed belong to nobody. */
const guessed = new LRUCache<string, true>({ max: 10_000, ttl: AGAIN_MS })

/** Notes that somebody guessed at an account (username or id) until no more was taken; once in ten minutes. */
export async function recordGuesses(db: DbExecutor, account: string, now: Date): Promise<void> {
  const key = account.trim().toLowerCase()
  await once(guessed, key, async () => {
    const [found] = await db
      .select({ id: user.id, studioId: user.studioId })
      .from(user)
      .where(or(eq(user.username, key), eq(user.id, account)))
      .limit(1)
    if (!found?.studioId) return
    const { id, studioId } = found
    await db
      .insert(accessLog)
      .values({ studioId, at: now, actor: null, kind: 'rights', what: 'signIn.guesses', subject: id })
  })
}
