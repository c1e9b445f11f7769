import { APIError } from 'better-auth/api'
import { and, eq, inArray, isNull, notInArray } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import type { Role } from '../db/roles'
import { auth } from './auth'
import type { Scope } from './scope'
import { studio, twoFactor, user } from './tables'

/** The authenticator's secret, and the recovery codes that replace a lost one. */
export type NewSecondFactor = Readonly<{ uri: string; secret: string; codes: readonly string[] }>

/** Runs a step of the sign-in library; null where it refused what was typed. */
async function accepted<Result>(step: () => Promise<Result>): Promise<Result | null> {
  try {
    return await step()
  } catch (error) {
    if (error instanceof APIError && Number(error.statusCode) < 500) return null
    throw error
  }
}

/**
 * Prepares a second factor for the session in `headers`, by password; active after a confirmed code.
 * `label`: what the authenticator shows, the studio and the name to sign in with. Null: the password does not fit, or
 * there is one already.
 */
export async function beginSecondFactor(
  headers: Headers,
  password: string,
  label: Readonly<{ studio: string; username: string }>,
): Promise<NewSecondFactor | null> {
  const made = await accepted(() => auth().api.enableTwoFactor({ headers, body: { password } }))
  if (!made || made.method !== 'totp') return null
  const given = new URL(made.totpURI)
  const secret = given.searchParams.get('secret') ?? ''
  // The library's own label would name an address that does not exist.
  const uri = new URL(`otpauth://totp/${encodeURIComponent(`${label.studio}:${label.username}`)}`)
  for (const [key, value] of given.searchParams) uri.searchParams.set(key, value)
  uri.searchParams.set('issuer', label.studio)
  return { uri: uri.toString(), secret, codes: made.backupCodes }
}

/** Turns the prepared second factor on by a code of the authenticator. */
export const confirmSecondFactor = async (headers: Headers, code: string): Promise<'kept' | 'wrongTotp'> =>
  (await accepted(() => auth().api.verifyTOTP({ headers, body: { code } }))) ? 'kept' : 'wrongTotp'

/** Turns the second factor off, by the password. */
export const endSecondFactor = async (headers: Headers, password: string): Promise<'kept' | 'wrong'> =>
  (await accepted(() => auth().api.disableTwoFactor({ headers, body: { password } }))) ? 'kept' : 'wrong'

/** New recovery codes in place of the old ones, by the password; null where it does not fit. */
export async function newRecoveryCodes(headers: Headers, password: string): Promise<readonly string[] | null> {
  const made = await accepted(() => auth().api.generateBackupCodes({ headers, body: { password } }))
  return made?.backupCodes ?? null
}

/** Whether a person has a second factor, and whether their role must have one. */
export async function secondFactorOf(
  db: DbExecutor,
  { userId }: Pick<Scope, 'userId'>,
): Promise<Readonly<{ isOn: boolean; isRequired: boolean }>> {
  const [found] = await db
    .select({ isOn: user.twoFactorEnabled, isRequired: user.secondFactorDue })
    .from(user)
    .where(eq(user.id, userId))
  return found ?? { isOn: false, isRequired: false }
}

/** Removes a person's second factor within the caller's transaction: their manager's link lets them in. */
export async function resetSecondFactor(tx: DbExecutor, userId: string): Promise<void> {
  await tx.delete(twoFactor).where(eq(twoFactor.userId, userId))
  await tx.update(user).set({ twoFactorEnabled: false }).where(eq(user.id, userId))
}

/** Roles of a studio that must have a second factor. */
export async function rolesWithSecondFactor(db: DbExecutor, { studioId }: Pick<Scope, 'studioId'>): Promise<Role[]> {
  const [found] = await db.select({ roles: studio.secondFactorFor }).from(studio).where(eq(studio.id, studioId))
  return found?.roles ?? []
}

/**
 * Requires a second factor of some roles, within the caller's transaction. The next request of a person without one
 * leads to turning it on; nothing else works before.
 */
export async function requireSecondFactor(tx: DbExecutor, scope: Scope, roles: readonly Role[]): Promise<void> {
  await tx
    .update(studio)
    .set({ secondFactorFor: roles.length > 0 ? [...roles] : null })
    .where(eq(studio.id, scope.studioId))
  await markSecondFactorDue(tx, scope)
}

/** Notes with each person of a studio whether their role must have a second factor. */
export async function markSecondFactorDue(tx: DbExecutor, scope: Pick<Scope, 'studioId'>): Promise<void> {
  const roles = await rolesWithSecondFactor(tx, scope)
  const ofStudio = and(eq(user.studioId, scope.studioId), isNull(user.endedAt))
  if (roles.length > 0)
    await tx
      .update(user)
      .set({ secondFactorDue: true })
      .where(and(ofStudio, inArray(user.role, roles)))
  await tx
    .update(user)
    .set({ secondFactorDue: false })
    .where(roles.length > 0 ? and(ofStudio, notInArray(user.role, roles)) : ofStudio)
}
