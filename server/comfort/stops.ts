import { and, desc, eq, gte, inArray, isNull } from 'drizzle-orm'
import { redFlagsOf } from '../../core/comfort/model/redFlags'
import { formatRedFlag } from '../../core/messages/classes/watch'
import { formatLimitStop } from '../../core/messages/riders/limits'
import { FLAG_TEXT } from '../../core/messages/comfort/complaints'
import { RED_FLAG } from '../../core/classes/watch/comfort'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { effectsOfLimits } from '../riders/limits'
import { classNote } from '../classes/tables'
import { asComplaint, FELT_OPEN_MS, feltAsComplaints, isReferred, listComplaintsOf } from './complaints'

/** More red flags of one class than this nobody taps. */
const MAX_FLAGS = 2000

/**
 * Riders with an open red flag, each with the flag in words ("Sharp pain"): of an open complaint, of something felt on
 * the floor, or tapped there and not recorded since; or with a limit that waits for a clinician's word. Their set-up
 * stops until it is over.
 */
export async function stopsOf(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, string>> {
  if (memberIds.length === 0) return new Map()
  const { id, memberId, region } = classNote
  const [complaints, felt, tapped] = [
    await listComplaintsOf(db, scope, memberIds),
    await feltAsComplaints(db, scope, memberIds, now),
    await db
      .select({ id, memberId, region })
      .from(classNote)
      .where(
        and(
          inArray(classNote.memberId, [...memberIds]),
          eq(classNote.studioId, scope.studioId),
          eq(classNote.sign, RED_FLAG),
          gte(classNote.createdAt, new Date(now.getTime() - FELT_OPEN_MS)),
          isNull(classNote.withdrawnAt),
        ),
      )
      .orderBy(desc(classNote.createdAt))
      .limit(MAX_FLAGS),
  ]
  const recorded = new Set(complaints.map(({ noteId }) => noteId))
  const recordedFlags = new Set(complaints.filter(isReferred).map(({ noteId }) => noteId))
  const stops = new Map<string, string>()
  for (const note of tapped)
    if (!recordedFlags.has(note.id) && !stops.has(note.memberId)) stops.set(note.memberId, formatRedFlag(note.region))
  // What waits for a clinician's word stops like a flag, and comes behind one.
  const limits = await effectsOfLimits(db, scope, memberIds, now)
  for (const member of memberIds) {
    if (stops.has(member)) continue
    const open = [
      ...complaints.filter((one) => one.memberId === member && one.closedAt === null),
      ...felt.filter(
        (one) =>
          one.memberId === member &&
          !recorded.has(one.id) &&
          !complaints.some(
            ({ memberId: whose, what, closedAt }) =>
              whose === member && what === one.what && closedAt !== null && closedAt >= one.createdAt,
          ),
      ),
    ]
    const health = [...new Set(open.flatMap((one) => one.health))]
    const [flag] = open.flatMap((one) =>
      redFlagsOf(asComplaint(one), { health, others: open.filter((other) => other !== one).map(asComplaint) }),
    )
    const limit = limits.get(member)?.stop
    if (flag) stops.set(member, FLAG_TEXT[flag])
    else if (limit) stops.set(member, formatLimitStop(limit))
  }
  return stops
}
