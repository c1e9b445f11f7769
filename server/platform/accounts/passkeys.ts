import { passkey as passkeyPlugin } from '@better-auth/passkey'
import { APIError } from 'better-auth/api'
import { asc, eq } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import type { Scope } from './scope'
import { passkey, session } from './tables'

/** A passkey of a person: what its device was called, and when it was added. */
export type OwnPasskey = Readonly<{ id: string; name: string; addedAt: Date | null }>

const LOOPBACK = '127.0.0.1'

/**
 * Sign-in by passkey (WebAuthn level 2). The device must have checked the person, by finger, face or its own code: a
 * passkey is then two factors in one. Needs an address with a name; browsers give none to a numeric one.
 */
export function passkeys() {
  const home = process.env.BETTER_AUTH_URL ?? `http://${LOOPBACK}`
  const { hostname } = new URL(home)
  return passkeyPlugin({
    rpName: 'Yielding Saddle',
    rpID: hostname === LOOPBACK ? 'localhost' : hostname,
    origin: [...new Set([home, home.replace(LOOPBACK, 'localhost')])],
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
    registration: {
      afterVerification: ({ verification }) => mustBeVerified(verification.registrationInfo?.userVerified),
    },
    authentication: {
      afterVerification: ({ verification }) => mustBeVerified(verification.authenticationInfo.userVerified),
    },
  })
}

function mustBeVerified(isVerified: boolean | undefined): void {
  if (!isVerified) throw new APIError('UNAUTHORIZED', { code: 'NOT_VERIFIED' })
}

/** A person's passkeys, the oldest first. */
export async function listPasskeys(db: DbExecutor, { userId }: Pick<Scope, 'userId'>): Promise<OwnPasskey[]> {
  const found = await db.select().from(passkey).where(eq(passkey.userId, userId)).orderBy(asc(passkey.createdAt))
  return found.map(({ id, name, createdAt }) => ({ id, name: name ?? '', addedAt: createdAt }))
}

type Factors = Readonly<{
  user: Readonly<{ id: string; secondFactorDue?: boolean | null; twoFactorEnabled?: boolean | null }>
  session: Readonly<{ id: string; byPasskey?: boolean | null }>
}>

/** Whether a role must have a second factor that this session has not shown. */
export const isUnproven = ({ user, session: { byPasskey } }: Factors): boolean =>
  !!user.secondFactorDue && !user.twoFactorEnabled && !byPasskey

/**
 * Whether a passkey of the person has to be shown before the session changes any factor: by password alone somebody
 * could put their own in its place. The first one is trusted.
 */
export const mustShowPasskey = async (db: DbExecutor, factors: Factors): Promise<boolean> =>
  isUnproven(factors) && (await listPasskeys(db, { userId: factors.user.id })).length > 0

/** Notes with a session that a passkey proved whose it is. */
export async function setByPasskey(db: DbExecutor, sessionId: string): Promise<void> {
  await db.update(session).set({ byPasskey: true }).where(eq(session.id, sessionId))
}

/** Once a person's last passkey is gone, no session of theirs is proven by one. */
export async function unsetWithoutPasskey(db: DbExecutor, userId: string): Promise<void> {
  if ((await listPasskeys(db, { userId })).length > 0) return
  await db.update(session).set({ byPasskey: false }).where(eq(session.userId, userId))
}

/** Removes a person's passkeys, as where their access ends. */
export async function removePasskeys(db: DbExecutor, userId: string): Promise<void> {
  await db.delete(passkey).where(eq(passkey.userId, userId))
}
