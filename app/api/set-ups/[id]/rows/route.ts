import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'
import { listEvidence } from '@/server/setups/evidence'
import { findSetup } from '@/server/setups/setups'

/** `GET /api/set-ups/<id>/rows`: the current rows, for a page that another user may edit too. */
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
