import { formatDay, formatSpan } from '@/core/messages/words/dates'
import { can } from '@/server/platform/accounts/can'
import type { ClassPage } from '@/server/pages/classes/classPage'
import type { ClassInfo } from './classTypes'

/** The head of every page of a class, in words on the studio's clock. */
export function classInfo({ person, ofClass, studio: { timeZone } }: ClassPage): ClassInfo {
  const { id, title, startsAt, endsAt, roomName, openDay, cancelledAt, teacher, hands, doorsMin, blocks } = ofClass
  return {
    id,
    title,
    day: formatDay(startsAt, timeZone),
    span: formatSpan(ofClass, timeZone),
    timeZone,
    startMs: startsAt.getTime(),
    endMs: endsAt.getTime(),
    roomName,
    open: openDay !== null,
    cancelled: cancelledAt !== null,
    teacher,
    mayEdit: openDay === null && can(person, 'planClasses'),
    hands,
    doorsMin,
    blocks: blocks ?? [],
  }
}
