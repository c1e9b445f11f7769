import { Type } from '@sinclair/typebox'
import type { ComplaintInput } from '../../core/comfort/complaintInput'
import { programmeSchema } from '../../core/comfort/programme/programme'
import { TRIAL_OUTCOMES } from '../../core/comfort/changes/trial'
import { oneLine } from '../../core/riders/memberPage/message'
import { closed, oneOf } from '../../core/base/schema'
import * as complaints from '../comfort/complaints'
import * as programmes from '../comfort/programmes'
import { readComplaint } from '../comfort/readComplaint'
import { setReferralText } from '../comfort/referral'
import { mayNote } from '../riders/consent'
import { findMember } from '../riders/members/members'
import * as trials from '../comfort/trialChanges'
import { startTrial as startTrialOf, type TrialInput } from './useCases/startTrial'
import {
  checkedInRun,
  defineCommand,
  idOrNull,
  idSchema,
  SAVED,
  ratingSchema,
  refused,
  typedText,
  type CommandOutcome,
} from './defineCommand'

const MAX_REFERRAL_LENGTH = 800
const MAX_RECIPIENT_LENGTH = 120

const ofComplaint = { memberId: idSchema, complaintId: idSchema }

const REFUSAL = {
  gone: 'noSuchMember',
  idTaken: 'idTaken',
  stale: 'adviceChanged',
  needsReason: 'trialNeedsReason',
  ended: 'trialEnded',
  numbersChanged: 'trialNumbersChanged',
} as const

const recorded = ({ outcome }: Readonly<{ outcome: 'kept' | keyof typeof REFUSAL }>): CommandOutcome =>
  outcome === 'kept' ? SAVED : refused({ code: REFUSAL[outcome] })

/** Records a complaint made to an instructor, or taken up from a note of a class. */
export const saveComplaint = defineCommand({
  name: 'comfort.saveComplaint',
  permission: 'writeNotes',
  ownsId: true,
  schema: closed({
    memberId: idSchema,
    said: checkedInRun<ComplaintInput>(),
    bikeId: idOrNull,
    noteId: idOrNull,
    /** The member agrees to notes with this one. */
    agrees: Type.Optional(Type.Boolean()),
  }),
  run: async (tx, scope, { memberId, said, bikeId, noteId, agrees = false }, { id, now }) => {
    const read = readComplaint(said)
    if (!read) return refused({ code: 'malformed' })
    if (!(await mayNote(tx, scope, memberId, agrees, now)))
      return refused({ code: (await findMember(tx, scope, memberId)) ? 'needsConsent' : 'noSuchMember' })
    return recorded(await complaints.addComplaint(tx, scope, { id, memberId, ...read, bikeId, noteId }, now))
  },
})

/** Records that a rider was referred, and to whom. */
export const recordReferral = defineCommand({
  name: 'comfort.recordReferral',
  permission: 'writeNotes',
  schema: closed({ ...ofComplaint, handedTo: typedText }),
  run: async (tx, scope, { memberId, complaintId, handedTo }, { now }) => {
    const recipient = oneLine(handedTo).slice(0, MAX_RECIPIENT_LENGTH)
    if (recipient === '') return refused({ code: 'malformed' })
    const taken = await complaints.complaintFromNote(tx, scope, { memberId, id: complaintId }, now)
    if (!taken) return recorded({ outcome: 'gone' })
    await complaints.recordReferral(tx, scope, complaintId, recipient, now)
    return SAVED
  },
})

/** Records the side of a lasting complaint. */
export const recordSide = defineCommand({
  name: 'comfort.recordSide',
  permission: 'writeNotes',
  schema: closed({ ...ofComplaint, side: oneOf(['left', 'right', 'both']) }),
  run: async (tx, scope, { memberId, complaintId, side }, { now }) => {
    const of = { memberId, id: complaintId }
    if (!(await complaints.complaintFromNote(tx, scope, of, now))) return recorded({ outcome: 'gone' })
    await complaints.recordSide(tx, scope, of, side)
    return SAVED
  },
})

/** Closes a complaint. */
export const endComplaint = defineCommand({
  name: 'comfort.endComplaint',
  permission: 'writeNotes',
  schema: closed(ofComplaint),
  run: async (tx, scope, { memberId, complaintId }, { now }) => {
    const taken = await complaints.complaintFromNote(tx, scope, { memberId, id: complaintId }, now)
    if (!taken) return recorded({ outcome: 'gone' })
    await complaints.closeComplaint(tx, scope, complaintId, now)
    return SAVED
  },
})

/** Opens a closed complaint again. */
export const reopenComplaint = defineCommand({
  name: 'comfort.reopenComplaint',
  permission: 'writeNotes',
  schema: closed(ofComplaint),
  run: async (tx, scope, { memberId, complaintId }) => {
    await complaints.reopen(tx, scope, { memberId, id: complaintId })
    return SAVED
  },
})

