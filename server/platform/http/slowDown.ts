import { setTimeout as pause } from 'node:timers/promises'
import { RateLimiterRes, type RateLimiterMemory } from 'rate-limiter-flexible'

/** Delay of a limited response, ms, and the maximum number of delayed responses at once. */
const DELAY_MS = 1000
const MAX_DELAYED = 200

let waiting = 0

/** Delays a response to somebody who guesses, unless too many wait already. */
export async function slowDown(wait: (ms: number) => Promise<unknown> = pause): Promise<void> {
  if (waiting >= MAX_DELAYED) return
  waiting += 1
  try {
    await wait(DELAY_MS)
  } finally {
    waiting -= 1
  }
}

/** Counts one more of a key; false once it is beyond the limit. */
export function isWithin(limiter: RateLimiterMemory, key: string): Promise<boolean> {
  return limiter.consume(key).then(
    () => true,
    (refused: unknown) => {
      if (refused instanceof RateLimiterRes) return false
      throw refused
    },
  )
}
