import { cookies } from 'next/headers'
import { can } from '@/server/platform/accounts/can'
import { TABLET_AGE_S, TABLET_COOKIE, tabletOf } from '@/server/platform/accounts/pin'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { readJson } from '@/server/platform/http/readJson'

const MAX_BODY_LENGTH = 200

/**
 * `POST /api/accounts/tablet` with `{ token }`: this device becomes the tablet that a manager of the studio paired with
 * the token. 403 for anybody else, 422 for a token of no paired tablet.
 */
export async function POST(request: Request): Promise<Response> {
  const person = await currentUser()
  if (!person || !can(person, 'manageStudio')) return Response.json({ code: 'notAllowed' }, { status: 403 })
  const read = await readJson(request, MAX_BODY_LENGTH)
  const { token } = (read.outcome === 'read' ? read.body : {}) as { token?: unknown }
  const paired = await tabletOf(database(), typeof token === 'string' ? token : null)
  if (paired?.studioId !== person.studioId) return Response.json({ code: 'noSuchTablet' }, { status: 422 })
  ;(await cookies()).set(TABLET_COOKIE, String(token), {
    httpOnly: true,
    sameSite: 'lax',
    secure: (process.env.BETTER_AUTH_URL ?? '').startsWith('https:'),
    path: '/',
    maxAge: TABLET_AGE_S,
  })
  return Response.json({ outcome: 'kept' })
}