/** Puts on trial the change that the page of reasons shows; the command's id is the trial's. */
export const startTrial = defineCommand({
  name: 'comfort.startTrial',
  permission: 'setUpRiders',
  ownsId: true,
  inTransaction: false,
  schema: closed({
    ...ofComplaint,
    shown: closed({
      axis: Type.Unsafe<TrialInput['shown']['axis']>({ type: 'string', maxLength: 40 }),
      to: Type.Optional(Type.String({ maxLength: 40 })),
      deg: Type.Optional(Type.Number()),
    }),
    weeks: Type.Unsafe<1 | 2>({ enum: [1, 2] }),
    ratingBefore: ratingSchema,
    reason: Type.Unsafe<string | null>({ type: ['string', 'null'], maxLength: 2000 }),
  }),
  run: async (db, scope, input, { id, now }) => {
    const reason = input.reason ? oneLine(input.reason) || null : null
    return recorded(await startTrialOf(db, scope, { ...input, id, reason }, now))
  },
})

/** Records how it is during a trial, 0 to 10. */
export const rate = defineCommand({
  name: 'comfort.rate',
  permission: 'writeNotes',
  ownsId: true,
  schema: closed({ trialId: idSchema, rating: ratingSchema }),
  run: async (tx, scope, { trialId, rating }, { id, now }) => {
    const memberId = await trials.memberOfTrial(tx, scope, trialId)
    if (memberId && !(await mayNote(tx, scope, memberId, false, now))) return refused({ code: 'needsConsent' })
    return recorded(await trials.rateTrial(tx, scope, { id, trialId, rating }, now))
  },
})

/** Ends a trial. */
export const finishTrial = defineCommand({
  name: 'comfort.finishTrial',
  permission: 'setUpRiders',
  schema: closed({ trialId: idSchema, outcome: oneOf(TRIAL_OUTCOMES), leaveNumbers: Type.Boolean() }),
  run: async (tx, scope, { trialId, outcome, leaveNumbers }, { now }) =>
    recorded(await trials.endTrial(tx, scope, { id: trialId, outcome, leaveNumbers }, now)),
})

/** Sets the studio's own words for a referral; empty goes back to the product's. */
export const saveReferral = defineCommand({
  name: 'comfort.saveReferral',
  permission: 'manageStudio',
  schema: closed({ words: typedText }),
  run: async (tx, scope, { words }) => {
    const text = words.replace(/[^\S\n]+/gu, ' ').trim()
    if (text.length > MAX_REFERRAL_LENGTH) return refused({ code: 'malformed' })
    await setReferralText(tx, scope, text || null)
    return SAVED
  },
})

const { about, exercises, weeks } = programmeSchema.properties
const PROGRAMME_REFUSAL = {
  gone: 'noSuchMember',
  idTaken: 'idTaken',
  flagged: 'flagIsOpen',
  tooMany: 'enoughProgrammes',
  unknown: 'malformed',
} as const

/** Gives a rider exercises for some weeks; the command's id is the programme's. */
export const giveProgramme = defineCommand({
  name: 'comfort.giveProgramme',
  permission: 'writeNotes',
  ownsId: true,
  schema: closed({
    memberId: idSchema,
    about,
    exercises,
    weeks,
    /** The member agrees to notes with this one. */
    agrees: Type.Optional(Type.Boolean()),
  }),
  run: async (tx, scope, { memberId, agrees = false, ...given }, { id, now }) => {
    if (!(await mayNote(tx, scope, memberId, agrees, now)))
      return refused({ code: (await findMember(tx, scope, memberId)) ? 'needsConsent' : 'noSuchMember' })
    const { outcome } = await programmes.giveProgramme(tx, scope, { id, memberId, ...given }, now)
    return outcome === 'kept' ? SAVED : refused({ code: PROGRAMME_REFUSAL[outcome] })
  },
})

const ofProgramme = closed({ memberId: idSchema, programmeId: idSchema })

/** Ends a programme. */
export const endProgramme = defineCommand({
  name: 'comfort.endProgramme',
  permission: 'writeNotes',
  schema: ofProgramme,
  run: async (tx, scope, { memberId, programmeId }, { now }) => {
    await programmes.endProgramme(tx, scope, { id: programmeId, memberId }, now)
    return SAVED
  },
})

/** Takes back the end of a programme. */
export const reopenProgramme = defineCommand({
  name: 'comfort.reopenProgramme',
  permission: 'writeNotes',
  schema: ofProgramme,
  run: async (tx, scope, { memberId, programmeId }) => {
    await programmes.reopenProgramme(tx, scope, { id: programmeId, memberId })
    return SAVED
  },
})

/** Takes up a programme that a red flag stopped, once that is settled. */
export const resumeProgramme = defineCommand({
  name: 'comfort.resumeProgramme',
  permission: 'writeNotes',
  schema: ofProgramme,
  run: async (tx, scope, { memberId, programmeId }, { now }) => {
    const { outcome } = await programmes.resumeProgramme(tx, scope, { id: programmeId, memberId }, now)
    return outcome === 'kept' ? SAVED : refused({ code: 'flagIsOpen' })
  },
})
