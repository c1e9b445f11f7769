import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { archiveStream } from '@/server/files/archiveExport'
import { seen } from '@/server/privacy/accessLog/seen'

/** `GET /api/files/studio.json`: everything of a studio as one archive; health notes too, so managers alone. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'manageStudio')) return new Response('Your role does not allow it.', { status: 403 })
  seen(person, 'archive')
  return new Response(archiveStream(database(), person), {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': 'attachment; filename="studio.json"',
      'cache-control': 'no-store',
    },
  })
}
