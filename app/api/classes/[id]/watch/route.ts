import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { findClass } from '@/server/classes/classes'
import { classState } from '@/server/classes/watch'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'

/** `GET /api/classes/<id>/watch`: a class as noted so far. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response(null, { status: 401 })
  if (!can(person, 'seeNotes')) return new Response(null, { status: 403 })
  const { id } = await params
  const db = database()
  if (!isId(id) || !(await findClass(db, person, id))) return new Response(null, { status: 404 })
  return Response.json(await classState(db, person, id), { headers: { 'cache-control': 'no-store' } })
}
