import type { BikeType } from '../bike/bike'
import type { Marks } from '../conventions'
import type { EvidenceKind } from '../evidence/registry'
import { formatMarks } from './labels'
import { formatNoted } from './watch'
import { capitalized, evidenceName } from './phrases'

/** Why something sent from a device was not taken. */
export type Refusal =
  | Readonly<{
      code:
        | 'malformed'
        | 'notAllowed'
        | 'noSetup'
        | 'noNote'
        | 'noClass'
        | 'idTaken'
        | 'full'
        | 'incomplete'
        | 'unknownSign'
    }>
  | Readonly<{ code: 'badRow'; reasons: readonly string[] }>
  | Readonly<{ code: 'finished'; by: string; time: string; marks: Marks; bikeType: BikeType }>

/** The refusal in words, to stand after "Not kept: ". */
export function formatRefusal(refusal: Refusal): string {
  switch (refusal.code) {
    case 'malformed':
      return 'the request was cut short'
    case 'notAllowed':
      return 'your role in this studio does not allow it'
    case 'noSetup':
      return 'this set-up does not exist'
    case 'noNote':
      return 'this rider or bike does not exist'
    case 'noClass':
      return 'this class does not exist'
    case 'idTaken':
      return 'this was saved before with other content. Enter it once more'
    case 'full':
      return 'this set-up is full, with 500 rows. Save its numbers and start a new one'
    case 'incomplete':
      return 'not every scale has its mark yet'
    case 'unknownSign':
      return 'this sign is not known'
    case 'badRow':
      return refusal.reasons.join('; ')
    case 'finished':
      return (
        `${refusal.by} saved ${formatMarks(refusal.bikeType, refusal.marks)} here ${refusal.time}` +
        '. What you saw since is still on this device; start a new set-up from it'
      )
  }
}

/** What an entry of a device's outbox is about: "Knee by eye", "Saving the numbers". */
export function formatEntry(
  entry:
    | Readonly<{ op: 'appendEvidence'; row: Readonly<{ kind: EvidenceKind }> }>
    | Readonly<{ op: 'addNote'; sign: string; region?: string }>
    | Readonly<{ op: 'withdrawEvidence' | 'finishSetup' | 'withdrawNote' | 'changeNote' | 'addLook' | 'addRoomCue' }>,
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
    case 'withdrawNote':
      return 'Taking a note back'
  }
}

/** "1 tap", "3 taps". */
export const formatTaps = (count: number): string => `${count} ${count === 1 ? 'tap' : 'taps'}`
