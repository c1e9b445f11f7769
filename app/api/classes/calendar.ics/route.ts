import { currentUser } from '@/server/platform/accounts/session'
import { listClasses } from '@/server/classes/classes'
import { database } from '@/server/platform/db/connection'
import { writeCalendar } from '@/server/classes/calendar/writeCalendar'
import { getStudio } from '@/server/studio/studio'

const BACK_MS = 30 * 86_400_000
const AHEAD_MS = 90 * 86_400_000

/** `GET /api/classes/calendar.ics`: the studio's classes of the last month and the next three, as iCalendar. */
export async function GET(): Promise<Response> {
  const person = await currentUser()
  if (!person) return new Response('Sign in first.', { status: 401 })
  const db = database()
  const { name } = await getStudio(db, person)
  const now = new Date()
  const span = [new Date(now.getTime() - BACK_MS), new Date(now.getTime() + AHEAD_MS)] as const
  const classes = await listClasses(db, person, ...span)
  const events = classes.map(({ id, title, roomName, startsAt, endsAt, cancelledAt }) => ({
    uid: id,
    title,
    place: roomName ?? '',
    startsAt,
    endsAt,
    cancelled: cancelledAt !== null,
  }))
  return new Response(writeCalendar(name, events, now), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'attachment; filename="classes.ics"',
      'cache-control': 'no-store',
    },
  })
}
