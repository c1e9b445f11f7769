import { formatDay, formatSpan } from '@/core/messages/words/dates'
import { formatHanded } from '@/core/messages/classes/watch'
import { formatComplaint, formatTrialOnFloor } from '@/core/messages/comfort/comfort'
import type { DueLine, DueSubject, Today } from '@/server/pages/classes/today'
import type { TodayViewProps } from './TodayView'

function textOf(subject: DueSubject): string {
  switch (subject.kind) {
    case 'complaint':
      return formatComplaint(subject.complaint)
    case 'trial':
      return formatTrialOnFloor(subject.trial)
    case 'plan':
      return subject.text
    case 'confirm':
      return `numbers saved by ${subject.by}, a trainee: look them over`
    case 'handed':
      return formatHanded(subject.by, subject.said)
  }
}

const dueText = ({ subject, fromClassId, ...line }: DueLine) => ({
  ...line,
  what: textOf(subject),
  href: fromClassId
    ? `/class/${fromClassId}/after`
    : `/riders/${line.memberId}${subject.kind === 'confirm' ? '' : '/reasons'}`,
})

/** The studio's day in words, times on the studio's clock. */
export const todayProps = ({ now, timeZone, next, seesNotes, setsUp, due, ...today }: Today): TodayViewProps => ({
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
  today: { ...today, due: due.map(dueText) },
  seesNotes,
  setsUp,
})
