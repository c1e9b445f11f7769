'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import type { TimetableTaken } from '@/core/messages/timetable'
import { authorize } from '@/server/accounts/session'
import { importTimetable } from '@/server/classes/importTimetable'
import * as classes from '@/server/classes/classes'
import { database } from '@/server/db/connection'
import { isId, partId } from '@/server/ids'
import { findRoom } from '@/server/rooms/rooms'
import { dayAfter, formatDate, formatTime, momentAt } from '@/server/studio/day'
import { listTeachers } from '@/server/studio/people'
import { getStudio } from '@/server/studio/studio'
import type { ClassFieldValues } from '../classForm/ClassFields'
import { readClassFields } from '../classForm/readClassFields'
import type { ActionResult } from '../shared/actionResult'

const refused = (refusal: ActionRefusal) => ({ outcome: 'refused', say: formatActionRefusal(refusal) }) as const

/** A class as it is typed in, for so many weeks one after another at the same time on the studio's clock. */
export type TypedClass = ClassFieldValues & Readonly<{ weeks: number }>

/** Adds a class, or one each week; all or none. Sent again under the same id it changes nothing. */
export async function addClass(id: string, typed: TypedClass): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  const db = database()
  const read = readTyped(typed)
  if ('code' in read) return refused(read)
  if (!isId(id)) return refused({ code: 'malformed' })
  if (read.roomId !== null && !(await findRoom(db, person, read.roomId))) return refused({ code: 'noSuchRoom' })
  const teachers = read.teacherId === null ? [] : await listTeachers(db, person)
  if (read.teacherId !== null && !teachers.some(({ id: known }) => known === read.teacherId))
    return refused({ code: 'noSuchColleague' })
  const { timeZone } = await getStudio(db, person)
  const asked = Array.from({ length: read.weeks }, (_, week) => {
    const startsAt = momentAt(dayAfter(read.day, 7 * week), read.time, timeZone)
    const endsAt = new Date(startsAt.getTime() + read.minutes * 60_000)
    return {
      id: week === 0 ? id : partId(id, week),
      title: read.title,
      startsAt,
      endsAt,
      roomId: read.roomId,
      teacherId: read.teacherId,
    }
  })
  const { outcome } = await classes.addClasses(db, person, asked, new Date())
  if (outcome !== 'kept') return refused({ code: 'idTaken' })
  return { outcome: 'kept' }
}

const MAX_WEEKS = 52

function readTyped(sent: TypedClass): TypedClass | ActionRefusal {
  const read = readClassFields(sent)
  if ('code' in read) return read
  const { weeks } = sent
  return Number.isInteger(weeks) && weeks >= 1 && weeks <= MAX_WEEKS ? { ...read, weeks } : { code: 'malformed' }
}

/** What a text brought in holds, as the page shows it. */
export type BroughtInView = Readonly<{
  found: readonly Readonly<{ title: string; place: string; when: string; riders: number; cancelled: boolean }>[]
  faults: readonly string[]
  taken: TimetableTaken | null
}>

const MAX_TEXT_LENGTH = 2_000_000

/** Looks at a calendar or a list of classes, or takes it over where `take`. */
export async function bringIn(text: string, take: boolean): Promise<ActionResult<BroughtInView>> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  if (typeof text !== 'string' || text.length > MAX_TEXT_LENGTH) return refused({ code: 'malformed' })
  const db = database()
  const { timeZone } = await getStudio(db, person)
  const { found, faults, taken } = await importTimetable(
    db,
    person,
    { text, timeZone, take: take === true },
    new Date(),
  )
  return {
    outcome: 'kept',
    found: found.map(({ startsAt, ...one }) => ({
      ...one,
      when: `${formatDate(startsAt, timeZone)}, ${formatTime(startsAt, timeZone)}`,
    })),
    faults,
    taken,
  }
}
