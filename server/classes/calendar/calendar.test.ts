/** @jest-environment node */
import { formatCalendarFault } from '@/core/messages/classes/calendar'
import { readCalendar } from './calendar'
import { writeCalendar } from './writeCalendar'

const asked = { from: new Date('2026-10-01T00:00:00Z'), to: new Date('2026-12-01T00:00:00Z'), timeZone: 'Europe/Oslo' }
/** Time limits that no load on the machine reaches. */
const PATIENT = { eventMs: 300_000, wholeMs: 300_000 }
const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']
const calendar = (...events: string[][]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...events.flat(), 'END:VCALENDAR', ''].join('\r\n')
const startsOf = (text: string, of = asked) =>
  readCalendar(text, of, PATIENT).events.map((e) => e.startsAt.toISOString())
const said = (text: string) => readCalendar(text, asked, PATIENT).faults.map(formatCalendarFault)

test('a weekly class stays at seven on its own clock when summer time ends; days left out are left out', () => {
  const weekly = event(
    'UID:weekly',
    'DTSTART;TZID=Europe/Oslo:20261013T190000',
    'DTEND;TZID=Europe/Oslo:20261013T194500',
    'RRULE:FREQ=WEEKLY;COUNT=4',
    'EXDATE;TZID=Europe/Oslo:20261027T190000',
    'SUMMARY:Evening climb\\, long',
    'LOCATION:Hall',
  )
  const { events, faults } = readCalendar(calendar(weekly), asked, PATIENT)
  expect(faults).toEqual([])
  // Summer time ends there on 25 October 2026: 17:00 UTC before, 18:00 after.
  expect(events.map((e) => e.startsAt.toISOString())).toEqual([
    '2026-10-13T17:00:00.000Z',
    '2026-10-20T17:00:00.000Z',
    '2026-11-03T18:00:00.000Z',
  ])
  expect(events[0]).toMatchObject({ uid: 'weekly', title: 'Evening climb, long', place: 'Hall', cancelled: false })
  expect(events[0].endsAt.toISOString()).toBe('2026-10-13T17:45:00.000Z')
})

test('a rule gives the days that RFC 5545 lists for it (3.8.5.3, every second week; from memory)', () => {
  const rfc = event(
    'UID:rfc',
    'DTSTART;TZID=America/New_York:19970902T090000',
    'DURATION:PT1H',
    'RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
  )
  const then = { ...asked, from: new Date('1997-01-01T00:00:00Z'), to: new Date('1998-01-01T00:00:00Z') }
  expect(startsOf(calendar(rfc), then).map((at) => at.slice(0, 10))).toEqual([
    '1997-09-02',
    '1997-09-04',
    '1997-09-16',
    '1997-09-18',
    '1997-09-30',
    '1997-10-02',
    '1997-10-14',
    '1997-10-16',
  ])
})

test('one time moved or called off stands in its place, and no other of them', () => {
  const weekly = event(
    'UID:w',
    'DTSTART:20261102T180000Z',
    'DURATION:PT45M',
    'RRULE:FREQ=WEEKLY;COUNT=3',
    'SUMMARY:Ride',
  )
  const later = event(
    'UID:w',
    'RECURRENCE-ID:20261109T180000Z',
    'DTSTART:20261109T190000Z',
    'DURATION:PT45M',
    'SUMMARY:Ride',
  )
  const off = event('UID:w', 'RECURRENCE-ID:20261116T180000Z', 'DTSTART:20261116T180000Z', 'STATUS:CANCELLED')
  const { events } = readCalendar(calendar(weekly, later, off), asked, PATIENT)
  expect(events.map((e) => [e.startsAt.toISOString().slice(5, 13), e.cancelled])).toEqual([
    ['11-02T18', false],
    ['11-09T19', false],
    ['11-16T18', true],
  ])
  expect(new Set(events.map((e) => e.at)).size).toBe(3)
})

