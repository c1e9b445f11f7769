import { studioDay } from '../../../core/messages/words/dates'
import { bookingStatus, calendarStatus, type SourceStatus } from '../../classes/bookings/poll'
import { listClasses, type StudioClass } from '../../classes/classes'
import { listRooms } from '../../classes/rooms/rooms'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { dayAfter, momentAt, weekOf } from '../../studio/day'
import { listTeachers } from '../../studio/people'
import { getStudio } from '../../studio/studio'

type Named = Readonly<{ id: string; name: string }>

/** A week of classes. Days are YYYY-MM-DD on the studio's calendar. */
export type Timetable = Readonly<{
  timeZone: string
  today: string
  /** Monday to Sunday; `at` is a moment of the day. */
  days: readonly Readonly<{ day: string; at: Date }>[]
  /** The Mondays before and after. */
  before: string
  after: string
  classes: readonly (StudioClass & Readonly<{ riders: number }>)[]
  rooms: readonly Named[]
  /** None for a user who plans no classes. */
  teachers: readonly Named[]
  /** Null where no such source is set up. */
  booking: SourceStatus | null
  calendar: SourceStatus | null
  mayPlan: boolean
  mayArrange: boolean
}>

const isDay = (text: unknown): text is string =>
  typeof text === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text))

/** The week of the day given, or the current week where that is not a day. */
export async function timetable(db: DbExecutor, scope: Scope, week: unknown, now: Date): Promise<Timetable> {
  const { timeZone } = await getStudio(db, scope)
  const today = studioDay(now, timeZone)
  const monday = weekOf(isDay(week) ? week : today)
  const [from, to] = [momentAt(monday, '00:00', timeZone), momentAt(dayAfter(monday, 7), '00:00', timeZone)]
  const mayPlan = can(scope, 'planClasses')
  return {
    timeZone,
    today,
    days: Array.from({ length: 7 }, (_, i) => dayAfter(monday, i)).map((day) => ({
      day,
      at: momentAt(day, '12:00', timeZone),
    })),
    before: dayAfter(monday, -7),
    after: dayAfter(monday, 7),
    classes: await listClasses(db, scope, from, to),
    rooms: (await listRooms(db, scope)).map(({ id, name }) => ({ id, name })),
    teachers: mayPlan ? (await listTeachers(db, scope)).map(({ id, name }) => ({ id, name })) : [],
    booking: bookingStatus(scope.studioId),
    calendar: calendarStatus(scope.studioId),
    mayPlan,
    mayArrange: can(scope, 'manageBikes'),
  }
}
