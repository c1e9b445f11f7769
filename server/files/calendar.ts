import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'
import ICAL from 'ical.js'
import type { CalendarFault } from '../../core/messages/calendar'

dayjs.extend(utc)
dayjs.extend(timezone)

/** One time a class takes place. `uid` and `at` (its start as the calendar names it) tell it from any other. */
export type CalendarEvent = Readonly<{
  uid: string
  at: string
  title: string
  place: string
  startsAt: Date
  endsAt: Date
  cancelled: boolean
}>

export type CalendarRead = Readonly<{ events: readonly CalendarEvent[]; faults: readonly CalendarFault[] }>

/** What is asked of a calendar: everything that begins from then to then, in the studio's zone where none is said. */
export type CalendarAsked = Readonly<{ from: Date; to: Date; timeZone: string }>

/** Of one event that repeats no more are taken; a rule without an end has no last one. */
const MOST_TIMES = 1000
/** A class of more hours is no class. */
const LONGEST_HOURS = 24
/** Begun that long before what is asked for, a rule is still walked through from its own beginning. */
const MOST_STEPS = 20_000

/**
 * The events of an iCalendar text (RFC 5545), each time of those that repeat by itself, by their start. An event that
 * cannot be read is told with the line it begins in and left out, as is one of whole days; the others are taken. A zone
 * nobody knows is told, and the studio's own taken for it.
 */
export function readCalendar(text: string, asked: CalendarAsked): CalendarRead {
  const faults: CalendarFault[] = []
  const lines = text.split(/\r\n|\n|\r/)
  if (!lines.some((line) => /^BEGIN:VCALENDAR\s*$/i.test(line)))
    return { events: [], faults: [{ line: 1, code: 'noCalendar' }] }
  const blocks = blocksOf(lines, faults)
  const read = blocks.flatMap(({ line, body }) => {
    try {
      const component = new ICAL.Component(ICAL.parse(body.join('\r\n')) as unknown[] as never)
      return [{ line, component, uid: String(component.getFirstPropertyValue('uid') ?? `line ${line}`) }]
    } catch {
      faults.push({ line, code: 'unreadable' })
      return []
    }
  })
  const byUid = new Map<string, typeof read>()
  for (const one of read) byUid.set(one.uid, [...(byUid.get(one.uid) ?? []), one])
  const events = [...byUid.values()].flatMap((ofOne) => timesOf(ofOne, asked, faults))
  return {
    events: events.sort((a, b) => a.startsAt.getTime() - b.startsAt.getTime() || (a.uid < b.uid ? -1 : 1)),
    faults: faults.sort((a, b) => a.line - b.line),
  }
}

type Block = Readonly<{ line: number; body: string[] }>

/** Each event's own lines, so that a broken one breaks no other. */
function blocksOf(lines: readonly string[], faults: CalendarFault[]): Block[] {
  const blocks: Block[] = []
  let open: Block | null = null
  lines.forEach((text, i) => {
    if (/^BEGIN:VEVENT\s*$/i.test(text)) {
      if (open) faults.push({ line: open.line, code: 'notEnded' })
      open = { line: i + 1, body: [] }
    }
    open?.body.push(text)
    if (open && /^END:VEVENT\s*$/i.test(text)) {
      blocks.push(open)
      open = null
    }
  })
  if (open) faults.push({ line: (open as Block).line, code: 'notEnded' })
  return blocks
}

type ReadEvent = Readonly<{ line: number; uid: string; component: ICAL.Component }>

/** Every time of one event within what is asked, single times that were moved or called off in their places. */
function timesOf(ofOne: readonly ReadEvent[], asked: CalendarAsked, faults: CalendarFault[]): CalendarEvent[] {
  const moved = ofOne.filter(({ component }) => component.hasProperty('recurrence-id'))
  const movedAt = new Set(moved.map(({ component }) => String(component.getFirstPropertyValue('recurrence-id'))))
  return ofOne.flatMap((one) => {
    try {
      const times = moved.includes(one) ? [startOf(one)] : startsOf(one, asked).filter((at) => !movedAt.has(String(at)))
      return times.flatMap((at) => timeOf(one, at, asked, faults))
    } catch (error) {
      faults.push({ line: one.line, code: error instanceof NoStart ? error.code : 'unreadable' })
      return []
    }
  })
}

