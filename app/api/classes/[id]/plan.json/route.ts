import { currentUser } from '@/server/platform/accounts/session'
import { findClass } from '@/server/classes/classes'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'

/** `GET /api/classes/<id>/plan.json`: the blocks of a class. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  const { id } = await params
  const ofClass = isId(id) ? await findClass(database(), person, id) : null
  if (!ofClass?.blocks) return new Response('There is no such plan.', { status: 404 })
  return new Response(JSON.stringify({ title: ofClass.title, blocks: ofClass.blocks }, null, 2), {
    headers: {
      'content-type': 'application/json',
      'content-disposition': 'attachment; filename="class-plan.json"',
      'cache-control': 'no-store',
    },
  })
}
