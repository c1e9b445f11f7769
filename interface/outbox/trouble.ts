import { formatTrouble, type OutboxTrouble } from '@/core/messages/trouble'
import type { StoredEntry } from './store'

/** What stands between some entries and the server, the gravest first; null while all is well. */
function troubleOf(
  entries: readonly StoredEntry[],
  { offline, fragile }: Readonly<{ offline: boolean; fragile: boolean }>,
): OutboxTrouble | null {
  const refused = entries.find((e) => e.state === 'refused')
  if (refused) return { code: 'refused', say: refused.say }
  if (entries.length === 0) return null
  if (entries.some((e) => e.state === 'signedOut')) return { code: 'signedOut' }
  if (fragile) return { code: 'fragile' }
  if (!offline) return null
  return { code: entries.some((e) => e.entry.op === 'finishSetup') ? 'offlineSaving' : 'offline' }
}

/** The same in one line; empty while all is well. */
export function troubleLine(
  entries: readonly StoredEntry[],
  device: Readonly<{ offline: boolean; fragile: boolean }>,
): string {
  const trouble = troubleOf(entries, device)
  return trouble ? formatTrouble(trouble) : ''
}
