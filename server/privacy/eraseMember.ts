import { and, eq, inArray, like, or, sql } from 'drizzle-orm'
import { classCue } from '../classes/tables'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { settleAccessLog } from './accessLog/settle'
import { MEMBER_TABLES } from './memberRows'
import { erasure, member, memberMerge } from '../riders/tables'
import { commandReceipt } from '../platform/receipts/tables'

/** A member who is erased, or was. */
export type Erased = Readonly<{ studioId: string; memberId: string }>

/**
 * Erases a member: every row of theirs, their place in cues to the room, and receipts that name them. What is left is
 * a record of the erasure by id, also of those who were merged into the member. Resolves with these ids; empty where
 * the studio has no such member.
 */
export async function eraseMember(
  db: Database,
  { studioId, userId }: Pick<Scope, 'studioId'> & Readonly<{ userId: string | null }>,
  memberId: string,
  now: Date,
): Promise<Erased[]> {
  return withTransaction(db, async (tx) => {
    const [found] = await tx
      .select({ name: member.name })
      .from(member)
      .where(and(eq(member.id, memberId), eq(member.studioId, studioId)))
      .for('update')
    if (!found) return []
    const merged = await tx
      .select({ id: memberMerge.id, name: memberMerge.name })
      .from(memberMerge)
      .where(eq(memberMerge.memberId, memberId))
    const ids = [memberId, ...merged.map(({ id }) => id)]
    // Who saw and changed what stays, by id; the receipts it is taken over from do not.
    await settleAccessLog(tx as Database, studioId)
    await leaveCues(tx, studioId, ids)
    for (const { table, of } of MEMBER_TABLES) await tx.delete(table).where(of(tx, memberId))
    const named = [found, ...merged].map(({ name }) => like(commandReceipt.outcome, `%${likeText(name)}%`))
    await tx
      .delete(commandReceipt)
      .where(
        and(
          eq(commandReceipt.studioId, studioId),
          or(inArray(commandReceipt.subject, ids), and(sql`${commandReceipt.outcome} <> ${PLAIN}`, or(...named))),
        ),
      )
    await tx
      .insert(erasure)
      .values(ids.map((id) => ({ studioId, memberId: id, createdAt: now, erasedBy: userId })))
      .onDuplicateKeyUpdate({ set: { createdAt: now } })
    return ids.map((id) => ({ studioId, memberId: id }))
  })
}

/** The answer of most commands: it contains no name. */
const PLAIN = JSON.stringify({ outcome: 'kept' })

/** A text as a part of a LIKE pattern over JSON. */
const likeText = (text: string): string =>
  JSON.stringify(text)
    .slice(1, -1)
    .replace(/[\\%_]/g, '\\$&')

/** Cues to the room name whom they concerned. */
async function leaveCues(tx: DbExecutor, studioId: string, ids: readonly string[]): Promise<void> {
  const named = await tx
    .select({ id: classCue.id, concerned: classCue.concerned })
    .from(classCue)
    .where(and(eq(classCue.studioId, studioId), or(...ids.map((id) => like(classCue.concerned, `%"${id}"%`)))))
  for (const { id, concerned } of named)
    await tx
      .update(classCue)
      .set({ concerned: concerned.filter((one) => !ids.includes(one)) })
      .where(eq(classCue.id, id))
}

/** Whether a member of this studio was erased. */
export async function wasErased(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>, memberId: string) {
  const own = and(eq(erasure.memberId, memberId), eq(erasure.studioId, studioId))
  return (await db.select({ memberId: erasure.memberId }).from(erasure).where(own)).length > 0
}

/** All erasures of this database. */
export const listErasures = (db: DbExecutor): Promise<Erased[]> =>
  db.select({ studioId: erasure.studioId, memberId: erasure.memberId }).from(erasure)

/** Erases again whom a restored database brought back. Resolves with the number of members. */
export async function replayErasures(db: Database, erased: readonly Erased[], now: Date): Promise<number> {
  let count = 0
  for (const { studioId, memberId } of erased)
    if ((await eraseMember(db, { studioId, userId: null }, memberId, now)).length > 0) count += 1
  return count
}
