import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { memberListStream } from '@/server/files/exportMembers'
import { seen } from '@/server/privacy/accessLog/seen'

/** `GET /api/files/members.csv`: every member with their numbers. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'manageStudio')) return new Response('Your role does not allow it.', { status: 403 })
  seen(person, 'list')
  return new Response(await memberListStream(database(), person), {
    headers: {
      'content-type': 'text/csv; charset=utf-8; header=present',
      'content-disposition': 'attachment; filename="members.csv"',
      'cache-control': 'no-store',
    },
  })
}
