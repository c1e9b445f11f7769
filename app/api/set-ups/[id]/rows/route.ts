import { can } from '@/server/accounts/can'
import { currentUser } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { listEvidence } from '@/server/setups/evidence'
import { findSetup } from '@/server/setups/setups'

/** `GET /api/set-ups/<id>/rows`: the rows as they stand, for a page on which somebody else may be at work too. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return Response.json({ outcome: 'signedOut' }, { status: 401 })
  if (!can(person, 'setUpRiders')) return Response.json({ outcome: 'notAllowed' }, { status: 403 })
  const { id } = await params
  const db = database()
  const setup = isId(id) ? await findSetup(db, person, id) : null
  if (!setup) return Response.json({ outcome: 'gone' }, { status: 404 })
  return Response.json(
    { rows: await listEvidence(db, person, id), finished: setup.finishedAt !== null },
    { headers: { 'cache-control': 'no-store' } },
  )
}
