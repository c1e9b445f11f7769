import { RateLimiterMemory } from 'rate-limiter-flexible'
import type { Database } from '../../platform/db/connection'
import { isWithin, slowDown } from '../../platform/http/slowDown'
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
/** Token characters that identify a guess. */
const PREFIX = 8

/** Owner of a valid link, or null. Delays the response if a peer guesses or a link is used too often. */
export async function openFrom(
  db: Database,
  peer: string,
  token: string,
  what: 'view' | 'write',
  now: Date,
  wait?: (ms: number) => Promise<unknown>,
): Promise<LinkOwner | null> {
  const owner = await ownerOf(db, token, now)
  const calm = owner ? await isWithin(LIMITS[what], owner.linkId) : await countGuess(peer, token)
  if (!calm) await slowDown(wait)
  return owner
}

/** Counts an invalid link; false once the peer reached the limit. Stores no further guesses of that peer. */
async function countGuess(peer: string, token: string): Promise<boolean> {
  const counted = await LIMITS.guesses.get(peer)
  if (counted && counted.remainingPoints <= 0) return false
  const isNew = await isWithin(LIMITS.same, `${peer} ${token.slice(0, PREFIX)}`)
  return isNew ? isWithin(LIMITS.guesses, peer) : true
}
