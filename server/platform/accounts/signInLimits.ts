import { createHash, randomBytes } from 'node:crypto'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { connectionPool } from '../db/connection'

const MINUTE_S = 60
/**
 * How often signing in may fail. One peer at one account: a few tries, a few minutes. One account from anywhere, and
 * one peer at any account: more, since a whole studio may sit behind one address and many may know one name. A device
 * on which this account signed in before has a count of its own: guesses of others, behind the same address too, do not
 * lock its owner out.
 */
const LIMITS = Object.freeze({
  pair: { points: 5, duration: 5 * MINUTE_S },
  account: { points: 30, duration: 15 * MINUTE_S },
  peer: { points: 60, duration: 15 * MINUTE_S },
  device: { points: 5, duration: 5 * MINUTE_S },
  // A PIN is short: one person on one tablet, for a moment and for a day; and a tablet for a day.
  pin: { points: 5, duration: 5 * MINUTE_S },
  pinDay: { points: 20, duration: 24 * 60 * MINUTE_S },
  tabletDay: { points: 100, duration: 24 * 60 * MINUTE_S },
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

/** An account's name may be anything: only its fingerprint is stored, in the database and on devices. */
const fingerprint = (account: string): string =>
  createHash('sha256').update(account.trim().toLowerCase()).digest('hex').slice(0, 32)

/** Key of the counter: the device where this account signed in on it before, else account and peer. */
function keysOf(account: string, peer: string, device: string | null): ReadonlyMap<Limit, string> {
  const name = fingerprint(account)
  const own = deviceOf(device, name)
  if (own) return new Map([['device', `${name} ${own}`]])
  return new Map([
    ['pair', `${name} ${peer}`],
    ['account', name],
    ['peer', peer],
  ])
}

/** The cookie of a device with an earlier sign-in, and its age limit, s. */
export const DEVICE_COOKIE = 'known_device'
export const DEVICE_AGE_S = 180 * 86_400
/** Maximum of accounts in one device's cookie, the latest first: a tablet of the hall has several. */
const MAX_ACCOUNTS = 12
const DEVICE = /^([\w-]{22}):([0-9a-f,]*)$/

/** The device's own number where its cookie names this account. */
function deviceOf(device: string | null, name: string): string | null {
  const [, number, names] = DEVICE.exec(device ?? '') ?? []
  return number && names.split(',').includes(name) ? number : null
}

/** The cookie's value, which the caller signs, of a device on which this account signed in now. */
export function knownDevice(device: string | null, account: string): string {
  const [, number = randomBytes(16).toString('base64url'), names = ''] = DEVICE.exec(device ?? '') ?? []
  const name = fingerprint(account)
  const known = [name, ...names.split(',').filter((one) => one !== '' && one !== name)]
  return `${number}:${known.slice(0, MAX_ACCOUNTS).join(',')}`
}

/** Counts a try before its password is looked at; seconds to wait where it is one too many, else 0. */
export const countAttempt = (account: string, peer: string, device: string | null = null): Promise<number> =>
  count(keysOf(account, peer, device))

async function count(keys: ReadonlyMap<Limit, string>): Promise<number> {
  const waits = await Promise.all(
    [...keys].map(([limit, key]) =>
      limiter(limit)
        .consume(key)
        .then(() => 0, secondsToWait),
    ),
  )
  return Math.max(...waits)
}

const pinKeys = (tabletId: string, userId: string): ReadonlyMap<Limit, string> =>
  new Map([
    ['pin', `${tabletId} ${userId}`],
    ['pinDay', `${tabletId} ${userId}`],
    ['tabletDay', tabletId],
  ])

/** Counts a try of a PIN before it is looked at; seconds to wait where it is one too many, else 0. */
export const countPin = (tabletId: string, userId: string): Promise<number> => count(pinKeys(tabletId, userId))

/** Signed in by PIN: the tries just before are forgotten, the one just counted is taken back for the day. */
export async function resetPin(tabletId: string, userId: string): Promise<void> {
  await Promise.all(
    [...pinKeys(tabletId, userId)].map(([limit, key]) =>
      limit === 'pin' ? limiter(limit).delete(key) : limiter(limit).reward(key),
    ),
  )
}

/**
 * Signed in: the tries of this peer at this account are forgotten, and the one just counted is taken back elsewhere.
 */
export async function resetAttempts(account: string, peer: string, device: string | null = null): Promise<void> {
  await Promise.all(
    [...keysOf(account, peer, device)].map(([limit, key]) =>
      limit === 'pair' || limit === 'device' ? limiter(limit).delete(key) : limiter(limit).reward(key),
    ),
  )
}

function secondsToWait(refused: unknown): number {
  if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1000))
  throw refused
}
