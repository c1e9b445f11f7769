import type { BetterAuthPlugin } from 'better-auth'
import { APIError, createAuthEndpoint } from 'better-auth/api'
import { setSessionCookie } from 'better-auth/cookies'
import { eq } from 'drizzle-orm'
import { database } from '../db/connection'
import { fitsPin, TABLET_AGE_S, TABLET_COOKIE, tabletOf } from './pin'
import { countPin, resetPin } from './signInLimits'
import { tablet } from './tables'

/**
 * Adds to the sign-in library `POST /sign-in/pin` with `{ userId, pin }`: signs a person in on a tablet that was paired
 * with their studio. 401 for a PIN that does not fit, 403 on a device that is not paired, 429 after too many tries. The
 * session belongs to the tablet: it ends with it, and after minutes without a touch.
 */
export const pinSignIn = () =>
  ({
    id: 'pin',
    endpoints: {
      signInPin: createAuthEndpoint('/sign-in/pin', { method: 'POST' }, async (ctx) => {
        const { userId, pin } = (ctx.body ?? {}) as { userId?: unknown; pin?: unknown }
        const token = ctx.getCookie(TABLET_COOKIE)
        const paired = await tabletOf(database(), token)
        if (!paired || !token) throw new APIError('FORBIDDEN', { code: 'NOT_PAIRED' })
        if (typeof userId !== 'string' || userId.length > 36 || typeof pin !== 'string' || !/^\d{6}$/.test(pin))
          throw new APIError('UNAUTHORIZED')
        const seconds = await countPin(paired.id, userId)
        if (seconds > 0)
          throw new APIError('TOO_MANY_REQUESTS', { code: 'TOO_MANY', seconds }, { 'retry-after': String(seconds) })
        if (!(await fitsPin(database(), paired, userId, pin))) throw new APIError('UNAUTHORIZED')
        await resetPin(paired.id, userId)
        const now = new Date()
        const person = await ctx.context.internalAdapter.findUserById(userId)
        const session = await ctx.context.internalAdapter.createSession(userId, false, {
          tabletId: paired.id,
          touchedAt: now,
          idleMinutes: paired.idleMinutes,
        })
        if (!person || !session) throw new APIError('UNAUTHORIZED')
        await setSessionCookie(ctx, { session, user: person })
        ctx.setCookie(TABLET_COOKIE, token, {
          ...ctx.context.authCookies.sessionToken.attributes,
          maxAge: TABLET_AGE_S,
        })
        await database().update(tablet).set({ usedAt: now }).where(eq(tablet.id, paired.id))
        return ctx.json({ isSignedIn: true })
      }),
    },
  }) satisfies BetterAuthPlugin
