import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'

dayjs.extend(utc)
dayjs.extend(timezone)

/** The studio's calendar day at a moment: `studioDay(…T23:30Z, 'Europe/Oslo')` → the next day. */
export const studioDay = (at: Date, timeZone: string): string => dayjs(at).tz(timeZone).format('YYYY-MM-DD')

/** "Mon 23 Nov 2026" in the studio's time zone. */
export const formatDate = (at: Date, timeZone: string): string => dayjs(at).tz(timeZone).format('ddd D MMM YYYY')

/** "18:05" in the studio's time zone. */
export const formatTime = (at: Date, timeZone: string): string => dayjs(at).tz(timeZone).format('HH:mm')

/** "at 18:05", with the date before it where that is not today: "on Mon 23 Nov 2026 at 18:05". */
export function formatDayAndTime(at: Date, timeZone: string, now = new Date()): string {
  const today = studioDay(at, timeZone) === studioDay(now, timeZone)
  return `${today ? '' : `on ${formatDate(at, timeZone)} `}at ${formatTime(at, timeZone)}`
}
