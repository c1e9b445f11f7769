import { and, desc, eq, gt, isNotNull } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import type { Scope } from './scope'
import { announceSessionsEnded } from './sessionsEnded'
import { session } from './tables'

/** A place where a person is signed in. */
export type OwnSession = Readonly<{ id: string; userAgent: string; since: Date; seenAt: Date; isThis: boolean }>

const MOST = 50

/** Where a person is signed in, the latest seen first; `token` is that of the session that looks. */
export async function listOwnSessions(
  db: DbExecutor,
  { userId }: Scope,
  token: string,
  now: Date,
): Promise<OwnSession[]> {
  const found = await db
    .select()
    .from(session)
    .where(and(eq(session.userId, userId), gt(session.expiresAt, now)))
    .orderBy(desc(session.updatedAt), desc(session.id))
    .limit(MOST)
  return found.map((one) => ({
    id: one.id,
    userAgent: one.userAgent ?? '',
    since: one.createdAt,
    seenAt: one.updatedAt,
    isThis: one.token === token,
  }))
}

/** Ends one session of the person's own; one that is over or another's is left alone. */
export async function endOwnSession(tx: DbExecutor, { userId }: Scope, sessionId: string): Promise<void> {
  await tx.delete(session).where(and(eq(session.id, sessionId), eq(session.userId, userId)))
  announceSessionsEnded()
}

/** Notes that a person touched the shared tablet of a session; any other session stays as it is. */
export async function touchSession(db: DbExecutor, token: string, now: Date): Promise<void> {
  await db
    .update(session)
    .set({ touchedAt: now })
    .where(and(eq(session.token, token), isNotNull(session.tabletId)))
}
