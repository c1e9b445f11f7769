import { createHash, createHmac } from 'node:crypto'
import { and, desc, eq, gt, isNull } from 'drizzle-orm'
import {
  checkAccount,
  createAccount,
  setPassword,
  type AccountIssue,
  type TypedAccount,
} from '../platform/accounts/accounts'
import { hashPassword } from '../platform/accounts/hashing'
import { passwordIssue } from '../platform/accounts/credentials'
import { can } from '../platform/accounts/can'
import type { Scope } from '../platform/accounts/scope'
import { removePasskeys } from '../platform/accounts/passkeys'
import { removePin } from '../platform/accounts/pin'
import { markSecondFactorDue, resetSecondFactor } from '../platform/accounts/secondFactor'
import { invitation, studio, user } from '../platform/accounts/tables'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import type { Role } from '../platform/db/roles'

/** An invitation may be used for so long. */
export const INVITATION_MS = 48 * 3_600_000

/** A link that can still be used: to a new account, or to a new password for `forName`. */
export type OpenInvitation = Readonly<{
  id: string
  token: string
  role: Role
  forName: string | null
  expiresAt: Date
}>

/** The token of the address, derived from the id and a secret of this installation. */
function tokenOf(id: string): string {
  const secret = process.env.BETTER_AUTH_SECRET
  if (!secret) throw new Error('BETTER_AUTH_SECRET is not set')
  return createHmac('sha256', secret).update(`invitation ${id}`).digest('base64url')
}
const fingerprint = (token: string): string => createHash('sha256').update(token).digest('hex')

const isOpen = (now: Date) =>
  and(isNull(invitation.usedAt), isNull(invitation.revokedAt), gt(invitation.expiresAt, now))

/** The links of the studio that can still be used, the latest first; none for who does not manage it. */
export async function listInvitations(db: DbExecutor, scope: Scope, now: Date): Promise<OpenInvitation[]> {
  if (!can(scope, 'manageStudio')) return []
  const found = await db
    .select({ id: invitation.id, role: invitation.role, forName: user.name, expiresAt: invitation.expiresAt })
    .from(invitation)
    .leftJoin(user, eq(user.id, invitation.userId))
    .where(and(eq(invitation.studioId, scope.studioId), isOpen(now)))
    .orderBy(desc(invitation.createdAt))
    .limit(100)
  return found.map((one) => ({ ...one, token: tokenOf(one.id) }))
}

/**
 * Makes a link, within the caller's transaction: to a new account of a role, or to a new password of a person of the
 * studio. `gone`: the studio has no such person, or their access has ended.
 */
export async function invite(
  tx: DbExecutor,
  scope: Scope,
  { id, role, userId }: Readonly<{ id: string; role: Role; userId: string | null }>,
  now: Date,
): Promise<'kept' | 'gone'> {
  const { studioId } = scope
  if (userId) {
    const [person] = await tx
      .select({ id: user.id })
      .from(user)
      .where(
        and(
          eq(user.id, userId),
          eq(user.studioId, studioId),
          isNull(user.endedAt),
          // A program acts by its key and gets no password.
          eq(user.isProgram, false),
        ),
      )
    if (!person) return 'gone'
  }
  await tx.insert(invitation).values({
    id,
    studioId,
    tokenHash: fingerprint(tokenOf(id)),
    role,
    userId,
    createdAt: now,
    createdBy: scope.userId,
    expiresAt: new Date(now.getTime() + INVITATION_MS),
  })
  return 'kept'
}

/** Takes a link back; one that was used stays used. */
export async function revokeInvitation(db: DbExecutor, scope: Scope, id: string, now: Date): Promise<void> {
  await db
    .update(invitation)
    .set({ revokedAt: now })
    .where(and(eq(invitation.id, id), eq(invitation.studioId, scope.studioId), isOpen(now)))
}

/** What the page behind a link shows. */
export type InvitationFound = Readonly<{ studio: string; role: Role; forName: string | null }>
/** Why a link opens nothing: no such link, used, taken back or past its end. */
export type InvitationClosed = 'gone' | 'used' | 'revoked' | 'expired'

const closedBy = (
  { usedAt, revokedAt, expiresAt }: Readonly<{ usedAt: Date | null; revokedAt: Date | null; expiresAt: Date }>,
  now: Date,
): InvitationClosed | null => (usedAt ? 'used' : revokedAt ? 'revoked' : expiresAt <= now ? 'expired' : null)

/** A link by its token. */
export async function findInvitation(
  db: DbExecutor,
  token: string,
  now: Date,
): Promise<InvitationFound | InvitationClosed> {
  const [found] = await db
    .select({
      studio: studio.name,
      role: invitation.role,
      forName: user.name,
      usedAt: invitation.usedAt,
      revokedAt: invitation.revokedAt,
      expiresAt: invitation.expiresAt,
    })
    .from(invitation)
    .innerJoin(studio, eq(studio.id, invitation.studioId))
    .leftJoin(user, eq(user.id, invitation.userId))
    .where(eq(invitation.tokenHash, fingerprint(token)))
  if (!found) return 'gone'
  return closedBy(found, now) ?? { studio: found.studio, role: found.role, forName: found.forName }
}

/** Uses a link once: makes the account, or sets the password. Only `kept` has written anything. */
export async function acceptInvitation(
  db: Database,
  token: string,
  typed: TypedAccount,
  now: Date,
): Promise<'kept' | InvitationClosed | AccountIssue> {
  const found = await findInvitation(db, token, now)
  if (typeof found === 'string') return found
  const isReset = found.forName !== null
  const weak = isReset ? passwordIssue(typed.password, [found.forName ?? '', found.studio]) : null
  if (weak) return weak
  const checked = isReset
    ? { name: '', username: '', passwordHash: await hashPassword(typed.password) }
    : await checkAccount(db, typed, found.studio)
  if (typeof checked === 'string') return checked
  return withTransaction(db, async (tx) => {
    const [locked] = await tx
      .select()
      .from(invitation)
      .where(eq(invitation.tokenHash, fingerprint(token)))
      .for('update')
    const closed = locked ? closedBy(locked, now) : 'gone'
    if (closed) return closed
    if (locked.userId) {
      const [person] = await tx
        .select({ endedAt: user.endedAt })
        .from(user)
        .where(eq(user.id, locked.userId))
        .for('update')
      if (!person || person.endedAt) return 'revoked'
      await setPassword(tx, locked.userId, checked.passwordHash, now)
      await resetSecondFactor(tx, locked.userId)
      await removePin(tx, locked.userId)
      await removePasskeys(tx, locked.userId)
    } else {
      const [taken] = await tx
        .select({ id: user.id })
        .from(user)
        .where(eq(user.username, checked.username))
        .for('update')
      if (taken) return 'usernameTaken'
      const id = crypto.randomUUID()
      await createAccount(tx, locked.studioId, { ...checked, id, role: locked.role }, now)
      await markSecondFactorDue(tx, { studioId: locked.studioId })
    }
    await tx.update(invitation).set({ usedAt: now }).where(eq(invitation.id, locked.id))
    return 'kept'
  })
}
