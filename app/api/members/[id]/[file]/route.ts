import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { memberFileResponse } from '@/server/privacy/memberFileResponse'
import { seen } from '@/server/privacy/accessLog/seen'

type RouteContext = { params: Promise<{ id: string; file: string }> }

/** `GET /api/members/<id>/data.json` or `data.pdf`: everything about one member, for managers. */
export async function GET(_: Request, { params }: RouteContext): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'managePrivacy')) return new Response('Your role does not allow it.', { status: 403 })
  const { id, file } = await params
  seen(person, 'file', id)
  return memberFileResponse(database(), person, id, file, new Date())
}
