import { RateLimiterMemory } from 'rate-limiter-flexible'
import { isWithin, slowDown } from '../platform/http/slowDown'
import type { Database } from '../platform/db/connection'
import { findCode, normalizeCode, type FoundCode } from './codes'

/**
 * Limits of machines' codes, per process. All devices of a hall share one address, so that none of them counts by
 * address alone: a guesser is delayed, and what is left behind is counted by device and by machine.
 */
const LIMITS = Object.freeze({
  /** Codes that do not exist, per peer address. */
  guesses: new RateLimiterMemory({ keyPrefix: 'code-guess', points: 30, duration: 900 }),
  /** Numbers left with a name, per device, and per machine. */
  device: new RateLimiterMemory({ keyPrefix: 'code-device', points: 5, duration: 3600 }),
  machine: new RateLimiterMemory({ keyPrefix: 'code-machine', points: 20, duration: 3600 }),
})

/** What a code is, or null. Delays the answer of a peer that guesses; never refuses a code that exists. */
export async function openCode(db: Database, peer: string, typed: string): Promise<FoundCode | null> {
  const code = normalizeCode(typed)
  const found = code ? await findCode(db, code) : null
  if (!found && !(await isWithin(LIMITS.guesses, peer))) await slowDown()
  return found
}

/** Whether this device, and this machine, may leave one more set of numbers now. */
export const mayLeave = async (device: string, bikeId: string): Promise<boolean> =>
  (await isWithin(LIMITS.device, device)) && (await isWithin(LIMITS.machine, bikeId))
