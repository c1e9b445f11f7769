import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { cache } from 'react'
import { auth } from './auth'
import { ROLES, type Role } from '../db/roles'
import { database } from '../db/connection'
import { can, type Permission } from './can'
import { isUnproven, mustShowPasskey } from './passkeys'
import { TABLET_COOKIE, tabletOf, type PairedTablet } from './pin'
import type { Scope } from './scope'

/** `idleMinutes`: on a shared tablet, after how many minutes without a touch it locks. */
export type CurrentUser = Scope & Readonly<{ name: string; idleMinutes?: number }>

/** A tablet reports touches once a minute at most: its session outlasts the lock by this, ms. */
const TOUCH_GRACE_MS = 90_000

/** The session of a request; null signed out, and for one on a shared tablet that nobody touched for too long. */
async function sessionOf(sent: Headers) {
  const found = await auth().api.getSession({ headers: sent })
  const { tabletId, touchedAt, idleMinutes } = found?.session ?? {}
  if (!tabletId) return found
  const idleMs = Date.now() - (touchedAt?.getTime() ?? 0)
  return idleMs > (idleMinutes ?? 0) * 60_000 + TOUCH_GRACE_MS ? null : found
}

/** The session's user, and whether a second factor must be turned on before anything else. */
const signedIn = cache(async (): Promise<Readonly<{ user: CurrentUser; mustProve: boolean }> | null> => {
  const session = await sessionOf(await headers())
  if (!session) return null
  const { id, name, studioId, role } = session.user
  const validRole = ROLES.find((one) => one === role)
  if (!studioId || !validRole) return null
  const { tabletId, idleMinutes } = session.session
  const user = tabletId
    ? { userId: id, name, studioId, role: roleOnTablet(validRole), idleMinutes: idleMinutes ?? 0 }
    : { userId: id, name, studioId, role: validRole }
  return { user, mustProve: isUnproven(session) }
})

/**
 * The signed-in user, or null; also null for an account without a studio, and before a second factor that is required.
 * Cached per request.
 */
export async function currentUser(): Promise<CurrentUser | null> {
  const found = await signedIn()
  return found && !found.mustProve ? found.user : null
}

/** For one's own account alone: who is signed in, also before a second factor that is required. */
export async function requireOwner(): Promise<CurrentUser & Readonly<{ mustProve: boolean }>> {
  const found = await signedIn()
  return found ? { ...found.user, mustProve: found.mustProve } : redirect('/sign-in')
}

/** The shared tablet that a request comes from; null for any other device. */
export const pairedTablet = cache(async (): Promise<PairedTablet | null> =>
  tabletOf(database(), (await cookies()).get(TABLET_COOKIE)?.value),
)

/** A PIN in a hall is no password: on a shared tablet a manager does what an instructor does. */
const roleOnTablet = (role: Role): Role => (role === 'manager' ? 'instructor' : role)

/** The session of a request: whose, and its token; null signed out. */
export async function currentSession(): Promise<Readonly<{ userId: string; sessionToken: string }> | null> {
  const found = await sessionOf(await headers())
  return found ? { userId: found.user.id, sessionToken: found.session.token } : null
}

/** Whether a passkey has to be shown before the request's session changes a factor of its person. */
export async function awaitsPasskey(): Promise<boolean> {
  const found = await sessionOf(await headers())
  return !!found && mustShowPasskey(database(), found)
}

/** Whether the session that a request came with still goes on; for what lasts longer than a request. */
export const isSessionOn = async (sent: Headers): Promise<boolean> => (await sessionOf(sent)) !== null

/** Who is signed in; anyone else is sent to sign in, or to turn on the second factor that is required. */
export async function requireUser(): Promise<CurrentUser> {
  return (await currentUser()) ?? redirect((await signedIn()) ? '/account' : '/sign-in')
}

/** For actions: who is signed in where their role allows it, else null; nobody signed in is sent to sign in. */
export async function authorize(permission: Permission): Promise<CurrentUser | null> {
  const person = await requireUser()
  return can(person, permission) ? person : null
}

/** For pages: the signed-in user if the role permits it; otherwise redirects to a page that explains it. */
export async function requirePermission(permission: Permission): Promise<CurrentUser> {
  return (await authorize(permission)) ?? redirect('/not-allowed')
}
