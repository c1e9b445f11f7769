import { stringify } from 'csv-stringify/sync'
import { formatNote } from '@/core/messages/classes/watch'
import { guarded } from '@/core/setups/openFiles/memberRow'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { afterClass } from '@/server/pages/classes/after'
import { findClass } from '@/server/classes/classes'
import { database } from '@/server/platform/db/connection'
import { isId } from '@/server/platform/ids'
import { seen } from '@/server/privacy/accessLog/seen'

const HEADINGS = ['minute', 'bike', 'name', 'noted', 'how strong', 'seated or standing', 'cue said', 'changed']

/** `GET /api/classes/<id>/notes.csv`: everything noted in a class, in its order (RFC 4180). */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'seeNotes')) return new Response('Your role does not allow it.', { status: 403 })
  const { id } = await params
  const db = database()
  const ofClass = isId(id) ? await findClass(db, person, id) : null
  if (!ofClass) return new Response('There is no such class.', { status: 404 })
  seen(person, 'afterClass', id)
  const { all } = await afterClass(db, person, ofClass, new Date())
  const lines = all.map(({ minute, number, name, note, strength, posture, cued, held }) => [
    minute === null ? '' : String(minute + 1),
    String(number),
    name,
    formatNote(note),
    strength,
    posture,
    cued ? 'yes' : '',
    held === null ? '' : held ? 'yes' : 'no',
  ])
  const text = stringify([HEADINGS, ...lines], { record_delimiter: 'windows', cast: { string: guarded } })
  return new Response(text, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="class-notes.csv"',
      'cache-control': 'no-store',
    },
  })
}
