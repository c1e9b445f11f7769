import { stringify } from 'csv-stringify/sync'
import { axesOf } from '@/core/bikes/bike/bike'
import { AXES, isCommon } from '@/core/base/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import { guarded } from '@/core/setups/openFiles/memberRow'
import { findClass } from '@/server/classes/classes'
import { listSeats, type Seat } from '@/server/classes/seats'
import { recordSheet, sheetRow } from '@/server/pages/classes/sheet'
import { formatDate, formatSpan, formatTime } from '@/core/messages/words/dates'
import { can } from '@/server/platform/accounts/can'
import { currentUser } from '@/server/platform/accounts/session'
import { bikeTags, classSheet } from '@/server/classes/cards/cards'
import { isId } from '@/server/platform/ids'
import { database } from '@/server/platform/db/connection'
import { getStudio } from '@/server/studio/studio'

const FILES = { 'sheet.pdf': 'application/pdf', 'tags.pdf': 'application/pdf', 'sheet.csv': 'text/csv; charset=utf-8' }

/** `GET /api/cards/class/<sheet.pdf, tags.pdf or sheet.csv>?class=<id>`: who sits where, with the numbers to set. */
export async function GET(request: Request, { params }: { params: Promise<{ what: string }> }): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  if (!can(person, 'seeNumbers')) return new Response('Your role does not allow it.', { status: 403 })
  const { what } = await params
  if (!Object.hasOwn(FILES, what)) return new Response('There is no such sheet.', { status: 404 })
  const db = database()
  const { name, timeZone } = await getStudio(db, person)
  const classId = new URL(request.url).searchParams.get('class')
  const ofClass = isId(classId) ? await findClass(db, person, classId) : null
  if (!ofClass) return new Response('There is no such class.', { status: 404 })
  const seats = await listSeats(db, person, ofClass.id)
  const rows = seats.map(sheetRow)
  const now = new Date()
  if (what === 'sheet.pdf') await recordSheet(db, person, ofClass.id, seats, now)
  const date = formatDate(ofClass.startsAt, timeZone)
  const day = ofClass.openDay === null ? `${ofClass.title}, ${date}, ${formatSpan(ofClass, timeZone)}` : date
  const body =
    what === 'sheet.csv'
      ? sheetCsv(seats)
      : what === 'tags.pdf'
        ? await bikeTags(day, rows)
        : await classSheet(
            name,
            day,
            rows.filter((row) => row.name !== null),
            formatTime(now, timeZone),
          )
  return new Response(body as BodyInit, {
    headers: {
      'content-type': FILES[what as keyof typeof FILES],
      'content-disposition': `${what === 'sheet.csv' ? 'attachment' : 'inline'}; filename="class-${what}"`,
      'cache-control': 'no-store',
    },
  })
}

/** The class as a list (RFC 4180), a line a bike. */
function sheetCsv(seats: readonly Seat[]): string {
  // What no bike of the class has beside the common four takes no column.
  const axes = AXES.filter((axis) => isCommon(axis) || seats.some(({ bike }) => bike.type.axes[axis]))
  const lines = seats.map(({ bike, rider, marks, remark }) => [
    String(bike.number),
    bike.type.name,
    rider?.name ?? '',
    ...axes.map((axis) => (axesOf(bike.type).includes(axis) ? (marks?.[axis] ?? '') : '')),
    remark ?? '',
  ])
  const headings = ['bike', 'bike type', 'name', ...axes.map((axis) => AXIS_TITLE[axis].toLowerCase()), 'remark']
  return stringify([headings, ...lines], { record_delimiter: 'windows', cast: { string: guarded } })
}