test('a rule without an end is taken as far as requested', () => {
  const daily = event('UID:d', 'DTSTART:20200101T060000Z', 'DURATION:PT1H', 'RRULE:FREQ=DAILY')
  const few = { ...asked, to: new Date('2026-10-04T00:00:00Z') }
  expect(startsOf(calendar(daily), few)).toHaveLength(3)
})

test('what cannot be read is reported by its line and disturbs nothing else', () => {
  const good = event('UID:good', 'DTSTART:20261102T180000Z', 'DTEND:20261102T190000Z')
  const text = calendar(
    event('UID:broken', 'DTSTART;this is no line', 'SUMMARY:x'),
    event('UID:none', 'SUMMARY:without a start'),
    event('UID:back', 'DTSTART:20261102T180000Z', 'DTEND:20261102T170000Z'),
    event('UID:zone', 'DTSTART;TZID=W. Nowhere Standard Time:20261102T190000', 'DURATION:PT1H'),
    good,
    ['BEGIN:VEVENT', 'UID:cut'],
  )
  const { events } = readCalendar(text, asked, PATIENT)
  expect(events.map((e) => e.uid)).toEqual(['good', 'zone'])
  expect(said(text)).toEqual([
    'Line 4: this event cannot be read; it was left out.',
    'Line 9: this event has no start; it was left out.',
    'Line 13: this event ends before it begins, or lasts longer than a day; it was left out.',
    'Line 18: nobody knows the time zone W. Nowhere Standard Time; the studio’s was taken.',
    'Line 28: this event does not end; it was left out.',
  ])
  expect(said('<html>not found</html>')).toEqual(['This is no calendar: it should begin with BEGIN:VCALENDAR.'])
  expect(said('')).toHaveLength(1)
  expect(said(calendar(event('UID:day', 'DTSTART;VALUE=DATE:20261102')))).toEqual([
    'Line 4: this event is of whole days and no class; it was left out.',
  ])
})

test('an end on another clock than the start is taken by its own', () => {
  const across = event('UID:a', 'DTSTART;TZID=Europe/Oslo:20261102T190000', 'DTEND;TZID=Europe/London:20261102T184500')
  const [{ startsAt, endsAt }] = readCalendar(calendar(across), asked, PATIENT).events
  expect((endsAt.getTime() - startsAt.getTime()) / 60_000).toBe(45)
})

test('times without a zone are the studio’s, folded lines are one', () => {
  const floating = event('UID:f', 'DTSTART:20261102T190000', 'DURATION:PT1H', 'SUMMARY:Long', '  ride')
  const { events } = readCalendar(calendar(floating), asked, PATIENT)
  expect(events[0].startsAt.toISOString()).toBe('2026-11-02T18:00:00.000Z')
  expect(events[0].title).toBe('Long ride')
})

test('what is written reads back the same, and holds to the format: folded at 75 octets, CRLF, commas escaped', () => {
  const hour = 3_600_000
  const written = Array.from({ length: 30 }, (_, i) => ({
    uid: `class-${i}`,
    title:
      i % 3 === 0
        ? `Åse’s climb, long; with a \\ and a name that does not fit on any line of a calendar ${i}`
        : `Ride ${i}`,
    place: i % 2 === 0 ? 'Hall' : '',
    startsAt: new Date(asked.from.getTime() + i * 7 * hour),
    endsAt: new Date(asked.from.getTime() + (i * 7 + 1) * hour),
    cancelled: i % 5 === 0,
  }))
  const text = writeCalendar('Netloft Hall', written, new Date('2026-09-30T12:00:00Z'))
  const { events, faults } = readCalendar(text, asked, PATIENT)
  expect(faults).toEqual([])
  expect(
    events.map(({ uid, title, place, startsAt, endsAt, cancelled }) => ({
      uid,
      title,
      place,
      startsAt,
      endsAt,
      cancelled,
    })),
  ).toEqual(written)
  const lines = text.split('\r\n')
  expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/)
  for (const line of lines) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
})
