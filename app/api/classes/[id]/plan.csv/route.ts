import { stringify } from 'csv-stringify/sync'
import { PLAN_COLUMNS, planRows } from '@/core/classes/plan/planFile'
import { guarded } from '@/core/setups/openFiles/memberRow'
import { currentUser } from '@/server/platform/accounts/session'
import { findClass } from '@/server/classes/classes'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'

/** `GET /api/classes/<id>/plan.csv`: the blocks of a class as a list (RFC 4180). */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  const { id } = await params
  const ofClass = isId(id) ? await findClass(database(), person, id) : null
  if (!ofClass?.blocks) return new Response('There is no such plan.', { status: 404 })
  const rows = [[...PLAN_COLUMNS], ...planRows(ofClass.blocks)]
  return new Response(stringify(rows, { record_delimiter: 'windows', cast: { string: guarded } }), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="class-plan.csv"',
      'cache-control': 'no-store',
    },
  })
}
