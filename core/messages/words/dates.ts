/** Making one takes longer than the rest of a page’s dates together. */
const formats = new Map<string, Intl.DateTimeFormat>()

type Part = 'weekday' | 'day' | 'month' | 'year' | 'hour' | 'minute'

/** A moment as a clock and a calendar on the studio's wall have it, in words. */
function partsAt(at: Date, timeZone: string): Readonly<Record<Part, string>> {
  let format = formats.get(timeZone)
  if (!format) {
    format = new Intl.DateTimeFormat('en-US', {
      timeZone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
    formats.set(timeZone, format)
  }
  return Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, value])) as Record<Part, string>
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** The studio's calendar day at a moment: `studioDay(…T23:30Z, 'Europe/Oslo')` → the next day. */
export function studioDay(at: Date, timeZone: string): string {
  const { year, month, day } = partsAt(at, timeZone)
  const number = String(MONTHS.indexOf(month) + 1).padStart(2, '0')
  return `${year.padStart(4, '0')}-${number}-${day.padStart(2, '0')}`
}

/** "Mon 23 Nov 2026" in the studio's time zone. */
export function formatDate(at: Date, timeZone: string): string {
  const { weekday, day, month, year } = partsAt(at, timeZone)
  return `${weekday} ${day} ${month} ${year}`
}

/** "18:05" in the studio's time zone. */
export function formatTime(at: Date, timeZone: string): string {
  const { hour, minute } = partsAt(at, timeZone)
  return `${hour}:${minute}`
}

/** "at 18:05", with the date before it where that is not today: "on Mon 23 Nov 2026 at 18:05". */
export function formatDayAndTime(at: Date, timeZone: string, now: Date): string {
  const today = studioDay(at, timeZone) === studioDay(now, timeZone)
  return `${today ? '' : `on ${formatDate(at, timeZone)} `}at ${formatTime(at, timeZone)}`
}

/** "Thu 26 Nov" in the studio's time zone. */
export function formatDay(at: Date, timeZone: string): string {
  const { weekday, day, month } = partsAt(at, timeZone)
  return `${weekday} ${day} ${month}`
}

/** "18:00–18:45" of a class in the studio's time zone. */
export const formatSpan = (
  { startsAt, endsAt }: Readonly<{ startsAt: Date; endsAt: Date }>,
  timeZone: string,
): string => `${formatTime(startsAt, timeZone)}–${formatTime(endsAt, timeZone)}`
