import { and, desc, eq, ne } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import { user } from '../platform/accounts/tables'
import type { DbExecutor } from '../platform/db/connection'
import { member } from '../riders/tables'
import { registerCurrent, registerEntry } from './tables'

/** Numbers in force that a trainee saved and nobody looked over. */
export type WaitingNumbers = Readonly<{ entryId: string; memberId: string; name: string; by: string; createdAt: Date }>

const MAX_WAITING = 50

/** Those of the whole studio, the latest first. */
export const listWaitingNumbers = (db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>): Promise<WaitingNumbers[]> =>
  db
    .select({
      entryId: registerEntry.id,
      memberId: registerEntry.memberId,
      name: member.name,
      by: user.name,
      createdAt: registerEntry.createdAt,
    })
    .from(registerEntry)
    .innerJoin(registerCurrent, eq(registerCurrent.entryId, registerEntry.id))
    .innerJoin(member, eq(member.id, registerEntry.memberId))
    .innerJoin(user, eq(user.id, registerEntry.createdBy))
    .where(and(eq(registerEntry.studioId, studioId), eq(registerEntry.awaitsConfirmation, true)))
    .orderBy(desc(registerEntry.createdAt))
    .limit(MAX_WAITING)

/**
 * `own`: their author cannot confirm them; `gone`: the studio has no such numbers. A second confirmation is `kept`.
 */
export type Confirmed = 'kept' | 'own' | 'gone'

/** Records that a second person looked numbers over. */
export async function confirmNumbers(tx: DbExecutor, scope: Scope, entryId: string, now: Date): Promise<Confirmed> {
  const own = and(eq(registerEntry.id, entryId), eq(registerEntry.studioId, scope.studioId))
  const [found] = await tx
    .select({ createdBy: registerEntry.createdBy, awaits: registerEntry.awaitsConfirmation })
    .from(registerEntry)
    .where(own)
    .for('update')
  if (!found) return 'gone'
  if (!found.awaits) return 'kept'
  if (found.createdBy === scope.userId) return 'own'
  await tx
    .update(registerEntry)
    .set({ awaitsConfirmation: false, confirmedBy: scope.userId, confirmedAt: now })
    .where(own)
  return 'kept'
}

/** The same of all numbers in force of one rider, as after a look in class; a person's own stay as they are. */
export async function confirmNumbersOf(tx: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<void> {
  const waiting = await tx
    .select({ id: registerEntry.id })
    .from(registerEntry)
    .innerJoin(registerCurrent, eq(registerCurrent.entryId, registerEntry.id))
    .where(
      and(
        eq(registerEntry.memberId, memberId),
        eq(registerEntry.studioId, scope.studioId),
        eq(registerEntry.awaitsConfirmation, true),
        ne(registerEntry.createdBy, scope.userId),
      ),
    )
  for (const { id } of waiting) await confirmNumbers(tx, scope, id, now)
}
