import { LRUCache } from 'lru-cache'

/** Codes that were accepted, by account; a code is valid for its half minute and the ones beside it. */
const used = new LRUCache<string, true>({ max: 10_000, ttl: 120_000 })

/** Notes that a code of an authenticator was accepted; true where it was before: a code opens once (RFC 6238, 5.2). */
export function isUsedCode(userId: string, code: string): boolean {
  const key = `${userId} ${code.trim()}`
  if (used.has(key)) return true
  used.set(key, true)
  return false
}
