/** @jest-environment node */
import { formatCalendarFault } from '@/core/messages/classes/calendar'
import { createRng } from '@/core/base/rng'
import { readCalendar } from './calendar'

const asked = { from: new Date('2026-10-01T00:00:00Z'), to: new Date('2026-12-01T00:00:00Z'), timeZone: 'Europe/Oslo' }
const event = (title: string, ...lines: string[]) => [
  'BEGIN:VEVENT',
  `UID:${title}`,
  `SUMMARY:${title}`,
  'DURATION:PT1H',
  ...lines,
  'END:VEVENT',
]
const calendar = (...events: string[][]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Test//EN', ...events.flat(), 'END:VCALENDAR', ''].join('\r\n')
const NEVER = 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'

test('a rule that never gives a time is given up by its name, and the others are read', () => {
  const text = calendar(
    event('Thirtieth of February', 'DTSTART:20260101T180000Z', NEVER),
    event('Spin', 'DTSTART:20261005T180000Z', 'RRULE:FREQ=WEEKLY;COUNT=2'),
  )
  const { events, faults } = readCalendar(text, asked, { eventMs: 3000, wholeMs: 60_000 })
  expect(events.map(({ uid }) => uid)).toEqual(['Spin', 'Spin'])
  expect(faults.map(formatCalendarFault)).toEqual([
    'Line 4: the rule of “Thirtieth of February” does not come to an end; the event was left out.',
  ])
})

test('where the time is used up the rest is named, and nothing hangs', () => {
  const many = Array.from({ length: 30 }, (_, i) => event(`Never ${i}`, 'DTSTART:20260101T180000Z', NEVER))
  const { events, faults } = readCalendar(calendar(...many), asked, { eventMs: 50, wholeMs: 200 })
  expect(events).toEqual([])
  expect(faults).toHaveLength(30)
  expect(faults.map(formatCalendarFault).at(-1)).toMatch(/took too long before “Never 29” was reached/)
})

test('rules begun long ago give the same times, walked from near the window on as from their beginning', () => {
  const rules = [
    'FREQ=DAILY;INTERVAL=3',
    'FREQ=DAILY;BYDAY=MO,TH',
    'FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,SA',
    'FREQ=MONTHLY;INTERVAL=3',
    'FREQ=MONTHLY;BYDAY=2TU,-1FR',
    'FREQ=YEARLY;INTERVAL=5;BYMONTH=10,11;BYDAY=1MO',
    'FREQ=HOURLY;INTERVAL=7',
    'FREQ=HOURLY;INTERVAL=5;BYHOUR=9,10,20',
    'FREQ=MINUTELY;INTERVAL=1000',
  ]
  const patient = { eventMs: 300_000, wholeMs: 300_000 }
  for (const rule of rules) {
    const times = (text: string) => readCalendar(calendar(text.split('\n')), asked, patient).events.map(({ at }) => at)
    const begun = (of: string) => event('Old', 'DTSTART:20010131T060000Z', `RRULE:${of}`).join('\n')
    // A rule that counts its times is walked from its beginning.
    const whole = times(begun(`${rule};COUNT=90000`))
    expect(whole.length).toBeGreaterThan(0)
    expect([rule, times(begun(rule))]).toEqual([rule, whole])
  }
})

test('a rule of four million times before the window is none too many', () => {
  const text = calendar(event('Every seven minutes', 'DTSTART:19700101T060000Z', 'RRULE:FREQ=MINUTELY;INTERVAL=7'))
  const { events, faults } = readCalendar(text, asked, { eventMs: 30_000, wholeMs: 30_000 })
  expect(faults).toEqual([])
  expect(events).toHaveLength(1000)
})

test('a calendar of years is read whole: what happens once on another day is passed over by its lines', () => {
  const once = (i: number) => event(`Once ${i}`, `DTSTART;TZID=Europe/Oslo:${2007 + (i % 20)}1103T180000`)
  const text = calendar(...Array.from({ length: 12_000 }, (_, i) => once(i)))
  const { events, faults } = readCalendar(text, asked, { eventMs: 60_000, wholeMs: 60_000 })
  expect(faults).toEqual([])
  expect(events).toHaveLength(600)
  // At the window's very edge, by the clock of a zone far from UTC.
  const edge = calendar(event('Edge', 'DTSTART;TZID=Pacific/Kiritimati:20261001T140000'))
  expect(readCalendar(edge, asked).events).toHaveLength(1)
})

test('2,000 seeded rules and files are each answered, whatever they hold', () => {
  const rng = createRng(7)
  const pick = <T>(from: readonly T[]): T => from[Math.floor(rng.uniform() * from.length)]
  const numbers = ['0', '1', '-1', '2', '13', '30', '31', '53', '366', '-366', '1000000', 'x', '']
  const rule = () =>
    [
      `FREQ=${pick(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY', 'HOURLY', 'MINUTELY', 'SECONDLY', 'NEVER', ''])}`,
      ...['INTERVAL', 'COUNT', 'BYMONTH', 'BYMONTHDAY', 'BYYEARDAY', 'BYWEEKNO', 'BYSETPOS', 'BYHOUR', 'BYMINUTE']
        .filter(() => rng.uniform() < 0.15)
        .map((part) => `${part}=${pick(numbers)}`),
      ...(rng.uniform() < 0.4 ? [`BYDAY=${pick(['MO', '5SU', '-6TU', '53MO', 'XX', 'MO,WE', ''])}`] : []),
      ...(rng.uniform() < 0.3 ? [`UNTIL=${pick(['20261101T000000Z', '20261101', '00000000', 'x'])}`] : []),
    ].join(';')
  let faulty = 0
  for (let i = 0; i < 2000; i++) {
    const start = pick([
      '20000101T060000Z',
      '20261001T180000',
      '20260930T180000Z',
      '20250101T060000',
      '19000229T000000Z',
      '99991231T235959Z',
      '2026',
      '',
    ])
    const lines = [
      `DTSTART:${start}`,
      `RRULE:${rule()}`,
      ...(rng.uniform() < 0.3 ? [`EXDATE:${pick(['20261005T180000Z', 'x', '20261005'])}`] : []),
    ]
    // An ordinary event beside it, which no fault of the rule may take away.
    const ordinary = event('Ordinary', 'DTSTART:20261102T180000Z')
    const fuzzed = event(`Fuzz ${i}`, ...lines)
    let text = calendar(fuzzed, ordinary)
    // Every fifth is cut or has a byte changed as well.
    if (i % 5 === 0) text = text.slice(0, Math.floor(rng.uniform() * text.length))
    if (i % 5 === 1) {
      const at = Math.floor(rng.uniform() * text.length)
      text = text.slice(0, at) + pick([':', ';', '\u0000', '9', '\r\n', 'é']) + text.slice(at + 1)
    }
    const { events, faults } = readCalendar(text, asked, { eventMs: 20, wholeMs: 60_000 })
    expect(events.every(({ startsAt }) => startsAt >= asked.from && startsAt <= asked.to)).toBe(true)
    faults.forEach((fault) => expect(formatCalendarFault(fault)).not.toBe(''))
    if (i % 5 > 1) expect(events.map(({ title }) => title)).toContain('Ordinary')
    faulty += faults.length > 0 ? 1 : 0
  }
  expect(faulty).toBeGreaterThan(50)
})
