import type { Issue } from '../messages/issues'
import { capitalized, formatList } from './phrases'
import { formatTypePointer } from './typeFields'

/** Why something asked of the server was not done. */
export type ActionRefusal =
  | Readonly<{ code: keyof typeof TEXT }>
  | Readonly<{ code: 'sameTypeName'; name: string }>
  /** Somebody (null: unknown) wrote the type meanwhile; date and time as the studio says them. */
  | Readonly<{ code: 'versionConflict'; by: string | null; date: string; time: string }>
  | Readonly<{ code: 'numberTwice' | 'notANumber'; label: string }>
  | Readonly<{ code: 'numbersTaken'; numbers: readonly number[] }>
  | Readonly<{ code: 'bikeOutOfUse'; number: number }>
  /** What is wrong with a type, each with its place in words; or with a reading, where the place is plain. */
  | Readonly<{ code: 'typeIssues' | 'readingIssues'; issues: readonly Issue[] }>
  | Readonly<{ code: 'notFitted'; say: string }>

const TEXT = {
  notAllowed: 'your role in this studio does not allow it',
  malformed: 'the request was cut short',
  noSuchType: 'this type does not exist',
  noSuchBike: 'this bike does not exist',
  notNamed: 'its riders’ checks no longer say so, or they are being computed again. Open the page again',
  noSuchClass: 'this class does not exist',
  classChanged: 'somebody else changed this class meanwhile. Open it again to see it',
  typeInUse: 'a bike is of this type, or numbers are; only a type that nothing uses can be deleted',
  bikeNumberTaken: 'another bike has this number',
  noSuchColleague: 'this colleague does not work here any more',
  noSuchRoom: 'this room does not exist',
  roomNameTaken: 'another room has this name already',
  roomInUse: 'classes use this room. Give them another room first',
  endsBeforeStart: 'a class lasts 5 to 600 minutes',
  noTitle: 'a class needs a name',
  noPlace: 'no bike is free in this room. Unpin a rider, or repair a bike',
  placesChanged: 'somebody changed the places since. Look at the floor first',
  planBusy: 'the server is busy; everything stayed as it was. Tap once more in a moment',
  planNameTaken: 'another plan has this name already',
  badBlocks: 'these blocks cannot be read as a plan',
  cueTooLong: 'a cue is one short sentence: at most 200 letters',
  noSuchMember: 'this member does not exist',
  adviceChanged: 'there is news about this rider, and another step comes first now. Open the page again',
  trialNeedsReason: 'another trial is running. Say why a second change should not wait',
  trialEnded: 'somebody ended this trial already; open the page again',
  trialNumbersChanged: 'the numbers were changed again after this trial began. There is no number to go back to',
  noSuchNumbers: 'these numbers, or their type, are gone. Open the page again',
  numbersChanged: 'the numbers have changed since you opened this page. Open it again',
  idTaken: 'an earlier try was saved with other content. Open the page again and look at it',
  inspectionTaken:
    'an earlier try for this bike was saved with other faults. Open the round again and look the bike over once more',
  assignmentTaken: 'this tap was saved before with other content. Tap once more',
  noNumbers: 'type the bikes’ numbers, such as 1-4 or 7',
  readingsGone: 'somebody took one of these readings back meanwhile. Open the page again',
  typeChanged: 'somebody changed this type meanwhile. Open it again; the readings are kept',
  noLength: 'no length was read',
  unknownReading: 'this kind of reading is not known',
  angleOutOfRange: 'an angle here is at most 30°',
  noseOutOfRange: 'a nose is less than 60 mm off its line',
  hasRecords: 'this bike has records. Retire it instead',
  itemTwice: 'one item is in the list twice',
} as const

/** The refusal in words, to stand after "Not kept: ". */
export function formatActionRefusal(refusal: ActionRefusal): string {
  switch (refusal.code) {
    case 'sameTypeName':
      return `there is a type called ${refusal.name} already; give this one another name`
    case 'versionConflict':
      return (
        `${refusal.by ?? 'somebody'} changed this type on ${refusal.date} at ${refusal.time}, ` +
        'while you were editing it. Open it again and enter your changes; what you typed is still here'
      )
    case 'numberTwice':
      return `number ${refusal.label} stands twice`
    case 'notANumber':
      return `“${refusal.label}” is not a bike number. Use 1 to 999`
    case 'numbersTaken':
      return `there is a bike ${refusal.numbers.join(' and ')} already; none was added`
    case 'bikeOutOfUse':
      return `bike ${refusal.number} is out of use until its fault is mended`
    case 'typeIssues':
      return refusal.issues.map((i) => `${formatTypePointer(i.pointer)}: ${i.reason}`).join('; ')
    case 'readingIssues':
      return refusal.issues.map((i) => i.reason).join('; ')
    case 'notFitted':
      return refusal.say
    default:
      return TEXT[refusal.code]
  }
}

/** Why a set-up could not be started, or gone on with: a sentence of its own. */
export const SETUP_REFUSAL_TEXT = Object.freeze({
  notAllowed: 'Your role in this studio does not allow set-ups.',
  start: 'This bike is out of use by now, or gone. Open the page again.',
  school: 'This set-up is saved by now, or gone; its school stays. Open the page again.',
  continue: 'This bike is out of use by now. Start a new set-up from the rider’s page.',
})

/** What an import of types did: "Imported. New: Sorrel; unchanged: Bracken and Thrift." */
export function formatImport(result: Readonly<Record<'added' | 'changed' | 'unchanged', readonly string[]>>): string {
  const { added, changed, unchanged } = result
  if (added.length + changed.length === 0) return 'Nothing to import: all these types are here already.'
  const parts = [
    ['new', added],
    ['changed', changed],
    ['unchanged', unchanged],
  ] as const
  const told = parts.flatMap(([word, names]) => (names.length > 0 ? [`${word}: ${formatList(names)}`] : []))
  return `Imported. ${capitalized(told.join('; '))}.`
}

/** Why a file of types was refused, a line each; `FILE_TOO_LARGE` where it was not even looked at. */
export const formatFileIssues = (issues: readonly Issue[]): string[] =>
  issues.slice(0, 12).map((i) => `${i.pointer || 'File'}: ${i.reason}`)
export const FILE_TOO_LARGE = 'This file is larger than 2 MB; types never are.'

/** What a page says that somebody's role does not see. */
export const notAllowedText = (role: string): string =>
  `Your role in this studio is ${role}, and this page is for others. ` +
  'Nothing was lost; a manager can say who may do what.'
