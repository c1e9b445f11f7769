/** @jest-environment node */
import { expandRecurringEvent, sync, type VEvent } from 'node-ical'
import { createRng, type Rng } from '@/core/base/rng'
import { readCalendar } from './calendar'

/**
 * The reading against another implementation of RFC 5545 (node-ical, which expands rules by rrule-temporal), on seeded
 * series whose windows lie over the changes of the clock, the year's end and midnight.
 */
const ZONES = ['Europe/Oslo', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC']
/** Around these days clocks change somewhere, the year ends, or February does. */
const DAYS = ['2026-03-29', '2026-10-25', '2026-11-01', '2026-03-08', '2026-12-31', '2028-02-29', '2026-04-05']
const TIMES = ['00:00', '23:30', '18:00', '06:45', '12:00', '00:30']
const DAY_MS = 86_400_000
/** Time limits that no load on the machine reaches. */
const PATIENT = { eventMs: 300_000, wholeMs: 300_000 }

const pick = <T>(rng: Rng, from: readonly T[]): T => from[Math.floor(rng.uniform() * from.length)]
const compact = (clock: string) => clock.replaceAll(/[-:]/g, '')
const shifted = (day: string, days: number) => new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10)
const utcStamp = (at: Date) => compact(at.toISOString().slice(0, 19)) + 'Z'

function series(seed: number) {
  const rng = createRng(seed)
  const [zone, middle, time] = [pick(rng, ZONES), pick(rng, DAYS), pick(rng, TIMES)]
  const begins = shifted(middle, -Math.floor(pick(rng, [5, 40, 400, 1200]) * rng.uniform()))
  const interval = pick(rng, [1, 1, 2, 3])
  const rule = pick(rng, [
    `FREQ=DAILY;INTERVAL=${interval}`,
    `FREQ=DAILY;BYDAY=MO,WE,FR`,
    `FREQ=WEEKLY;INTERVAL=${interval}`,
    `FREQ=WEEKLY;INTERVAL=${interval};BYDAY=MO,TU,WE,TH,FR,SA,SU`,
    `FREQ=WEEKLY;INTERVAL=${interval};WKST=SU;BYDAY=TU,SU`,
    `FREQ=MONTHLY;BYDAY=-1SU`,
    `FREQ=MONTHLY;INTERVAL=${interval};BYMONTHDAY=1,15,-1`,
    `FREQ=YEARLY;BYMONTH=3,10,12;BYDAY=-1SU,1MO`,
  ])
  // A series begins with a time of its rule: else the format leaves open what it is (3.8.5.3).
  const free = `DTSTART:${compact(begins)}T120000Z\r\nRRULE:${rule}`
  const first = sync.parseICS(`BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\n${free}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`)
  const [day] = (Object.values(first)[0] as VEvent).rrule!.all((_, i) => i < 1)
  const clock = `${day.toISOString().slice(0, 10)}T${time}:00`
  const stamp = (at: string) => (zone === 'UTC' ? `:${compact(at)}Z` : `;TZID=${zone}:${compact(at)}`)
  const lines = (more: readonly string[]) => [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Test//EN',
    'BEGIN:VEVENT',
    `UID:series-${seed}`,
    `DTSTART${stamp(clock)}`,
    'DURATION:PT45M',
    'SUMMARY:Ride',
    ...more,
  ]
  const end = ['END:VEVENT', 'END:VCALENDAR', '']
  const asked = {
    from: new Date(`${shifted(middle, -20)}T00:00:00Z`),
    to: new Date(`${shifted(middle, 40)}T00:00:00Z`),
    timeZone: 'Europe/Oslo',
  }
  return { rng, rule, stamp, lines, end, asked }
}

const own = (text: string, asked: ReturnType<typeof series>['asked']) =>
  readCalendar(text, asked, PATIENT).events.map(({ startsAt }) => startsAt.toISOString())

function independent(text: string, { from, to }: ReturnType<typeof series>['asked']): string[] {
  const events = Object.values(sync.parseICS(text)).filter((one): one is VEvent => one?.type === 'VEVENT')
  // A time moved into the window from outside is looked for a little farther.
  const wide = { from: new Date(from.getTime() - 5 * DAY_MS), to: new Date(to.getTime() + 5 * DAY_MS) }
  return events
    .flatMap((event) => expandRecurringEvent(event, wide))
    .map(({ start }) => new Date(start))
    .filter((at) => at >= from && at <= to)
    .map((at) => at.toISOString())
    .sort()
}

test('200 seeded series are read as another implementation reads them', () => {
  const differ: object[] = []
  let times = 0
  for (let seed = 1; seed <= 200; seed++) {
    const { rng, rule, stamp, lines, end, asked } = series(seed)
    const plain = [...lines([`RRULE:${rule}`]), ...end].join('\r\n')
    const all = own(plain, asked)
    times += all.length
    // One of its times ends it, in UTC as the format asks; one is left out and one is moved, both named in UTC.
    const last = all.at(Math.floor(all.length * (0.6 + 0.4 * rng.uniform())))
    const until = last && rng.uniform() < 0.5 ? `;UNTIL=${utcStamp(new Date(last))}` : ''
    const [left, moved] = [all[1], all[2]]
    const more = [`RRULE:${rule}${until}`, ...(left ? [`EXDATE:${utcStamp(new Date(left))}`] : [])]
    const override = moved
      ? [
          'END:VEVENT',
          'BEGIN:VEVENT',
          `UID:series-${seed}`,
          `RECURRENCE-ID:${utcStamp(new Date(moved))}`,
          `DTSTART${stamp(shifted(moved.slice(0, 10), 1) + 'T09:15:00')}`,
          'DURATION:PT45M',
          'SUMMARY:Ride, moved',
        ]
      : []
    for (const text of [plain, [...lines(more), ...override, ...end].join('\r\n')]) {
      const [ours, theirs] = [own(text, asked), independent(text, asked)]
      if (JSON.stringify(ours) !== JSON.stringify(theirs)) differ.push({ seed, text, ours, theirs })
    }
  }
  expect(times).toBeGreaterThan(2000)
  expect(differ).toEqual([])
})
