import type { BikeType } from '../bike/bike'
import type { Marks } from '../conventions'
import { formatMarks } from './labels'

/** Why something sent from a device was not taken. */
export type Refusal =
  | Readonly<{
      code: 'malformed' | 'notAllowed' | 'noSetup' | 'noNote' | 'idTaken' | 'full' | 'incomplete' | 'unknownSign'
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
    case 'idTaken':
      return 'something else was kept under this mark of the device already; enter it once more'
    case 'full':
      return 'this set-up holds 500 rows, more than anyone reads; save its numbers and start a new one'
    case 'incomplete':
      return 'not every scale has its mark yet'
    case 'unknownSign':
      return 'this sign is not known'
    case 'badRow':
      return refusal.reasons.join('; ')
    case 'finished':
      return `${refusal.by} saved ${formatMarks(refusal.bikeType, refusal.marks)} here ${refusal.time}. What you saw since is still on this device; start a new set-up from it`
  }
}
