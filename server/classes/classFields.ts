import type { Refusal } from '../../core/messages/refusals'
import { isId, textOf } from '../platform/ids'

/** What a class is called, when, where and with whom; day and time on the studio's clock. */
export type ClassFieldValues = Readonly<{
  title: string
  /** YYYY-MM-DD. */
  day: string
  /** HH:mm. */
  time: string
  minutes: number
  roomId: string | null
  teacherId: string | null
}>

/** The fields of a class as they were sent, checked; why not, where something is wrong. Day and time stay text. */
export function readClassFields(sent: unknown): ClassFieldValues | Refusal {
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
