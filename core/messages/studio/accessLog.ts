/** Pages and files with health data, as the access log words that somebody saw them. */
export const SAW_TEXT: Readonly<Record<string, string>> = Object.freeze({
  rider: 'saw the rider’s page',
  reasons: 'saw what bothers the rider',
  story: 'saw the rider’s story',
  data: 'saw all that is stored',
  file: 'took all that is stored',
  setUp: 'saw a set-up',
  class: 'saw the floor of a class',
  afterClass: 'saw the lines after a class',
  picture: 'saw the studio’s picture of comfort',
  list: 'took the list of members',
  archive: 'took the studio’s archive',
  ownPage: 'opened their own page',
  ownFile: 'took all that is stored, from their own page',
  ownSetUp: 'took their own file along',
  log: 'saw this log',
})

/** Commands that change health data, as the access log words them. */
export const CHANGED_TEXT: Readonly<Record<string, string>> = Object.freeze({
  'alone.look': 'began to look at what the rider set alone',
  'alone.putAside': 'put aside what somebody set alone',
  'classes.followUpLine': 'saw to a line after class',
  'comfort.giveProgramme': 'gave exercises',
  'comfort.endProgramme': 'ended exercises',
  'comfort.reopenProgramme': 'opened exercises again',
  'comfort.resumeProgramme': 'took exercises up again',
  'comfort.endComplaint': 'closed a complaint',
  'comfort.finishTrial': 'ended a trial',
  'comfort.rate': 'rated a trial',
  'comfort.recordReferral': 'referred the rider',
  'comfort.recordSide': 'noted the side of a complaint',
  'comfort.reopenComplaint': 'opened a complaint again',
  'comfort.saveComplaint': 'noted a complaint',
  'comfort.startTrial': 'began a trial',
  'members.giveConsent': 'recorded their consent',
  'members.withdrawConsent': 'recorded that they withdrew their consent',
  'privacy.saveConsentWording': 'changed the wording of the consent',
  'ownPage.agreeToNotes': 'agreed to notes on their own page',
  'ownPage.withdrawConsent': 'withdrew their consent on their own page',
  'members.endLimit': 'ended a limit',
  'members.endPlan': 'dropped a plan',
  'members.eraseMember': 'erased the member',
  'members.mergeMembers': 'merged two members',
  'members.recordLimit': 'noted a limit',
  'members.recordPlan': 'noted a plan',
  'members.reopenLimit': 'opened a limit again',
  'members.reopenPlan': 'opened a plan again',
  'members.tickPlan': 'ticked a plan',
  'notes.addLook': 'looked at a rider in class',
  'notes.addNote': 'noted a sign in class',
  'notes.addRoomCue': 'cued the room',
  'notes.changeNote': 'changed a note',
  'notes.withdrawNote': 'took a note back',
  'ownPage.tickExercise': 'ticked an exercise',
  'ownPage.untickExercise': 'took the tick of an exercise back',
  'ownPage.rateOwnTrial': 'rated a trial from their own page',
  'ownPage.requestRecheck': 'asked for a second look',
  'ownPage.sendComplaint': 'sent a complaint',
  'ownPage.sendFelt': 'sent how it felt',
  'ownPage.sendHome': 'sent measures from home',
  'riderFiles.takeRiderFile': 'took a rider’s own file in',
  'privacy.saveRetention': 'changed how long things are kept',
  'register.confirmNumbers': 'confirmed a trainee’s numbers',
  'register.handleMessage': 'saw to a message',
  'register.moveMark': 'moved a mark',
  'register.restoreNumbers': 'went back to earlier numbers',
  'register.saveAfterChange': 'saved numbers after a change of shoes or saddle',
  'register.saveForType': 'saved numbers for another type',
  'register.saveFromTape': 'saved numbers from the rider’s own bike',
  'register.undoMove': 'took a move back',
  'setups.appendEvidence': 'noted something in a set-up',
  'setups.changeSchool': 'changed the school of a set-up',
  'setups.continueSetup': 'went on with a set-up',
  'setups.finishSetup': 'saved a set-up',
  'setups.startSetup': 'began a set-up',
  'setups.withdrawEvidence': 'took something back in a set-up',
})

/** Commands and forms that change people's rights, as the access log words them. */
export const RIGHTS_TEXT: Readonly<Record<string, string>> = Object.freeze({
  'people.changeRole': 'changed a role',
  'people.endAccess': 'ended somebody’s access',
  'people.endOwnSession': 'signed out another device',
  'people.invite': 'made an invitation',
  'people.makeKey': 'made a key for another program',
  'people.revokeKey': 'ended a key of another program',
  'people.requireSecondFactor': 'changed who needs a second factor',
  'people.revokeInvitation': 'took an invitation back',
  'riderFiles.knowStudio': 'took another studio as known',
  'riderFiles.forgetStudio': 'no longer takes a studio as known',
  'people.endTablet': 'unpaired a shared tablet',
  'people.pairTablet': 'paired a shared tablet',
  'register.openOwnPage': 'made a link to a member’s page',
  'register.revokeOwnPage': 'ended the links to a member’s page',
})

/** What people did who were not signed in. */
export const STRANGER_TEXT: Readonly<Record<string, string>> = Object.freeze({
  'signIn.guesses': 'guessed at a password or PIN until no more was taken',
})

/** What an entry of the log says; an entry of another version of this product is worded by its own name. */
export const formatAccess = (what: string): string =>
  CHANGED_TEXT[what] ?? RIGHTS_TEXT[what] ?? SAW_TEXT[what] ?? STRANGER_TEXT[what] ?? what

/** What a check of the log found. */
export type AccessVerdict =
  | Readonly<{ outcome: 'whole'; entries: number; waiting: number }>
  /** The first link that does not fit, and what is wrong with it. */
  | Readonly<{ outcome: 'broken'; link: number; why: 'changed' | 'missing' | 'cut' }>

const WHY: Readonly<Record<'changed' | 'missing' | 'cut', string>> = {
  changed: 'was changed',
  missing: 'was taken away',
  cut: 'and all after it were taken away',
}

/** "All 812 entries are as they were written." */
export function formatVerdict(verdict: AccessVerdict): string {
  if (verdict.outcome === 'broken')
    return `Entry ${verdict.link} ${WHY[verdict.why]} in the database. Somebody did that by hand.`
  const { entries } = verdict
  return entries === 1 ? 'The one entry is as it was written.' : `All ${entries} entries are as they were written.`
}
