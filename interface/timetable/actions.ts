'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import type { TimetableTaken } from '@/core/messages/timetable'
import { authorize } from '@/server/accounts/session'
import { bringInTimetable } from '@/server/classes/bringIn'
import * as classes from '@/server/classes/classes'
import { database } from '@/server/db/connection'
import { isId, partId, textOf } from '@/server/ids'
import { findRoom } from '@/server/rooms/rooms'
import { dayAfter, formatDate, formatTime, momentAt } from '@/server/studio/day'
import { listTeachers } from '@/server/studio/people'
import { getStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'

const refused = (refusal: ActionRefusal) => ({ outcome: 'refused', say: formatActionRefusal(refusal) }) as const

/** A class as it is typed in; day and time on the studio's clock. */
export type TypedClass = Readonly<{
  title: string
  day: string
  time: string
  minutes: number
  roomId: string | null
  teacherId: string | null
  /** So many weeks one after another, at the same time on the studio's clock. */
  weeks: number
}>

/** Adds a class, or one each week; all or none. Sent again under the same id it changes nothing. */
export async function addClass(id: string, typed: TypedClass): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  const db = database()
  const read = await readTyped(typed)
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

const MOST_WEEKS = 52

async function readTyped(sent: unknown): Promise<TypedClass | ActionRefusal> {
  const { title, day, time, minutes, roomId, teacherId, weeks } = (sent ?? {}) as TypedClass
  const named = typeof title === 'string' ? title.trim().slice(0, 120) : ''
  if (named === '') return { code: 'noTitle' }
  if (!/^\d{4}-\d{2}-\d{2}$/.test(textOf(day)) || !/^([01]\d|2[0-3]):[0-5]\d$/.test(textOf(time)))
    return { code: 'malformed' }
  if (!(Number.isInteger(minutes) && minutes >= 5 && minutes <= 600)) return { code: 'endsBeforeStart' }
  if (!(Number.isInteger(weeks) && weeks >= 1 && weeks <= MOST_WEEKS)) return { code: 'malformed' }
  if (roomId !== null && !isId(roomId)) return { code: 'noSuchRoom' }
  if (teacherId !== null && !isId(teacherId)) return { code: 'malformed' }
  return { title: named, day, time, minutes, roomId, teacherId, weeks }
}

/** What a text brought in holds, as the page shows it. */
export type BroughtInView = Readonly<{
  found: readonly Readonly<{ title: string; place: string; when: string; riders: number; cancelled: boolean }>[]
  faults: readonly string[]
  taken: TimetableTaken | null
}>

const LONGEST_TEXT = 2_000_000

/** Looks at a calendar or a list of classes, or takes it over where `take`. */
export async function bringIn(text: string, take: boolean): Promise<ActionResult<BroughtInView>> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  if (typeof text !== 'string' || text.length > LONGEST_TEXT) return refused({ code: 'malformed' })
  const db = database()
  const { timeZone } = await getStudio(db, person)
  const { found, faults, taken } = await bringInTimetable(
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
