import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'

dayjs.extend(utc)
dayjs.extend(timezone)

/** The moment at which a clock of that zone shows this day and time, "2026-11-26" and "18:00". */
export const momentAt = (day: string, time: string, timeZone: string): Date =>
  dayjs.tz(`${day}T${time}:00`, timeZone).toDate()

/** The day so many days after another one. */
export const dayAfter = (day: string, days: number): string => dayjs.utc(day).add(days, 'day').format('YYYY-MM-DD')

/** The Monday of a day's week. */
export const weekOf = (day: string): string => dayAfter(day, -((dayjs.utc(day).day() + 6) % 7))
