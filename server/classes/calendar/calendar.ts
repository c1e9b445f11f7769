import ICAL from 'ical.js'
import type { CalendarFault } from '../../../core/messages/classes/calendar'
import { within } from './limited'
import { occurrenceKey, occurrences } from './recurrence'
import { momentOf, zoneOf } from './zones'

/** One occurrence of a class, identified by `uid` and `at` (its start in the series). */
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

/** Request: occurrences that begin in a time span; the studio's zone applies to events without one. */
export type CalendarWindow = Readonly<{ from: Date; to: Date; timeZone: string }>

/**
 * Time limits for one recurring event and for the whole calendar, ms. An ordinary event takes under 1 ms; the limits
 * leave room for a machine that pauses or is fully loaded.
 */
export type CalendarLimits = Readonly<{ eventMs: number; wholeMs: number }>
const LIMITS: CalendarLimits = { eventMs: 5000, wholeMs: 20_000 }

/** Maximum duration of a class, hours. */
const MAX_HOURS = 24
/** Maximum number of occurrences returned. */
const MAX_EVENTS = 5000

/**
 * The occurrences of an iCalendar text (RFC 5545), sorted by start. Skips events that it cannot parse, events of whole
 * days, and events that take too long, each with a fault and its line. An unknown zone gives a fault, and the studio's
 * zone applies.
 */
