import type { Metadata } from 'next'
import { formatSourceStatus } from '@/core/messages/timetable'
import { TimetableView } from '@/interface/timetable/TimetableView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { bookingStatus, calendarStatus, type SourceStatus } from '@/server/bookings/poll'
import { listClasses } from '@/server/classes/classes'
import { database } from '@/server/db/connection'
import { listRooms } from '@/server/rooms/rooms'
import { dayAfter, formatDay, formatTime, momentAt, studioDay, weekOf } from '@/server/studio/day'
import { listTeachers } from '@/server/studio/people'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Classes' }

/** The week that is asked for by any of its days, else this one. */
export default async function TimetablePage({ searchParams }: { searchParams: Promise<{ week?: string }> }) {
  const person = await requirePermission('seeNumbers')
  const db = database()
  const { timeZone } = await getStudio(db, person)
  const today = studioDay(new Date(), timeZone)
  const { week } = await searchParams
  const asked = typeof week === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(week) && !Number.isNaN(Date.parse(week))
  const monday = weekOf(asked ? week : today)
  const days = Array.from({ length: 7 }, (_, i) => dayAfter(monday, i))
  const [from, to] = [momentAt(monday, '00:00', timeZone), momentAt(dayAfter(monday, 7), '00:00', timeZone)]
  const [classes, rooms] = [await listClasses(db, person, from, to), await listRooms(db, person)]
  const teachers = can(person, 'planClasses') ? await listTeachers(db, person) : []
  return (
    <TimetableView
      days={days.map((day) => ({ day, name: formatDay(day), today: day === today }))}
      classes={classes.map(({ id, title, startsAt, endsAt, roomName, riders, teacher, cancelledAt }) => ({
        id,
        title,
        day: studioDay(startsAt, timeZone),
        time: formatTime(startsAt, timeZone),
        until: formatTime(endsAt, timeZone),
        startMs: startsAt.getTime(),
        endMs: endsAt.getTime(),
        room: roomName,
        teacher,
        riders,
        cancelled: cancelledAt !== null,
      }))}
      before={dayAfter(monday, -7)}
      after={dayAfter(monday, 7)}
      sources={[
        sourceLine('The booking service', bookingStatus(person.studioId), timeZone),
        sourceLine('The calendar', calendarStatus(person.studioId), timeZone),
      ].filter((line) => line !== null)}
      rooms={rooms.map(({ id, name }) => ({ id, name }))}
      teachers={teachers.map(({ id, name }) => ({ id, name }))}
      mayPlan={can(person, 'planClasses')}
      mayArrange={can(person, 'manageBikes')}
    />
  )
}

/** How a source does, in a line; null where there is none. */
function sourceLine(source: string, status: SourceStatus | null, timeZone: string): string | null {
  if (!status) return null
  const { readAt, trouble, troubleSince, nextAt, taken } = status
  const time = (at: Date | null) => at && formatTime(at, timeZone)
  return formatSourceStatus({
    source,
    readAt: time(readAt),
    trouble,
    since: time(troubleSince),
    nextAt: time(nextAt)!,
    unknownNames: taken?.unknownNames ?? [],
    faults: taken?.faults ?? 0,
  })
}
