import type { OutboxEntry } from '@/server/platform/entry'
import type { OutboxStore, StoredEntry } from './store'

/** What became of one entry sent. */
export type SendResult =
  | Readonly<{ outcome: 'kept' }>
  | Readonly<{ outcome: 'refused'; code: string; say: string }>
  /** Nobody, or somebody else, is signed in here. */
  | Readonly<{ outcome: 'signedOut' }>
  /** The server answered, but with a fault of its own. */
  | Readonly<{ outcome: 'fault' }>
  | Readonly<{ outcome: 'noNetwork' }>
  /** The disk of the studio's computer is full: later it is taken. */
  | Readonly<{ outcome: 'noRoom' }>

/** How a round of sending ended: all sent, again later, or only after signing in. */
export type DrainResult = 'empty' | 'later' | 'noNetwork' | 'noRoom' | 'signedOut'

/** After this many failures of one entry the outbox stops retrying it: the entry stays and is shown. */
const MAX_FAULTS = 5
const FAULT_TEXT =
  'the studio’s server had a fault with this one, several times over. It is kept on this device; try again later'

/**
 * Sends the stored entries of one author in their order. A failure of one entry delays only its own
 * queue, and only for a while; a lost network or session delays all and loses nothing. Called by one tab at a
 * time (under a lock): what another tab left as `sending` when it was closed is sent again, which changes nothing.
 */
export async function drain(
  store: OutboxStore,
  author: string,
  send: (entry: OutboxEntry) => Promise<SendResult>,
): Promise<DrainResult> {
  const blocked = new Set<string>()
  for (;;) {
    const next = await store.first(author, SENDABLE, blocked)
    if (!next) return blocked.size > 0 ? 'later' : 'empty'
    await store.change([next.seq], { state: 'sending' })
    const sent = await send(next.entry)
    switch (sent.outcome) {
      case 'kept':
        await store.remove([next.seq])
        break
      case 'refused':
        await store.change([next.seq], { state: 'refused', code: sent.code, say: sent.say })
        break
      case 'fault':
        blocked.add(next.queue)
        await store.change([next.seq], afterFault(next))
        if (next.attempts + 1 >= MAX_FAULTS) blocked.delete(next.queue)
        break
      case 'noNetwork':
      case 'noRoom':
        await store.change([next.seq], { state: 'waiting' })
        return sent.outcome
      case 'signedOut':
        await store.change(await store.seqs(author, SENDABLE), { state: 'signedOut' })
        return 'signedOut'
    }
  }
}

const SENDABLE = ['waiting', 'sending'] as const

const afterFault = ({ attempts }: StoredEntry): Partial<StoredEntry> =>
  attempts + 1 < MAX_FAULTS
    ? { state: 'waiting', attempts: attempts + 1 }
    : { state: 'refused', attempts: 0, code: 'fault', say: FAULT_TEXT }

/** What an author left when the session ended may be sent again, now that they are signed in. */
export async function resume(store: OutboxStore, author: string): Promise<void> {
  const seqs = await store.seqs(author, ['signedOut'])
  if (seqs.length > 0) await store.change(seqs, { state: 'waiting' })
}
