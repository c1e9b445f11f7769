import { Type } from '@sinclair/typebox'
import type { ComplaintInput } from '../../core/comfort/complaintInput'
import { feltFrom, oneLine, type HomeMeasures, type MemberMessageBody } from '../../core/riders/memberPage/message'
import { evidenceIssues, requestIssues } from '../../core/operations/dispatch'
import { closed } from '../../core/base/schema'
import { listTypes } from '../bikes/versions'
import { addOwnComplaint } from '../comfort/complaints'
import { tickExercise as tickDay, untickExercise as untickDay } from '../comfort/programmes'
import { readComplaint } from '../comfort/readComplaint'
import { rateTrial } from '../comfort/trialChanges'
import type { Database } from '../platform/db/connection'
import * as consents from '../riders/consent'
import type { LinkOwner } from '../riders/memberPage/links'
import { addMessage } from '../riders/memberPage/messages'
import {
  checkedInRun,
  defineOwnCommand,
  idSchema,
  SAVED,
  ratingSchema,
  refused,
  type CommandContext,
} from './defineCommand'

/** Kinds of evidence that members give about themselves at home. */
const HOME_KINDS: readonly string[] = ['rider', 'stature', 'inseam', 'segment']
const MAX_ROWS = 6

const unreadable = refused({ code: 'unreadable' })
const recorded = (outcome: string) =>
  outcome === 'kept' ? SAVED : outcome === 'tooMany' ? refused({ code: 'tooManyToday' }) : unreadable

async function saveMessage(
  tx: Database,
  owner: LinkOwner,
  kind: 'felt' | 'recheck' | 'home',
  body: MemberMessageBody | null,
  { id, now }: CommandContext,
) {
  return body ? recorded((await addMessage(tx, owner, { id, kind, body }, now)).outcome) : unreadable
}

/** The page shows the wording beside the button: sending a rating gives consent. */
const agree = (tx: Database, { studioId, memberId }: LinkOwner, { now }: CommandContext) =>
  consents.giveConsent(tx, { studioId, userId: null }, memberId, 'ownPage', now)

/** The member agrees to health notes. */
export const agreeToNotes = defineOwnCommand({
  name: 'ownPage.agreeToNotes',
  schema: closed({}),
  run: async (tx, owner, _, context) => {
    await agree(tx, owner, context)
    return SAVED
  },
})

/** The member withdraws their consent to health notes. */
export const withdrawConsent = defineOwnCommand({
  name: 'ownPage.withdrawConsent',
  schema: closed({}),
  run: async (tx, { studioId, memberId }, _, { now }) => {
    await consents.withdrawConsent(tx, { studioId, userId: null }, memberId, now)
    return SAVED
  },
})

/** How a ride felt. */
export const sendFelt = defineOwnCommand({
  name: 'ownPage.sendFelt',
  ownsId: true,
  schema: closed({ felt: Type.Unknown() }),
  run: async (tx, owner, { felt }, context) => {
    await agree(tx, owner, context)
    return saveMessage(tx, owner, 'felt', feltFrom(felt), context)
  },
})

/** Requests a re-check from the studio. */
export const requestRecheck = defineOwnCommand({
  name: 'ownPage.requestRecheck',
  ownsId: true,
  schema: closed({ line: Type.String() }),
  run: (tx, owner, { line }, context) => saveMessage(tx, owner, 'recheck', { line: oneLine(line) }, context),
})

/** What was answered and measured at home. */
export const sendHome = defineOwnCommand({
  name: 'ownPage.sendHome',
  ownsId: true,
  schema: closed({ home: checkedInRun<HomeMeasures>() }),
  run: async (tx, owner, { home }, context) =>
    saveMessage(tx, owner, 'home', await homeBody(tx, owner.studioId, home), context),
})

async function homeBody(db: Database, studioId: string, home: unknown): Promise<HomeMeasures | null> {
  const { evidence, ownBike } = (home ?? {}) as Partial<HomeMeasures>
  const isListed =
    Array.isArray(evidence) &&
    evidence.length <= MAX_ROWS &&
    evidence.every((row) => HOME_KINDS.includes(row?.kind) && evidenceIssues(row).length === 0)
  if (!isListed || (evidence.length === 0 && !ownBike)) return null
  if (!ownBike) return { evidence }
  const [type] = await listTypes(db, { studioId, userId: '', role: 'desk' })
  if (!type || requestIssues('translate', { from: ownBike, to: { bikeType: type.bikeType } }).length > 0) return null
  const { lengths, crankMm, noseAheadMm } = ownBike
  return { evidence, ownBike: { lengths, crankMm, noseAheadMm } }
}

/** A complaint of the member. */
export const sendComplaint = defineOwnCommand({
  name: 'ownPage.sendComplaint',
  ownsId: true,
  schema: closed({ said: checkedInRun<ComplaintInput>() }),
  run: async (tx, owner, { said }, context) => {
    const { id, now } = context
    await agree(tx, owner, context)
    const read = readComplaint(said)
    return read ? recorded((await addOwnComplaint(tx, owner, { id, ...read }, now)).outcome) : unreadable
  },
})

/** How it is during a trial of the member's own, 0 to 10. */
export const rateOwnTrial = defineOwnCommand({
  name: 'ownPage.rateOwnTrial',
  ownsId: true,
  schema: closed({ trialId: idSchema, rating: ratingSchema }),
  run: async (tx, owner, { trialId, rating }, context) => {
    const { id, now } = context
    await agree(tx, owner, context)
    const { outcome } = await rateTrial(tx, owner, { id, trialId, rating }, now)
    return outcome === 'ended' ? refused({ code: 'ownTrialEnded' }) : recorded(outcome)
  },
})

const ofDay = {
  programmeId: idSchema,
  item: Type.Integer({ minimum: 0, maximum: 9 }),
  day: Type.String({ minLength: 10, maxLength: 10 }),
}
const ofRunning = (outcome: 'kept' | 'over' | 'unreadable') =>
  outcome === 'kept' ? SAVED : outcome === 'over' ? refused({ code: 'programmeOver' }) : unreadable

/** The member did an exercise of their programme on a day. */
export const tickExercise = defineOwnCommand({
  name: 'ownPage.tickExercise',
  ownsId: true,
  schema: closed(ofDay),
  run: async (tx, owner, input, { id, now }) => ofRunning((await tickDay(tx, owner, { id, ...input }, now)).outcome),
})

/** Takes the day of an exercise back. */
export const untickExercise = defineOwnCommand({
  name: 'ownPage.untickExercise',
  schema: closed(ofDay),
  run: async (tx, owner, input, { now }) => ofRunning((await untickDay(tx, owner, input, now)).outcome),
})
