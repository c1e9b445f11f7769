'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import { authorize, type CurrentUser } from '@/server/accounts/session'
import * as classes from '@/server/classes/classes'
import type { ClassFacts } from '@/server/classes/classes'
import { publishClassEvent } from '@/server/classes/live'
import { database } from '@/server/db/connection'
import { isId, partId } from '@/server/ids'
import { listRooms } from '@/server/rooms/rooms'
import { dayAfter, formatTime, momentAt, studioDay } from '@/server/studio/day'
import { listTeachers } from '@/server/studio/people'
import { getStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'
import type { ClassFieldValues } from './ClassFields'
import { readClassFields } from './readClassFields'

const refused = (refusal: ActionRefusal) => ({ outcome: 'refused', say: formatActionRefusal(refusal) }) as const
const MAX_WEEKS = 52

type Named = Readonly<{ id: string; name: string }>
/** A class with what it can be changed to. */
export type ClassForEdit = Readonly<{
  facts: ClassFieldValues
  rooms: readonly Named[]
  teachers: readonly Named[]
  cancelled: boolean
  /** Hint for an imported class; null for one made by hand. */
  fromOutside: string | null
}>

const FROM_OUTSIDE: Readonly<Partial<Record<classes.StudioClass['source'], string>>> = {
  calendar: 'This class comes from a calendar. The next import sets its name and time again.',
  list: 'This class comes from a list. The next import sets its name and time again.',
  booking: 'This class comes from the booking service, which sets its name and time again.',
}

/** A class as its form shows it. */
export async function classForEdit(classId: string): Promise<ActionResult<{ found: ClassForEdit }>> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  const db = database()
  const of = isId(classId) ? await classes.findClass(db, person, classId) : null
  if (!of || of.openDay !== null) return refused({ code: 'noSuchClass' })
  const { timeZone } = await getStudio(db, person)
  return {
    outcome: 'kept',
    found: {
      facts: {
        title: of.title,
        day: studioDay(of.startsAt, timeZone),
        time: formatTime(of.startsAt, timeZone),
        minutes: Math.round((of.endsAt.getTime() - of.startsAt.getTime()) / 60_000),
        roomId: of.roomId,
        teacherId: of.teacherId,
      },
      rooms: (await listRooms(db, person)).map(({ id, name }) => ({ id, name })),
      teachers: (await listTeachers(db, person)).map(({ id, name }) => ({ id, name })),
      cancelled: of.cancelledAt !== null,
      fromOutside: FROM_OUTSIDE[of.source] ?? null,
    },
  }
}

/** Changes a class from what its form showed to what it shows now. */
export async function changeClass(
  classId: string,
  from: ClassFieldValues,
  to: ClassFieldValues,
): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  if (!isId(classId)) return refused({ code: 'noSuchClass' })
  const [before, after] = [await readFacts(person, from), await readFacts(person, to)]
  if ('code' in before) return refused({ code: 'malformed' })
  if ('code' in after) return refused(after)
  const changed = await classes.changeClassFacts(database(), person, classId, { from: before, to: after })
  if (changed.outcome === 'kept') {
    publishClassEvent(classId, null)
    return { outcome: 'kept' }
  }
  return refused({ code: changed.outcome === 'gone' ? 'noSuchClass' : 'classChanged' })
}

/** Adds a class again in the weeks after it, at the same time on the studio's clock. */
export async function repeatClass(id: string, classId: string, weeks: number): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  if (!isId(id) || !Number.isInteger(weeks) || weeks < 1 || weeks > MAX_WEEKS) return refused({ code: 'malformed' })
  const db = database()
  const of = isId(classId) ? await classes.findClass(db, person, classId) : null
  if (!of || of.openDay !== null) return refused({ code: 'noSuchClass' })
  const { timeZone } = await getStudio(db, person)
  const [day, time] = [studioDay(of.startsAt, timeZone), formatTime(of.startsAt, timeZone)]
  const asked = Array.from({ length: weeks }, (_, i) => ({
    id: partId(id, i + 1),
    startsAt: momentAt(dayAfter(day, 7 * (i + 1)), time, timeZone),
  }))
  const { outcome } = await classes.repeatClass(db, person, of, asked, new Date())
  return outcome === 'kept' ? { outcome } : refused({ code: 'idTaken' })
}

/** Calls a class off, or takes that back; its list and notes stay. */
export async function cancelClass(classId: string, cancelled: boolean): Promise<ActionResult> {
  const person = await authorize('planClasses')
  if (!person) return refused({ code: 'notAllowed' })
  const change = { cancelledAt: cancelled === true ? new Date() : null }
  const known = isId(classId) && (await classes.changeClass(database(), person, classId, change))
  if (!known) return refused({ code: 'noSuchClass' })
  publishClassEvent(classId, null)
  return { outcome: 'kept' }
}

async function readFacts(person: CurrentUser, sent: unknown): Promise<ClassFacts | ActionRefusal> {
  const read = readClassFields(sent)
  if ('code' in read) return read
  const { title, day, time, minutes, roomId, teacherId } = read
  const { timeZone } = await getStudio(database(), person)
  const startsAt = momentAt(day, time, timeZone)
  if (Number.isNaN(startsAt.getTime())) return { code: 'malformed' }
  return { title, startsAt, endsAt: new Date(startsAt.getTime() + minutes * 60_000), roomId, teacherId }
}
