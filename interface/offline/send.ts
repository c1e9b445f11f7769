import type { OutboxEntry } from '@/server/platform/entry'
import type { SendResult } from './drain'

/** An answer that takes longer than this is taken for a lost network; the entry is sent again. */
const PATIENCE_MS = 20_000

/** Sends one entry to the studio's server. */
export async function send(entry: OutboxEntry): Promise<SendResult> {
  try {
    const response = await fetch('/api/outbox', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...entry, sentAtMs: Date.now() }),
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
    })
    if (response.status === 401 || response.status === 409) return { outcome: 'signedOut' }
    if (response.status === 200) return { outcome: 'kept' }
    if (response.status === 422)
      return { outcome: 'refused', ...((await response.json()) as { code: string; say: string }) }
    return { outcome: response.status === 507 ? 'noRoom' : 'fault' }
  } catch {
    return { outcome: 'noNetwork' }
  }
}
