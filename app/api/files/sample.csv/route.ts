import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { sampleList } from '@/server/files/sampleList'

/** `GET /api/files/sample.csv`: a short list of members to copy, with the studio's own types. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'manageStudio')) return new Response('Your role does not allow it.', { status: 403 })
  return new Response(await sampleList(database(), person), {
    headers: {
      'content-type': 'text/csv; charset=utf-8; header=present',
      'content-disposition': 'attachment; filename="members-sample.csv"',
      'cache-control': 'no-store',
    },
  })
}
