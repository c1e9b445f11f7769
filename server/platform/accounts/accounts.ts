import { and, eq, isNull, ne } from 'drizzle-orm'
import type { Role } from '../db/roles'
import type { DbExecutor } from '../db/connection'
import { hashPassword, verifyPassword } from './hashing'
import { passwordIssue, readUsername, type PasswordIssue } from './credentials'
import { account, session, user } from './tables'
import { announceSessionsEnded } from './sessionsEnded'

/** What a person types for an account of their own. */
export type TypedAccount = Readonly<{ name: string; username: string; password: string }>
/** What is wrong with it. */
export type AccountIssue = 'noName' | 'nameTooLong' | 'badUsername' | 'usernameTaken' | PasswordIssue
/** An account that may be stored: tidied, its password hashed. */
export type CheckedAccount = Readonly<{ name: string; username: string; passwordHash: string }>

const MAX_NAME_LENGTH = 120

/** Checks what was typed; the hash takes a moment, and is made outside of any transaction. */
export async function checkAccount(
  db: DbExecutor,
  typed: TypedAccount,
  studioName: string,
): Promise<CheckedAccount | AccountIssue> {
  const name = typed.name.trim().replace(/\s+/g, ' ')
  if (name === '') return 'noName'
  if (name.length > MAX_NAME_LENGTH) return 'nameTooLong'
  const username = readUsername(typed.username)
  if (!username) return 'badUsername'
  const issue = passwordIssue(typed.password, [name, username, studioName])
  if (issue) return issue
  const [taken] = await db.select({ id: user.id }).from(user).where(eq(user.username, username))
  if (taken) return 'usernameTaken'
  return { name, username, passwordHash: await hashPassword(typed.password) }
}

/** Whether anybody has an account here: a new installation has none. */
export const hasAccounts = async (db: DbExecutor): Promise<boolean> =>
  (await db.select({ id: user.id }).from(user).limit(1)).length > 0

/** Stores an account with its password, within the caller's transaction; throws on a user name taken meanwhile. */
export async function createAccount(
  tx: DbExecutor,
  studioId: string,
  { id, name, username, passwordHash, role }: CheckedAccount & Readonly<{ id: string; role: Role }>,
  now: Date,
): Promise<void> {
  await tx.insert(user).values({
    id,
    name,
    // The sign-in library wants one; nothing is ever sent there.
    email: `${id}@people.invalid`,
    username,
    displayUsername: username,
    studioId,
    role,
    createdAt: now,
    updatedAt: now,
  })
  await tx.insert(account).values({
    id: crypto.randomUUID(),
    accountId: id,
    providerId: 'credential',
    userId: id,
    password: passwordHash,
    createdAt: now,
    updatedAt: now,
  })
}

/** Sets the password of a person whose access has not ended, and ends their sessions but `except` (a token). */
export async function setPassword(
  tx: DbExecutor,
  userId: string,
  passwordHash: string,
  now: Date,
  except?: string,
): Promise<void> {
  const of = and(eq(account.userId, userId), eq(account.providerId, 'credential'))
  await tx.update(account).set({ password: passwordHash, updatedAt: now }).where(of)
  await endSessions(tx, userId, except)
}

/** Ends a person's sessions, all or but one. */
export async function endSessions(tx: DbExecutor, userId: string, except?: string): Promise<void> {
  const own = eq(session.userId, userId)
  await tx.delete(session).where(except ? and(own, ne(session.token, except)) : own)
  announceSessionsEnded()
}

/**
 * Changes a person's own password. `wrong`: the present one does not fit; an issue: the new one cannot be. Every other
 * session of theirs ends.
 */
export async function changeOwnPassword(
  db: DbExecutor,
  { userId, sessionToken }: Readonly<{ userId: string; sessionToken: string }>,
  { present, next }: Readonly<{ present: string; next: string }>,
  now: Date,
): Promise<'kept' | 'wrong' | PasswordIssue> {
  const [own] = await db
    .select({ name: user.name, username: user.username, hash: account.password })
    .from(user)
    .innerJoin(account, and(eq(account.userId, user.id), eq(account.providerId, 'credential')))
    .where(and(eq(user.id, userId), isNull(user.endedAt)))
  if (!own?.hash || !(await verifyPassword(own.hash, present))) return 'wrong'
  const issue = passwordIssue(next, [own.name, own.username ?? ''])
  if (issue) return issue
  await setPassword(db, userId, await hashPassword(next), now, sessionToken)
  return 'kept'
}
