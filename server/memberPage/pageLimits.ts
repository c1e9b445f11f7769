import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'

/**
 * How often one peer may open members' pages, and how often with links that open nothing: who guesses is stopped long
 * before 256 bits are guessed. Counted in this process; a restart forgives.
 */
const LIMITS = Object.freeze({
  views: new RateLimiterMemory({ keyPrefix: 'member-view', points: 240, duration: 300 }),
  misses: new RateLimiterMemory({ keyPrefix: 'member-miss', points: 30, duration: 900 }),
})

/** Whether a peer may go on; counts the view. */
export async function mayView(peer: string): Promise<boolean> {
  const missed = await LIMITS.misses.get(peer)
  if (missed && missed.remainingPoints <= 0) return false
  return LIMITS.views.consume(peer).then(() => true, refusedOrFault)
}

/** Counts a link that opened nothing. */
export async function countMiss(peer: string): Promise<void> {
  await LIMITS.misses.consume(peer).catch(refusedOrFault)
}

function refusedOrFault(refused: unknown): false {
  if (refused instanceof RateLimiterRes) return false
  throw refused
}
