import type { Change } from '../../../core/comfort/changes/changeTypes'
import { formatChange, formatExpected } from '../../../core/messages/comfort/complaints'
import type { Scope } from '../../platform/accounts/scope'
import { complaintFromNote } from '../../comfort/complaints'
import { insertTrial, lockMember, type TrialResult } from '../../comfort/trialChanges'
import { withTransaction, type Database } from '../../platform/db/connection'
import { reasonsOf } from '../../pages/comfort/reasons'

/** What the page showed and is put on trial: the change, or the slide beside it. */
export type TrialInput = Readonly<{
  id: string
  memberId: string
  complaintId: string
  shown: Readonly<{ axis: Change['axis']; to?: string; deg?: number }>
  weeks: 1 | 2
  ratingBefore: number
  reason: string | null
}>

/** A sentence in the form that register and trial store. */
const MAX_TEXT_LENGTH = 400

/**
 * Starts a trial of the change that `explain` proposes now, recomputed here. `stale`: it differs from the one on the
 * page, or a red flag was added meanwhile.
 */
export async function startTrial(db: Database, scope: Scope, input: TrialInput, now: Date): Promise<TrialResult> {
  return withTransaction(db, async (tx) => {
    // Locks before the first read, so that the reads are current.
    if (!(await lockMember(tx, scope, input.memberId))) return { outcome: 'gone' }
    const taken = await complaintFromNote(tx, scope, { memberId: input.memberId, id: input.complaintId }, now)
    if (!taken) return { outcome: 'gone' }
    const { complaints, answer, onFile, trials } = await reasonsOf(tx, scope, input.memberId, now)
    if (trials.some(({ id }) => id === input.id)) return { outcome: 'kept' }
    if (!input.reason && trials.some(({ endedAt }) => endedAt === null)) return { outcome: 'needsReason' }
    const changes = [answer?.change, answer?.orSlide].filter((one) => one !== undefined)
    const { axis, to, deg } = input.shown
    const change = changes.find((one) => one.axis === axis && one.to === to && one.deg === deg)
    if (!answer || !change || !complaints.some(({ id }) => id === input.complaintId)) return { outcome: 'stale' }
    const cause = answer.proposedFor!
    return insertTrial(
      tx,
      scope,
      {
        id: input.id,
        memberId: input.memberId,
        complaintId: input.complaintId,
        cause,
        change,
        said: formatChange(change, onFile.entry?.type).slice(0, MAX_TEXT_LENGTH),
        because: answer.causes.find((one) => one.cause === cause)?.for ?? [],
        expects: change === answer.change ? (answer.expect ?? []).map(formatExpected) : [],
        weeks: input.weeks,
        ratingBefore: input.ratingBefore,
        reason: input.reason,
        bikeId: onFile.bike?.id ?? null,
        entry: onFile.entry,
      },
      now,
    )
  })
}
