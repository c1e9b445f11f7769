import { formatTrouble, type OutboxTrouble } from '@/core/messages/trouble'
import type { StoredEntry } from './store'

type Device = Readonly<{ offline: boolean; noRoom: boolean; fragile: boolean }>

/** Why some entries cannot be sent, the gravest reason first; null while all is well. */
function troubleOf(entries: readonly StoredEntry[], { offline, noRoom, fragile }: Device): OutboxTrouble | null {
  const refused = entries.find((e) => e.state === 'refused')
  if (refused) return { code: 'refused', say: refused.say }
  if (entries.length === 0) return null
  if (entries.some((e) => e.state === 'signedOut')) return { code: 'signedOut' }
  if (fragile) return { code: 'fragile' }
  if (noRoom) return { code: 'noRoom' }
  if (!offline) return null
  return { code: entries.some((e) => e.entry.op === 'finishSetup') ? 'offlineSaving' : 'offline' }
}

/** The same in one line; empty while all is well. */
export function troubleLine(entries: readonly StoredEntry[], device: Device): string {
  const trouble = troubleOf(entries, device)
  return trouble ? formatTrouble(trouble) : ''
}
