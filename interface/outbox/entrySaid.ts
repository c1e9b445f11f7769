import { signNamed, formatSign } from '@/core/watch/signs'
import { capitalized, evidenceName } from '@/core/messages/phrases'
import type { OutboxEntry } from '@/server/outbox/entry'
import type { StoredEntry } from './store'

/** What an entry is about, for its line in the list: "Knee by eye", "Saving the numbers". */
export function formatEntry(entry: OutboxEntry): string {
  switch (entry.op) {
    case 'appendEvidence':
      return capitalized(evidenceName(entry.row.kind))
    case 'withdrawEvidence':
      return 'Taking something back'
    case 'finishSetup':
      return 'Saving the numbers'
    case 'addNote': {
      const sign = signNamed(entry.sign)
      return `Note: ${sign ? formatSign(sign) : entry.sign}`
    }
    case 'withdrawNote':
      return 'Taking a note back'
  }
}

/** "1 tap", "3 taps". */
export const formatTaps = (count: number): string => `${count} ${count === 1 ? 'tap' : 'taps'}`

/** What stands between some entries and the server, in one line; nothing while all is well. */
export function formatTrouble(
  entries: readonly StoredEntry[],
  { offline, fragile }: Readonly<{ offline: boolean; fragile: boolean }>,
): string {
  const refused = entries.find((e) => e.state === 'refused')
  if (refused) return `Not taken: ${refused.say}.`
  if (entries.length === 0) return ''
  if (entries.some((e) => e.state === 'signedOut'))
    return 'You are signed out. What you tap is kept on this device and sent when you sign in here again.'
  if (fragile) return 'This device’s storage is full or closed: keep this page open until everything is sent.'
  if (!offline) return ''
  const saving = entries.some((e) => e.entry.op === 'finishSetup')
  return saving
    ? 'No network: the numbers are kept on this device and saved when it is back. You may leave this page.'
    : 'No network: kept on this device, sent when it is back.'
}
