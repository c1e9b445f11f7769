import type { BikeType } from '../bikes/bike/bike'
import type { Marks } from '../base/conventions'
import { formatMarks } from './words/labels'
import type { Issue } from './words/issues'
import type { LimitIssue } from '../riders/limits/limits'
import type { PlanIssue } from '../riders/plans/plan'
import { LIMIT_ISSUE_TEXT } from './riders/limits'
import { PLAN_ISSUE_TEXT } from './riders/plans'
import { capitalized } from './words/phrases'
import { formatTypePointer } from './bikes/typeFields'

/** Why a command was refused: a code, with the figures its sentence needs. */
export type Refusal =
  | Readonly<{ code: keyof typeof TEXT }>
  /** The input breaks its schema; each issue with its place. */
  | Readonly<{ code: 'malformed'; issues?: readonly Issue[] }>
  | Readonly<{ code: 'sameTypeName'; name: string }>
  /** The type has a later version, by whom (null: unknown); date and time on the studio's clock. */
  | Readonly<{ code: 'versionConflict'; by: string | null; date: string; time: string }>
  | Readonly<{ code: 'numberTwice' | 'notANumber'; label: string }>
  | Readonly<{ code: 'numbersTaken'; numbers: readonly number[] }>
  | Readonly<{ code: 'saddleTaken'; numbers: readonly number[] }>
  | Readonly<{ code: 'sameSaddleName'; name: string }>
  | Readonly<{ code: 'bikeOutOfUse'; number: number }>
  /** What is wrong with a type, each with its place in words; or with a reading, where the place is plain. */
  | Readonly<{ code: 'typeIssues' | 'readingIssues' | 'fileIssues'; issues: readonly Issue[] }>
  | Readonly<{ code: 'notFitted' | 'noProposal'; say: string }>
  | Readonly<{ code: 'badRow'; reasons: readonly string[] }>
  | Readonly<{ code: 'finished'; by: string; time: string; marks: Marks; bikeType: BikeType }>
  /** The axis stands at another mark by now: who set it, and when on the studio's clock. */
  | Readonly<{ code: 'markElsewhere'; label: string | null; by: string; time: string }>
  | Readonly<{ code: 'memberNumberTaken'; number: string }>
  | Readonly<{ code: 'badLimit'; issue: LimitIssue }>
  | Readonly<{ code: 'badPlan'; issue: PlanIssue }>
  | Readonly<{ code: 'nameTooLong'; maxLength: number }>
  | Readonly<{ code: 'sameName'; name: string }>
  | Readonly<{ code: 'addedBefore'; name: string; as: string }>
export type RefusalCode = Refusal['code']

