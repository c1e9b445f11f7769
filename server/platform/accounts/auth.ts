import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { APIError, createAuthMiddleware, getSessionFromCtx } from 'better-auth/api'
import { nextCookies } from 'better-auth/next-js'
import { twoFactor as secondFactor, username } from 'better-auth/plugins'
import { database } from '../db/connection'
import { mustShowPasskey, passkeys, setByPasskey, unsetWithoutPasskey } from './passkeys'
import { account, passkey, rateLimit, session, twoFactor, user, verification } from './tables'
import { hashPassword, verifyPassword } from './hashing'
import { pinSignIn } from './pinSignIn'
import { isUsedCode } from './usedCodes'
import { countAttempt, DEVICE_AGE_S, DEVICE_COOKIE, knownDevice, resetAttempts } from './signInLimits'

const TOTP = '/two-factor/verify-totp'

/** What of the sign-in library's many addresses this studio uses; every other is as if it were not there. */
export const AUTH_PATHS: Readonly<Record<string, 'GET' | 'POST'>> = Object.freeze({
  '/sign-in/username': 'POST',
  [TOTP]: 'POST',
  '/two-factor/verify-backup-code': 'POST',
  '/sign-in/pin': 'POST',
  '/passkey/generate-authenticate-options': 'GET',
  '/passkey/verify-authentication': 'POST',
  '/passkey/generate-register-options': 'GET',
  '/passkey/verify-registration': 'POST',
  '/passkey/delete-passkey': 'POST',
  '/sign-out': 'POST',
  '/get-session': 'GET',
})

const SIGN_IN = '/sign-in/username'
const PASSKEY_SIGN_IN = '/passkey/verify-authentication'
const PASSKEY_ADDED = '/passkey/verify-registration'
const PASSKEY_REMOVED = '/passkey/delete-passkey'
/** What a session by PIN does not reach: a PIN must not turn into a way in from anywhere. */
const OWN_DEVICE_ONLY: ReadonlySet<string> = new Set([
  '/passkey/generate-register-options',
  PASSKEY_ADDED,
  PASSKEY_REMOVED,
])
/** Longest name or password looked at; hashing an endless one is work. */
const MAX_CREDENTIAL_LENGTH = 200

let made: ReturnType<typeof make> | undefined

/** Sign-in: sessions in the database, by username; nobody can sign themselves up. Made at first use. */
export const auth = () => (made ??= make())

/** The peer as the request filter in front put it; nothing else is believed. */
export const peerOf = (headers: Headers | undefined): string => headers?.get('x-forwarded-for') ?? 'unknown'

/** The cookie of the device that sends a request; null without one, or with one that was made up. */
async function deviceOf({
  getSignedCookie,
  context,
}: Readonly<{
  getSignedCookie: (name: string, secret: string) => Promise<string | null | undefined | false>
  context: Readonly<{ secret: string }>
}>): Promise<string | null> {
  return (await getSignedCookie(DEVICE_COOKIE, context.secret)) || null
}

/** Refuses to change passkeys on a shared tablet, and before one that has to be shown. */
async function refuseUnproven(request: Parameters<typeof getSessionFromCtx>[0]): Promise<void> {
  const found = await getSessionFromCtx(request)
  if (!found) return
  if (found.session.tabletId) throw new APIError('FORBIDDEN', { code: 'SHARED_TABLET' })
  if (await mustShowPasskey(database(), found)) throw new APIError('FORBIDDEN', { code: 'PASSKEY_FIRST' })
}

/** Notes with a session that a passkey has just proven whose it is; without any passkey left none is proven. */
async function markByPasskey(request: Parameters<typeof getSessionFromCtx>[0]): Promise<void> {
  const { path, context } = request
  if (path === PASSKEY_SIGN_IN && context.newSession) await setByPasskey(database(), context.newSession.session.id)
  const own = path === PASSKEY_ADDED || path === PASSKEY_REMOVED ? await getSessionFromCtx(request) : null
  if (own && path === PASSKEY_ADDED) await setByPasskey(database(), own.session.id)
  if (own && path === PASSKEY_REMOVED) await unsetWithoutPasskey(database(), own.user.id)
}

