import { formatDay, formatSpan } from '@/core/messages/words/dates'
import type { Today } from '@/server/pages/classes/today'
import type { TodayViewProps } from './TodayView'

/** The studio's day in words, times on the studio's clock. */
export const todayProps = ({
  now,
  timeZone,
  next,
  seesNotes,
  setsUp,
  managesBikes,
  ...today
}: Today): TodayViewProps => ({
  next: next && {
    id: next.ofClass.id,
    title: next.ofClass.title,
    when: [
      formatDay(next.ofClass.startsAt, timeZone),
      formatSpan(next.ofClass, timeZone),
      ...(next.ofClass.roomName ? [next.ofClass.roomName] : []),
    ].join(', '),
    startsInMin: Math.ceil((next.ofClass.startsAt.getTime() - now.getTime()) / 60_000),
    coming: next.coming,
    withoutBike: next.withoutBike,
  },
  today,
  seesNotes,
  setsUp,
  managesBikes,
})
