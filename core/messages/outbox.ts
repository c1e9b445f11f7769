import type { AxisName, Label } from '../base/conventions'
import type { EvidenceKind } from '../riders/evidence/registry'
import { formatNoted } from './classes/watch'
import { evidenceName } from './words/evidenceName'
import { AXIS_TITLE, capitalized } from './words/phrases'

/** What an entry of a device's outbox is about: "Knee by eye", "Saving the numbers". */
export function formatEntry(
  entry:
    | Readonly<{ op: 'appendEvidence'; row: Readonly<{ kind: EvidenceKind }> }>
    | Readonly<{ op: 'addNote'; sign: string; region?: string }>
    | Readonly<{ op: 'moveMark'; axis: AxisName; from: Label; to: Label }>
    | Readonly<{
        op: 'undoMove' | 'withdrawEvidence' | 'finishSetup' | 'withdrawNote' | 'changeNote' | 'addLook' | 'addRoomCue'
      }>,
): string {
  switch (entry.op) {
    case 'appendEvidence':
      return capitalized(evidenceName(entry.row.kind))
    case 'withdrawEvidence':
      return 'Taking something back'
    case 'finishSetup':
      return 'Saving the numbers'
    case 'addNote':
      return `Note: ${formatNoted(entry)}`
    case 'changeNote':
      return 'A note, as it goes on'
    case 'addLook':
      return 'Looked at'
    case 'addRoomCue':
      return 'A cue to the room'
    case 'moveMark':
      return `${AXIS_TITLE[entry.axis]} ${entry.from} → ${entry.to}`
    case 'undoMove':
      return 'Taking a moved mark back'
    case 'withdrawNote':
      return 'Taking a note back'
  }
}

/** "1 tap", "3 taps". */
export const formatTaps = (count: number): string => `${count} ${count === 1 ? 'tap' : 'taps'}`
