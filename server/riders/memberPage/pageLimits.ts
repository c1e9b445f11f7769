import { setTimeout as pause } from 'node:timers/promises'
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { Database } from '../../platform/db/connection'
import { ownerOf, type LinkOwner } from './links'

/**
 * Rate limits of private links, per process. They delay responses and never reject a valid link: all members of a
 * studio share one address. The 256-bit token itself prevents guessing.
 */
const LIMITS = Object.freeze({
  /** Page views per link. */
  view: new RateLimiterMemory({ keyPrefix: 'member-view', points: 240, duration: 300 }),
  /** Writes per link, counted apart from page views. */
  write: new RateLimiterMemory({ keyPrefix: 'member-write', points: 240, duration: 300 }),
  /** Distinct invalid links per peer address. */
  guesses: new RateLimiterMemory({ keyPrefix: 'member-guess', points: 30, duration: 900 }),
  /** Deduplicates a repeated invalid link, for example a bookmark of a revoked link. */
  same: new RateLimiterMemory({ keyPrefix: 'member-same-guess', points: 1, duration: 900 }),
})
/** Delay of a limited response, ms, and the maximum number of delayed responses at once. */
const DELAY_MS = 1000
const MAX_DELAYED = 200
/** Token characters that identify a guess. */
const PREFIX = 8

let waiting = 0

async function slowDown(wait: (ms: number) => Promise<unknown>): Promise<void> {
  if (waiting >= MAX_DELAYED) return
  waiting += 1
  try {
    await wait(DELAY_MS)
  } finally {
    waiting -= 1
  }
}

/** Owner of a valid link, or null. Delays the response if a peer guesses or a link is used too often. */
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

/** Counts an invalid link; false once the peer reached the limit. Stores no further guesses of that peer. */
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
