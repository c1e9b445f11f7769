'use server'
import { formatActionRefusal } from '@/core/messages/actions'
import { TRIAL_OUTCOMES, type TrialOutcome } from '@/core/complaints/trial'
import { oneLine } from '@/core/memberPage/message'
import type { Permission } from '@/server/accounts/can'
import { authorize, type CurrentUser } from '@/server/accounts/session'
import * as complaints from '@/server/comfort/complaints'
import * as reasons from '@/server/comfort/reasons'
import type { TrialAsked } from '@/server/comfort/reasons'
import { setReferralText } from '@/server/comfort/referral'
import { endTrial, rateTrial } from '@/server/comfort/trialChanges'
import { database } from '@/server/db/connection'
import { isId, textOf } from '@/server/ids'
import type { ActionResult } from '../shared/actionResult'
import { readComplaint } from './readComplaint'

const SAID = {
  gone: 'noSuchMember',
  idTaken: 'idTaken',
  stale: 'adviceChanged',
  needsReason: 'trialNeedsReason',
  ended: 'trialEnded',
  numbersChanged: 'trialNumbersChanged',
} as const
type Refused = keyof typeof SAID

const refused = (code: 'notAllowed' | 'malformed' | (typeof SAID)[Refused]) =>
  ({ outcome: 'refused', say: formatActionRefusal({ code }) }) as const

/** Does what a person of this permission asks, and says in words why not. */
async function keep(
  permission: Permission,
  readable: boolean,
  write: (person: CurrentUser) => Promise<Readonly<{ outcome: 'kept' | Refused }>>,
): Promise<ActionResult<object, { code?: Refused }>> {
  const person = await authorize(permission)
  if (!person) return refused('notAllowed')
  if (!readable) return refused('malformed')
  const { outcome } = await write(person)
  return outcome === 'kept' ? { outcome } : { ...refused(SAID[outcome]), code: outcome }
}

/** Keeps a complaint that an instructor heard, or took up from a note of the floor. */
export async function keepComplaint(
  id: string,
  memberId: string,
  sent: unknown,
  from: Readonly<{ bikeId: string | null; noteId: string | null }>,
): Promise<ActionResult> {
  const said = readComplaint(sent)
  const { bikeId, noteId } = from ?? {}
  const readable = said !== null && [id, memberId].every(isId) && [bikeId, noteId].every((one) => !one || isId(one))
  return keep('writeNotes', readable, (person) =>
    complaints.addComplaint(
      database(),
      person,
      { id, memberId, ...said!, bikeId: bikeId ?? null, noteId: noteId ?? null },
      new Date(),
    ),
  )
}

/** Says that a rider was sent on, and who was told. */
export async function recordReferral(memberId: string, id: string, handedTo: string): Promise<ActionResult> {
  const told = oneLine(handedTo).slice(0, 120)
  return keep('writeNotes', isId(memberId) && isId(id) && told !== '', async (person) => {
    const now = new Date()
    const taken = await complaints.complaintFromNote(database(), person, { memberId, id }, now)
    if (!taken) return { outcome: 'gone' }
    await complaints.recordReferral(database(), person, id, told, now)
    return { outcome: 'kept' }
  })
}

/** Records the side of a lasting complaint. */
export async function sayWhichSide(memberId: string, id: string, side: string): Promise<ActionResult> {
  const known = (['left', 'right', 'both'] as const).find((one) => one === side)
  return keep('writeNotes', isId(memberId) && isId(id) && known !== undefined, async (person) => {
    const taken = await complaints.complaintFromNote(database(), person, { memberId, id }, new Date())
    if (!taken) return { outcome: 'gone' }
    await complaints.tellSide(database(), person, { memberId, id }, known!)
    return { outcome: 'kept' }
  })
}

/** Says that a complaint is over. */
export async function endComplaint(memberId: string, id: string): Promise<ActionResult> {
  return keep('writeNotes', isId(memberId) && isId(id), async (person) => {
    const now = new Date()
    const taken = await complaints.complaintFromNote(database(), person, { memberId, id }, now)
    if (!taken) return { outcome: 'gone' }
    await complaints.closeComplaint(database(), person, id, now)
    return { outcome: 'kept' }
  })
}

/** Takes the end of a complaint back. */
export async function reopenComplaint(memberId: string, id: string): Promise<ActionResult> {
  return keep('writeNotes', isId(memberId) && isId(id), async (person) => {
    await complaints.reopen(database(), person, { memberId, id })
    return { outcome: 'kept' }
  })
}

const isRating = (rating: unknown): rating is number =>
  Number.isInteger(rating) && (rating as number) >= 0 && (rating as number) <= 10

/** Puts on trial what the page of reasons shows. */
export async function startTrial(asked: TrialAsked): Promise<ActionResult<object, { code?: Refused }>> {
  const { id, memberId, complaintId, shown, weeks, ratingBefore, reason } = asked ?? {}
  const readable =
    [id, memberId, complaintId].every(isId) &&
    typeof shown?.axis === 'string' &&
    (weeks === 1 || weeks === 2) &&
    isRating(ratingBefore)
  const why = reason ? oneLine(reason) : null
  return keep('setUpRiders', readable, (person) =>
    reasons.startTrial(
      database(),
      person,
      { id, memberId, complaintId, shown, weeks, ratingBefore, reason: why || null },
      new Date(),
    ),
  )
}

/** Keeps how it is during a trial. */
export async function rate(id: string, trialId: string, rating: number): Promise<ActionResult> {
  return keep('writeNotes', isId(id) && isId(trialId) && isRating(rating), (person) =>
    rateTrial(database(), person, { id, trialId, rating }, new Date()),
  )
}

/** Ends a trial. */
export async function finishTrial(
  id: string,
  outcome: TrialOutcome,
  leaveNumbers: boolean,
): Promise<ActionResult<object, { code?: Refused }>> {
  return keep('setUpRiders', isId(id) && TRIAL_OUTCOMES.includes(outcome), (person) =>
    endTrial(database(), person, { id, outcome, leaveNumbers: leaveNumbers === true }, new Date()),
  )
}

const MAX_REFERRAL_LENGTH = 800

/** Words what is said to a rider who is sent on; empty goes back to the product's own words. */
export async function keepReferral(words: string): Promise<ActionResult> {
  const text = textOf(words)
    .replace(/[^\S\n]+/gu, ' ')
    .trim()
  return keep('manageStudio', text.length <= MAX_REFERRAL_LENGTH, async (person) => {
    await setReferralText(database(), person, text || null)
    return { outcome: 'kept' }
  })
}
