import { signNamed, signSaid } from '@/core/watch/signs'
import { capitalised, EVIDENCE_NAME } from '@/core/words/phrases'
import type { OutboxEntry } from '@/server/outbox/entry'

/** What an entry is about, for its line in the list: "Knee by eye", "Saving the numbers". */
export function entrySaid(entry: OutboxEntry): string {
  switch (entry.op) {
    case 'appendEvidence':
      return capitalised(EVIDENCE_NAME[entry.row.kind] ?? 'something seen')
    case 'withdrawEvidence':
      return 'Taking something back'
    case 'finishSetup':
      return 'Saving the numbers'
    case 'addNote': {
      const sign = signNamed(entry.sign)
      return `Note: ${sign ? signSaid(sign) : entry.sign}`
    }
    case 'withdrawNote':
      return 'Taking a note back'
  }
}

/** "1 tap", "3 taps". */
export const tapsSaid = (count: number): string => `${count} ${count === 1 ? 'tap' : 'taps'}`