export function readCalendar(text: string, window: CalendarWindow, limits: CalendarLimits = LIMITS): CalendarRead {
  const endsAt = performance.now() + limits.wholeMs
  const faults: CalendarFault[] = []
  const lines = text.split(/\r\n|\n|\r/)
  if (!lines.some((line) => /^BEGIN:VCALENDAR\s*$/i.test(line)))
    return { events: [], faults: [{ line: 1, code: 'noCalendar' }] }
  const blocks = blocksOf(lines, faults)
  /** Runs one step for an event. Returns null and adds a fault if the step throws or runs out of time. */
  const done = <T>({ line }: Pick<Block, 'line'>, name: () => string, work: () => T, isEndless = false): T | null => {
    const leftMs = endsAt - performance.now()
    try {
      // Only a recurrence rule can loop forever. The V8 limit costs 0.2 ms a call, so other steps run without it.
      const result =
        leftMs <= 0 ? null : isEndless ? within(Math.min(limits.eventMs, leftMs), work) : { result: work() }
      if (result) return result.result
      faults.push({ line, code: leftMs > limits.eventMs ? 'endless' : 'noTimeLeft', name: name() })
    } catch (error) {
      faults.push({ line, code: error instanceof NoStart ? error.code : 'unreadable' })
    }
    return null
  }
  const read = blocks
    .filter((block) => !isElsewhere(block, window))
    .flatMap(
      (block) =>
        done(
          block,
          () => summaryOf(block),
          () => componentOf(block),
        ) ?? [],
    )
  const byUid = new Map<string, ReadEvent[]>()
  for (const one of read) {
    const series = byUid.get(one.uid)
    if (series) series.push(one)
    else byUid.set(one.uid, [one])
  }
  const events: CalendarEvent[] = []
  for (const ofOne of byUid.values()) {
    const name = () => titleOf(ofOne[0])
    const series = done(ofOne[0], name, () => seriesOf(ofOne, window))
    if (series)
      for (const one of ofOne) {
        const hasRule = one.component.hasProperty('rrule')
        events.push(...(done(one, name, () => timesOf(one, series, window, faults), hasRule) ?? []))
      }
  }
  events.sort((a, b) => a.startsAt.getTime() - b.startsAt.getTime() || (a.uid < b.uid ? -1 : 1))
  if (events.length > MAX_EVENTS) faults.push({ line: 1, code: 'tooMany', most: MAX_EVENTS })
  return { events: events.slice(0, MAX_EVENTS), faults: faults.sort((a, b) => a.line - b.line) }
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

/** Margin around the window that covers any UTC offset, ms. */
const AROUND_MS = 2 * 86_400_000

/** Whether a non-recurring event lies outside the window, by its raw DTSTART line. Skips parsing of old events. */
function isElsewhere({ body }: Block, { from, to }: CalendarWindow): boolean {
  if (body.some((line) => /^(RRULE|RDATE|RECURRENCE-ID)[:;]/i.test(line))) return false
  const start = body.find((line) => /^DTSTART[:;]/i.test(line))
  const [, year, month, day] = /:(\d{4})(\d{2})(\d{2})T\d{6}Z?$/.exec(start ?? '') ?? []
  const at = Date.parse(`${year}-${month}-${day}`)
  return at < from.getTime() - AROUND_MS || at > to.getTime() + AROUND_MS
}

/** Parses the lines of one event; throws on syntax errors. */
function componentOf({ line, body }: Block): ReadEvent {
  const component = new ICAL.Component(ICAL.parse(body.join('\r\n')) as unknown[] as never)
  return { line, component, uid: String(component.getFirstPropertyValue('uid') ?? `line ${line}`) }
}

const MAX_NAME_LENGTH = 60
const shortened = (name: string): string => (name === '' ? 'without a name' : name.slice(0, MAX_NAME_LENGTH))
const titleOf = ({ component }: ReadEvent): string => shortened(text(component, 'summary'))
const summaryOf = ({ body }: Block): string =>
  shortened(body.find((line) => /^SUMMARY[:;]/i.test(line))?.replace(/^[^:]*:/, '') ?? '')

type ReadEvent = Readonly<{ line: number; uid: string; component: ICAL.Component }>

/** Master event of a series; `start` is null if the calendar has only overrides. */
type Series = Readonly<{ start: ICAL.Time | null; zone: string; moved: ReadonlySet<string> }>

const isMoved = ({ component }: ReadEvent): boolean => component.hasProperty('recurrence-id')

function seriesOf(ofOne: readonly ReadEvent[], { timeZone }: CalendarWindow): Series {
  const master = ofOne.find((one) => !isMoved(one))
  const start = (master?.component.getFirstPropertyValue('dtstart') ?? null) as ICAL.Time | null
  const series = { start, zone: master ? zoneOf(master.component, timeZone).zone : timeZone }
  return { ...series, moved: new Set(ofOne.filter(isMoved).flatMap((one) => keyOfMoved(one, series) ?? [])) }
}

/** Key of the occurrence that an override replaces; null for an invalid RECURRENCE-ID. */
function keyOfMoved({ component }: ReadEvent, { start, zone }: Pick<Series, 'start' | 'zone'>): string | null {
  const property = component.getFirstProperty('recurrence-id')!
  const about = property.getFirstValue() as ICAL.Time | null
  if (!(about instanceof ICAL.Time)) return null
  return start && !about.isDate ? occurrenceKey(about, property.getFirstParameter('tzid'), start, zone) : String(about)
}

/** Occurrences of one event within the window, without those that an override replaces. */
function timesOf(one: ReadEvent, series: Series, window: CalendarWindow, faults: CalendarFault[]): CalendarEvent[] {
  const start = startOf(one)
  if (isMoved(one)) return timeOf(one, start, keyOfMoved(one, series) ?? String(start), window, faults)
  const repeats = one.component.hasProperty('rrule') || one.component.hasProperty('rdate')
  const times = repeats ? occurrences(one.component, start, series.zone, window) : [start]
  return times
    .filter((at) => !series.moved.has(String(at)) && !series.moved.has(String(at).slice(0, 10)))
    .flatMap((at) => timeOf(one, at, String(at), window, faults))
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

function timeOf(
  one: ReadEvent,
  start: ICAL.Time,
  at: string,
  window: CalendarWindow,
  faults: CalendarFault[],
): CalendarEvent[] {
  const { component, uid, line } = one
  const { zone, unknown } = zoneOf(component, window.timeZone)
  if (unknown && !faults.some((fault) => fault.line === line && fault.code === 'unknownZone'))
    faults.push({ line, code: 'unknownZone', zone: unknown })
  const startsAt = momentOf(start, zone)
  if (!(startsAt >= window.from && startsAt <= window.to)) return []
  const seconds = secondsOf(component, zone, window.timeZone)
  if (!(seconds > 0) || seconds > MAX_HOURS * 3600) {
    if (!faults.some((fault) => fault.line === line && fault.code === 'oddLength'))
      faults.push({ line, code: 'oddLength' })
    return []
  }
  return [
    {
      uid,
      at,
      title: text(component, 'summary'),
      place: text(component, 'location'),
      startsAt,
      endsAt: new Date(startsAt.getTime() + 1000 * seconds),
      cancelled: text(component, 'status').toUpperCase() === 'CANCELLED',
    },
  ]
}

const text = (component: ICAL.Component, name: string): string =>
  String(component.getFirstPropertyValue(name) ?? '').trim()

/** How long one time of it lasts. */
function secondsOf(component: ICAL.Component, zone: string, studio: string): number {
  const duration = component.getFirstPropertyValue('duration') as ICAL.Duration | null
  if (duration) return duration.toSeconds()
  const [start, end] = ['dtstart', 'dtend'].map((name) => component.getFirstPropertyValue(name) as ICAL.Time | null)
  // Without an end: one hour (assumption).
  if (!start || !end) return 3600
  return (momentOf(end, zoneOf(component, studio, 'dtend').zone).getTime() - momentOf(start, zone).getTime()) / 1000
}
