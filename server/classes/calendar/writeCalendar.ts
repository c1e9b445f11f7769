import ICAL from 'ical.js'

/** What is written of a class into a calendar. */
export type WrittenEvent = Readonly<{
  uid: string
  title: string
  place: string
  startsAt: Date
  endsAt: Date
  cancelled: boolean
}>

/** Classes as an iCalendar text (RFC 5545), in UTC; `now` is when it was written. */
export function writeCalendar(name: string, events: readonly WrittenEvent[], now: Date): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.addPropertyWithValue('version', '2.0')
  calendar.addPropertyWithValue('prodid', '-//Yielding Saddle//EN')
  calendar.addPropertyWithValue('x-wr-calname', name)
  for (const { uid, title, place, startsAt, endsAt, cancelled } of events) {
    const event = new ICAL.Component('vevent')
    event.addPropertyWithValue('uid', uid)
    event.addPropertyWithValue('dtstamp', ICAL.Time.fromJSDate(now, true))
    event.addPropertyWithValue('dtstart', ICAL.Time.fromJSDate(startsAt, true))
    event.addPropertyWithValue('dtend', ICAL.Time.fromJSDate(endsAt, true))
    event.addPropertyWithValue('summary', title)
    if (place) event.addPropertyWithValue('location', place)
    if (cancelled) event.addPropertyWithValue('status', 'CANCELLED')
    calendar.addSubcomponent(event)
  }
  return `${calendar.toString()}\r\n`
}
