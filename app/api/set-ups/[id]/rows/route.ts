import { currentUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { rowsOf, setupById } from '@/server/setups/setups'

/** `GET /api/set-ups/<id>/rows`: the rows as they stand, for a page on which somebody else may be at work too. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  if (!(await currentUser())) return Response.json({ outcome: 'signedOut' }, { status: 401 })
  const { id } = await params
  const db = database()
  const setup = isId(id) ? await setupById(db, id) : null
  if (!setup) return Response.json({ outcome: 'gone' }, { status: 404 })
  return Response.json(
    { rows: await rowsOf(db, id), finished: setup.finishedAt !== null },
    { headers: { 'cache-control': 'no-store' } },
  )
}