function make() {
  return betterAuth({
    database: drizzleAdapter(database(), {
      provider: 'mysql',
      schema: { user, session, account, verification, rateLimit, twoFactor, passkey },
    }),
    secret: process.env.BETTER_AUTH_SECRET,
    baseURL: process.env.BETTER_AUTH_URL,
    // Some type the machine's name instead of its address.
    trustedOrigins: process.env.BETTER_AUTH_URL ? [process.env.BETTER_AUTH_URL.replace('127.0.0.1', 'localhost')] : [],
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      password: { hash: hashPassword, verify: ({ hash: stored, password }) => verifyPassword(stored, password) },
    },
    // The studio and the role come with the session: one question less on every request.
    user: {
      additionalFields: {
        studioId: { type: 'string', required: false, input: false },
        role: { type: 'string', required: false, input: false },
        secondFactorDue: { type: 'boolean', required: false, input: false },
      },
    },
    session: {
      expiresIn: 60 * 60 * 24 * 14,
      updateAge: 60 * 60 * 24,
      // A new passkey wants a sign-in that is no older, s.
      freshAge: 10 * 60,
      additionalFields: {
        tabletId: { type: 'string', required: false, input: false },
        touchedAt: { type: 'date', required: false, input: false },
        idleMinutes: { type: 'number', required: false, input: false },
        byPasskey: { type: 'boolean', required: false, input: false },
      },
    },
    // Tries to sign in are counted per account and true peer, below; the library's own count knows addresses only.
    rateLimit: { enabled: false },
    telemetry: { enabled: false },
    hooks: {
      before: createAuthMiddleware(async (request) => {
        const { path, body, headers } = request
        if (OWN_DEVICE_ONLY.has(path)) await refuseUnproven(request)
        if (path !== SIGN_IN) return
        const { username: name, password } = (body ?? {}) as { username?: unknown; password?: unknown }
        if (
          typeof name !== 'string' ||
          typeof password !== 'string' ||
          name.length > MAX_CREDENTIAL_LENGTH ||
          password.length > MAX_CREDENTIAL_LENGTH
        )
          throw new APIError('UNAUTHORIZED')
        const seconds = await countAttempt(name, peerOf(headers), await deviceOf(request))
        if (seconds > 0)
          throw new APIError(
            'TOO_MANY_REQUESTS',
            { message: 'Too many tries.', seconds },
            { 'retry-after': String(seconds) },
          )
      }),
      after: createAuthMiddleware(async (request) => {
        const { path, body, headers, context } = request
        if (path.startsWith('/passkey/') && !(context.returned instanceof APIError)) await markByPasskey(request)
        if (!context.newSession) return
        if (path === TOTP && isUsedCode(context.newSession.user.id, String((body as { code?: unknown }).code))) {
          await context.internalAdapter.deleteSession(context.newSession.session.token)
          throw new APIError('UNAUTHORIZED', { code: 'INVALID_CODE', message: 'This code was used.' })
        }
        // After a second factor the name comes with the session; the password alone has not cleared the count.
        const isSecond = path.startsWith('/two-factor/verify') || path === PASSKEY_SIGN_IN
        if (path !== SIGN_IN && !isSecond) return
        const name = String((isSecond ? context.newSession.user : (body as { username?: string })).username ?? '')
        const device = await deviceOf(request)
        await resetAttempts(name, peerOf(headers), device)
        await request.setSignedCookie(DEVICE_COOKIE, knownDevice(device, name), context.secret, {
          ...context.authCookies.sessionToken.attributes,
          maxAge: DEVICE_AGE_S,
        })
      }),
    },
    plugins: [username(), secondFactor(), pinSignIn(), passkeys(), nextCookies()],
  })
}
