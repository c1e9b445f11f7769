import { and, asc, eq, isNull, or } from 'drizzle-orm'
import { can } from '../platform/accounts/can'
import type { Role } from '../platform/db/roles'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { endSessions } from '../platform/accounts/accounts'
import { removePasskeys } from '../platform/accounts/passkeys'
import { removePin } from '../platform/accounts/pin'
import { markSecondFactorDue, resetSecondFactor } from '../platform/accounts/secondFactor'
import { account, invitation, user } from '../platform/accounts/tables'

/** Somebody who works in the studio. */
export type Person = Readonly<{ id: string; name: string; role: Role }>

/** Who works in the studio, by name; without those whose access has ended. */
export const listPeople = (db: DbExecutor, { studioId }: Scope): Promise<Person[]> =>
  db
    .select({ id: user.id, name: user.name, role: user.role })
    .from(user)
    .where(and(eq(user.studioId, studioId), isNull(user.endedAt), eq(user.isProgram, false)))
    .orderBy(asc(user.name), asc(user.id))

/** Teachers besides the user themselves; none for a user who may not write notes. */
export const listColleagues = async (
  db: DbExecutor,
  scope: Scope,
): Promise<Readonly<{ id: string; name: string }>[]> =>
  can(scope, 'writeNotes')
    ? (await listTeachers(db, scope)).flatMap(({ id, name }) => (id === scope.userId ? [] : [{ id, name }]))
    : []

/** Who may teach a class, and see what is noted in it. */
export const listTeachers = async (db: DbExecutor, scope: Scope): Promise<Person[]> =>
  (await listPeople(db, scope)).filter((person) => can(person, 'writeNotes'))

/** A person as their manager sees them. */
export type ManagedPerson = Person &
  Readonly<{ username: string | null; endedAt: Date | null; hasSecondFactor: boolean }>

/** Everybody who works or worked in the studio, those with access first. */
export async function listEverybody(db: DbExecutor, { studioId }: Scope): Promise<ManagedPerson[]> {
  const all = await db
    .select({
      id: user.id,
      name: user.name,
      role: user.role,
      username: user.username,
      endedAt: user.endedAt,
      hasSecondFactor: user.twoFactorEnabled,
    })
    .from(user)
    .where(and(eq(user.studioId, studioId), eq(user.isProgram, false)))
    .orderBy(asc(user.name), asc(user.id))
  return all.sort((a, b) => Number(a.endedAt !== null) - Number(b.endedAt !== null))
}

/** `lastManager`: nobody would be left to manage the studio; `gone`: the studio has no such person with access. */
export type PeopleResult = 'kept' | 'gone' | 'lastManager'

/** The person with access, locked with all managers of the studio; or why they may not stop managing it. */
async function lockPerson(tx: DbExecutor, scope: Scope, userId: string, staysManager: boolean): Promise<PeopleResult> {
  const withAccess = await tx
    .select({ id: user.id, role: user.role })
    .from(user)
    .where(and(eq(user.studioId, scope.studioId), isNull(user.endedAt), eq(user.isProgram, false)))
    .for('update')
  const person = withAccess.find(({ id }) => id === userId)
  if (!person) return 'gone'
  const others = withAccess.filter(({ id, role }) => id !== userId && role === 'manager')
  return person.role === 'manager' && !staysManager && others.length === 0 ? 'lastManager' : 'kept'
}

/** Gives a person another role, within the caller's transaction; their open pages have it with the next request. */
export async function changeRole(
  tx: DbExecutor,
  scope: Scope,
  { userId, role }: Readonly<{ userId: string; role: Role }>,
  now: Date,
): Promise<PeopleResult> {
  const allowed = await lockPerson(tx, scope, userId, role === 'manager')
  if (allowed !== 'kept') return allowed
  await tx.update(user).set({ role, updatedAt: now }).where(eq(user.id, userId))
  await markSecondFactorDue(tx, scope)
  if (role !== 'manager') await revokeInvitationsOf(tx, userId, now)
  return 'kept'
}

/** Revokes the open links that a person made or that are for them: none lets somebody back in who lost the right. */
async function revokeInvitationsOf(tx: DbExecutor, userId: string, now: Date): Promise<void> {
  const theirs = or(eq(invitation.createdBy, userId), eq(invitation.userId, userId))
  await tx
    .update(invitation)
    .set({ revokedAt: now })
    .where(and(theirs, isNull(invitation.usedAt), isNull(invitation.revokedAt)))
}

/**
 * Ends a person's access, within the caller's transaction: their sessions and password go, their name stays beside what
 * they did.
 */
export async function endAccess(tx: DbExecutor, scope: Scope, userId: string, now: Date): Promise<PeopleResult> {
  const allowed = await lockPerson(tx, scope, userId, false)
  if (allowed !== 'kept') return allowed
  await tx.update(user).set({ endedAt: now, updatedAt: now }).where(eq(user.id, userId))
  await tx.delete(account).where(eq(account.userId, userId))
  await endSessions(tx, userId)
  await resetSecondFactor(tx, userId)
  await removePin(tx, userId)
  await removePasskeys(tx, userId)
  await revokeInvitationsOf(tx, userId, now)
  return 'kept'
}
