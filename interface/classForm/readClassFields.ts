import type { ActionRefusal } from '@/core/messages/actions'
import { isId, textOf } from '@/server/ids'
import type { ClassFieldValues } from './ClassFields'

/** The fields of a class as they were sent, checked; why not, where something is wrong. Day and time stay text. */
export function readClassFields(sent: unknown): ClassFieldValues | ActionRefusal {
  const { title, day, time, minutes, roomId, teacherId } = (sent ?? {}) as ClassFieldValues
  const named = textOf(title).trim().slice(0, 120)
  if (named === '') return { code: 'noTitle' }
  if (!/^\d{4}-\d{2}-\d{2}$/.test(textOf(day)) || !/^([01]\d|2[0-3]):[0-5]\d$/.test(textOf(time)))
    return { code: 'malformed' }
  if (!(Number.isInteger(minutes) && minutes >= 5 && minutes <= 600)) return { code: 'endsBeforeStart' }
  if (roomId !== null && !isId(roomId)) return { code: 'noSuchRoom' }
  if (teacherId !== null && !isId(teacherId)) return { code: 'malformed' }
  return { title: named, day, time, minutes, roomId, teacherId }
}
