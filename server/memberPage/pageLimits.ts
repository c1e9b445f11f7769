import { setTimeout as pause } from 'node:timers/promises'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { Database } from '../db/connection'
import { ownerOf, type LinkOwner } from './links'

/**
 * Where links are guessed, answers slow down; nothing is closed: a studio's network is one address for everybody in it,
 * and a link that opens always opens. Guessing 256 bits is stopped by their number. Counted in this process.
 */
const LIMITS = Object.freeze({
  /** Views of one link: whoever opens it more often than anybody reads waits. */
  view: new RateLimiterMemory({ keyPrefix: 'member-view', points: 240, duration: 300 }),
  /** What is sent through one link; its pages open meanwhile as before. */
  write: new RateLimiterMemory({ keyPrefix: 'member-write', points: 240, duration: 300 }),
  /** Different links that open nothing, from one address. */
  guesses: new RateLimiterMemory({ keyPrefix: 'member-guess', points: 30, duration: 900 }),
  /** The same guess again, as from a phone with a link that has ended, counts once. */
  same: new RateLimiterMemory({ keyPrefix: 'member-same-guess', points: 1, duration: 900 }),
})
/** How long an answer is held back, ms, and at most how many at once: beyond these waiting would only cost memory. */
const SLOW_MS = 1000
const MOST_WAITING = 200
/** So much of what stands in an address tells one guess from another. */
const PREFIX = 8

let waiting = 0

async function slowDown(wait: (ms: number) => Promise<unknown>): Promise<void> {
  if (waiting >= MOST_WAITING) return
  waiting += 1
  try {
    await wait(SLOW_MS)
  } finally {
    waiting -= 1
  }
}

/** Whose page a link opens now, or null; slower where a peer guesses, or where one link is opened without end. */
export async function openFrom(
  db: Database,
  peer: string,
  token: string,
  what: 'view' | 'write',
  now: Date,
  wait: (ms: number) => Promise<unknown> = pause,
): Promise<LinkOwner | null> {
  const owner = await ownerOf(db, token, now)
  const calm = owner ? await within(LIMITS[what], owner.linkId) : await countGuess(peer, token)
  if (!calm) await slowDown(wait)
  return owner
}

/** Whether a peer guesses no more than whoever mistypes. Once it does, no more of its guesses are remembered. */
async function countGuess(peer: string, token: string): Promise<boolean> {
  const counted = await LIMITS.guesses.get(peer)
  if (counted && counted.remainingPoints <= 0) return false
  const isNew = await within(LIMITS.same, `${peer} ${token.slice(0, PREFIX)}`)
  return isNew ? within(LIMITS.guesses, peer) : true
}

function within(limiter: RateLimiterMemory, key: string): Promise<boolean> {
  return limiter.consume(key).then(
    () => true,
    (refused: unknown) => {
      if (refused instanceof RateLimiterRes) return false
      throw refused
    },
  )
}
