import { createHash } from 'node:crypto'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { connectionPool } from '../db/connection'

const MINUTE_S = 60
/**
 * How often signing in may fail. One peer at one account: a few tries, a few minutes. One account from anywhere, and
 * one peer at any account: more, since a whole studio may sit behind one address and many may know one name.
 */
const LIMITS = Object.freeze({
  pair: { points: 5, duration: 5 * MINUTE_S },
  account: { points: 30, duration: 15 * MINUTE_S },
  peer: { points: 60, duration: 15 * MINUTE_S },
})
type Limit = keyof typeof LIMITS

const limiters = new Map<Limit, RateLimiterMySQL>()

function limiter(limit: Limit): RateLimiterMySQL {
  const existing = limiters.get(limit)
  if (existing) return existing
  const made = new RateLimiterMySQL({
    storeClient: connectionPool().pool,
    storeType: 'pool',
    dbName: databaseName(),
    tableName: 'sign_in_attempts',
    tableCreated: true,
    keyPrefix: limit,
    ...LIMITS[limit],
  })
  limiters.set(limit, made)
  return made
}

const databaseName = (): string => new URL(process.env.DATABASE_URL ?? '').pathname.slice(1)

/** Keys of one try; an account's name may be anything, so only its fingerprint is stored. */
const keysOf = (account: string, peer: string): Readonly<Record<Limit, string>> => {
  const name = createHash('sha256').update(account.trim().toLowerCase()).digest('hex').slice(0, 32)
  return { pair: `${name} ${peer}`, account: name, peer }
}
const EVERY: readonly Limit[] = ['pair', 'account', 'peer']

/** Counts a try before its password is looked at; seconds to wait where it is one too many, else 0. */
export async function countAttempt(account: string, peer: string): Promise<number> {
  const keys = keysOf(account, peer)
  const waits = await Promise.all(
    EVERY.map((limit) =>
      limiter(limit)
        .consume(keys[limit])
        .then(() => 0, secondsToWait),
    ),
  )
  return Math.max(...waits)
}

/**
 * Signed in: the tries of this peer at this account are forgotten, and the one just counted is taken back elsewhere.
 */
export async function resetAttempts(account: string, peer: string): Promise<void> {
  const keys = keysOf(account, peer)
  await Promise.all([
    limiter('pair').delete(keys.pair),
    limiter('account').reward(keys.account),
    limiter('peer').reward(keys.peer),
  ])
}

function secondsToWait(refused: unknown): number {
  if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1000))
  throw refused
}
