import { formatSourceStatus } from '@/core/messages/classes/timetable'
import { formatDay, formatTime, studioDay } from '@/core/messages/words/dates'
import type { SourceStatus } from '@/server/classes/bookings/poll'
import type { Timetable } from '@/server/pages/classes/timetable'
import type { TimetableViewProps } from './TimetableView'

/** A week of classes in words, times on the studio's clock. */
export const timetableProps = ({
  timeZone,
  today,
  days,
  classes,
  booking,
  calendar,
  ...rest
}: Timetable): TimetableViewProps => ({
  ...rest,
  days: days.map(({ day, at }) => ({ day, name: formatDay(at, timeZone), today: day === today })),
  classes: classes.map(({ id, title, startsAt, endsAt, roomName, riders, teacher, cancelledAt }) => ({
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
  })),
  sources: [
    sourceLine('The booking service', booking, timeZone),
    sourceLine('The calendar', calendar, timeZone),
  ].filter((line) => line !== null),
})

/** The state of a source in a line; null where none is set up. */
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