/** The event begins at no minute. */
class NoStart extends Error {
  constructor(readonly code: 'noStart' | 'allDay') {
    super(code)
  }
}

function startOf({ component }: ReadEvent): ICAL.Time {
  const start = component.getFirstPropertyValue('dtstart') as ICAL.Time | null
  if (!start) throw new NoStart('noStart')
  if (start.isDate) throw new NoStart('allDay')
  return start
}

/** On the clock of its own zone: a class at seven stays at seven when summer time ends. */
function startsOf(one: ReadEvent, { from, to, timeZone }: CalendarAsked): ICAL.Time[] {
  const start = startOf(one)
  const { component } = one
  if (!component.hasProperty('rrule') && !component.hasProperty('rdate')) return [start]
  const expansion = new ICAL.RecurExpansion({ component, dtstart: start })
  const { zone } = zoneOf(component, timeZone)
  const found: ICAL.Time[] = []
  for (let step = 0; step < MOST_STEPS && found.length < MOST_TIMES; step++) {
    const next = expansion.next() as ICAL.Time | undefined
    if (!next) break
    // No clock on earth is farther from UTC: what is well before or after needs no zone looked up.
    const roughly = Date.UTC(next.year, next.month - 1, next.day, next.hour, next.minute)
    if (roughly < from.getTime() - FARTHEST_ZONE_MS) continue
    if (roughly > to.getTime() + FARTHEST_ZONE_MS) break
    const at = momentOf(next, zone)
    if (at >= from && at <= to) found.push(next)
  }
  return found
}
const FARTHEST_ZONE_MS = 15 * 3_600_000

function timeOf(one: ReadEvent, start: ICAL.Time, asked: CalendarAsked, faults: CalendarFault[]): CalendarEvent[] {
  const { component, uid, line } = one
  const { zone, unknown } = zoneOf(component, asked.timeZone)
  if (unknown && !faults.some((fault) => fault.line === line && fault.code === 'unknownZone'))
    faults.push({ line, code: 'unknownZone', zone: unknown })
  const startsAt = momentOf(start, zone)
  if (startsAt < asked.from || startsAt > asked.to) return []
  const seconds = secondsOf(component, zone, asked.timeZone)
  if (!(seconds > 0) || seconds > LONGEST_HOURS * 3600) {
    if (!faults.some((fault) => fault.line === line && fault.code === 'oddLength'))
      faults.push({ line, code: 'oddLength' })
    return []
  }
  const said = (name: string) => String(component.getFirstPropertyValue(name) ?? '').trim()
  return [
    {
      uid,
      at: String(component.getFirstPropertyValue('recurrence-id') ?? start),
      title: said('summary'),
      place: said('location'),
      startsAt,
      endsAt: new Date(startsAt.getTime() + 1000 * seconds),
      cancelled: said('status').toUpperCase() === 'CANCELLED',
    },
  ]
}

/** How long one time of it lasts. */
function secondsOf(component: ICAL.Component, zone: string, studio: string): number {
  const duration = component.getFirstPropertyValue('duration') as ICAL.Duration | null
  if (duration) return duration.toSeconds()
  const [start, end] = ['dtstart', 'dtend'].map((name) => component.getFirstPropertyValue(name) as ICAL.Time | null)
  // Nobody said how long: an hour (the usual class; ours).
  if (!start || !end) return 3600
  return (momentOf(end, zoneOf(component, studio, 'dtend').zone).getTime() - momentOf(start, zone).getTime()) / 1000
}

/** The zone of an event's start or end: the one it names where it is known, else the studio's. */
function zoneOf(
  component: ICAL.Component,
  studio: string,
  of: 'dtstart' | 'dtend' = 'dtstart',
): Readonly<{ zone: string; unknown?: string }> {
  const named = component.getFirstProperty(of)?.getFirstParameter('tzid')
  if (!named) return { zone: studio }
  return isZone(named) ? { zone: named } : { zone: studio, unknown: named }
}

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}

/** A time on a clock as a moment: its own where it says UTC, else by the zone's clock. */
function momentOf(time: ICAL.Time, zone: string): Date {
  if (time.zone?.tzid === 'UTC') return time.toJSDate()
  const two = (n: number) => String(n).padStart(2, '0')
  const { year, month, day, hour, minute, second } = time
  const clock = `${year}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}:${two(second)}`
  return dayjs.tz(clock, zone).toDate()
}

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