/** The sentences without figures, to follow "Not kept: " and be followed by a full stop. */
const TEXT = {
  notAllowed: 'your role in this studio does not allow it',
  malformed: 'the request was cut short',
  idTaken: 'an earlier try was saved with other content. Open the page again and look at it',

  // Members
  confirmByAnother: 'whoever saved numbers cannot confirm them. Ask another instructor',
  needsConsent: 'the member has not agreed to notes about their body and health. Ask them, and record it on their page',
  emptyWording: 'the wording is empty',
  otherName: 'that is another name than the member’s',

  // Bikes
  noSuchType: 'this type does not exist',
  noSuchBike: 'this bike does not exist',
  notNamed: 'its riders’ checks no longer say so, or they are being computed again. Open the page again',
  typeInUse: 'a bike is of this type, or numbers are; only a type that nothing uses can be deleted',
  bikeNumberTaken: 'another bike has this number',
  noSuchSaddle: 'this saddle or bike is gone; load the page again',
  inspectionTaken:
    'an earlier try for this bike was saved with other faults. Open the round again and look the bike over once more',
  noNumbers: 'type the bikes’ numbers, such as 1-4 or 7',
  readingsGone: 'somebody took one of these readings back meanwhile. Open the page again',
  typeChanged: 'somebody changed this type meanwhile. Open it again; the readings are kept',
  noLength: 'no length was read',
  unknownReading: 'this kind of reading is not known',
  angleOutOfRange: 'an angle here is at most 30°',
  noseOutOfRange: 'a nose is less than 60 mm off its line',
  hasRecords: 'this bike has records. Retire it instead',
  itemTwice: 'one item is in the list twice',
  fileTooLarge: 'this file is larger than 2 MB; types never are',

  // People and the studio
  noSuchPerson: 'nobody with access to this studio has this account',
  lastManager: 'somebody must manage the studio: make another person manager first',
  noStudioName: 'a studio needs a name',
  studioNameTooLong: 'the name or the place is longer than 120 letters; shorten it',
  noTimeZone: 'this is no time zone. Choose one from the list',

  // Members
  noSuchMember: 'this member does not exist',
  noName: 'a member needs a name',
  renamedMeanwhile: 'this member has another name by now; open their page',
  changedMeanwhile: 'somebody else changed this member meanwhile. Open the page again to see it',
  sameMember: 'this is the same member. Choose the other one',
  limitNeedsConsent: 'a limit is stored only if the rider agrees',
  numberTooLong: 'the member number is longer than 40 letters',
  notAnEmail: 'this is no e-mail address, such as ada@example.org',
  notAHeight: 'this is no height of an adult. Write 168, 168 cm, 1.68 m or 5′6″',
  linkEnded: 'this link has ended; ask the studio for a new one',
  tooManyToday: 'you sent a lot today, and the studio has it. Tell somebody there what is new',
  unreadable: 'something in it cannot be read; look it over and send it again',
  flagIsOpen: 'a red flag is open. Refer the rider first; exercises wait until that is settled',
  enoughProgrammes: 'two programmes run already. End one before another is given',
  programmeOver: 'these exercises are over or stopped; open the page again',
  fileUnreadable: 'the file cannot be read',
  fileChanged: 'the member or a type changed meanwhile. Read the file again',
  fileIsTold: 'of a file that is only told, numbers alone are taken',
  ownTrialEnded: 'this trial is over already; open the page again',

  // Numbers and set-ups
  noSuchNumbers: 'these numbers, or their type, are gone. Open the page again',
  numbersChanged: 'the numbers have changed since you opened this page. Open it again',
  bikeGone: 'this bike is out of use by now, or gone. Open the page again',
  setupEnded: 'this set-up is saved by now, or gone; its school stays. Open the page again',
  cannotContinue: 'this bike is out of use by now. Start a new set-up from the rider’s page',
  noSetup: 'this set-up does not exist',
  entryTaken: 'this was saved before with other content. Enter it once more',
  full: 'this set-up is full, with 500 rows. Save its numbers and start a new one',
  moveNeedsReason: 'another change came first today, or one is on trial. Say why a second one does not wait',
  noNumbersToMove: 'this rider has no numbers on this type yet. Set them up here first',
  noSuchMark: 'the scale has no such mark',
  incomplete: 'not every scale has its mark yet',

  // Alone at a machine
  ownNameMissing: 'the instructor looks for you by a name; a first name will do',
  notAlone: 'this studio sets riders up itself. Ask an instructor',
  tooManyHere: 'a lot was sent from this bike or this phone just now. Your numbers stay on this phone; show them',
  outOfUseHere: 'this bike is out of use. Take another one, and tell the studio',
  codeChanged: 'the code on this bike was changed. Scan the one that is on it now',
  lookedAtAlready: 'somebody looked at this already, or put it aside',

  // Classes
  noSuchClass: 'this class does not exist',
  classChanged: 'somebody else changed this class meanwhile. Open it again to see it',
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
  assignmentTaken: 'this tap was saved before with other content. Tap once more',
  noNote: 'this rider or bike does not exist',
  noClass: 'this class does not exist',
  unknownSign: 'this sign is not known',

  // Comfort
  adviceChanged: 'there is news about this rider, and another step comes first now. Open the page again',
  trialNeedsReason: 'another trial is running. Say why a second change should not wait',
  trialEnded: 'somebody ended this trial already; open the page again',
  trialNumbersChanged: 'the numbers were changed again after this trial began. There is no number to go back to',
} as const

/** The refusal in words, to follow "Not kept: " and be followed by a full stop. */
export function formatRefusal(refusal: Refusal): string {
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
    case 'saddleTaken':
      return (
        `every piece of it is on a bike already: ${refusal.numbers.join(', ')}; ` +
        'put another saddle there first, or count one piece more'
      )
    case 'sameSaddleName':
      return `another saddle is called ${refusal.name}`
    case 'numbersTaken':
      return `there is a bike ${refusal.numbers.join(' and ')} already; none was added`
    case 'bikeOutOfUse':
      return `bike ${refusal.number} is out of use until its fault is mended`
    case 'typeIssues':
      return refusal.issues.map((i) => `${formatTypePointer(i.pointer)}: ${i.reason}`).join('; ')
    case 'readingIssues':
      return refusal.issues.map((i) => i.reason).join('; ')
    case 'fileIssues':
      return formatFileIssues(refusal.issues).join('; ')
    case 'notFitted':
    case 'noProposal':
      return refusal.say
    case 'badRow':
      return refusal.reasons.join('; ')
    case 'finished':
      return (
        `${refusal.by} saved ${formatMarks(refusal.bikeType, refusal.marks)} here ${refusal.time}` +
        '. What you saw since is still on this device; start a new set-up from it'
      )
    case 'markElsewhere':
      return (
        `${refusal.by} set this to ${refusal.label ?? 'no mark'} at ${refusal.time}, after this page showed it. ` +
        'Look at the bike, and move it from there'
      )
    case 'badLimit':
      return LIMIT_ISSUE_TEXT[refusal.issue]
    case 'badPlan':
      return PLAN_ISSUE_TEXT[refusal.issue]
    case 'memberNumberTaken':
      return `another member has the number ${refusal.number}`
    case 'nameTooLong':
      return `the name is longer than ${refusal.maxLength} letters; shorten it`
    case 'sameName':
      return `there is already a ${refusal.name}. Add another one of that name?`
    case 'addedBefore':
      return `an earlier try added this member as ${refusal.as}. Correct the name to ${refusal.name}?`
    default:
      return TEXT[refusal.code]
  }
}

/** The same as a sentence of its own: "A member needs a name." */
export const asSentence = (text: string): string => capitalized(text) + (/[.?!]$/.test(text) ? '' : '.')

/** Issues of a file of types, a line each. */
export const formatFileIssues = (issues: readonly Issue[]): string[] =>
  issues.slice(0, 12).map((i) => `${i.pointer || 'File'}: ${i.reason}`)
