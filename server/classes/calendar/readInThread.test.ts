/** @jest-environment node */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { bundleWorkers } from '@/scripts/support/production.mjs'
import { closeCalendarThread, readCalendarInThread } from './readInThread'

const asked = { from: new Date('2026-10-01T00:00:00Z'), to: new Date('2026-12-01T00:00:00Z'), timeZone: 'Europe/Oslo' }
const calendar = (...lines: string[]) => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR', ''].join('\r\n')
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'DTSTART:20261005T180000Z', ...lines, 'END:VEVENT']
const NEVER = calendar(...event('UID:1', 'SUMMARY:Never', 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'))
const folder = mkdtempSync(join(tmpdir(), 'ys-threads-'))

beforeAll(async () => {
  process.env.NEXT_DIST = relative(process.cwd(), folder)
  await bundleWorkers(process.cwd(), process.env.NEXT_DIST)
})
afterAll(async () => {
  await closeCalendarThread()
  rmSync(folder, { recursive: true, force: true })
})

test('while a calendar without an end is read, other requests are answered', async () => {
  let turns = 0
  const asking = setInterval(() => (turns += 1), 5)
  const { events, faults } = await readCalendarInThread(NEVER, asked)
  clearInterval(asking)
  expect(events).toEqual([])
  expect(faults).toMatchObject([{ line: 2, code: 'endless', name: 'Never' }])
  expect(turns).toBeGreaterThan(5)
})

test('dates come back as dates, and one that needs too much is given up', async () => {
  const { events } = await readCalendarInThread(calendar(...event('UID:1', 'SUMMARY:Spin')), asked)
  expect(events[0].startsAt.toISOString()).toBe('2026-10-05T18:00:00.000Z')
  const dates = Array.from({ length: 3_000_000 }, () => '20261005T180000Z').join(',')
  const flood = calendar(...event('UID:1', 'SUMMARY:Flood', `RDATE:${dates}`))
  const { events: none, faults } = await readCalendarInThread(flood, asked)
  expect(none).toEqual([])
  expect(faults).toHaveLength(1)
  // The thread is begun anew.
  expect((await readCalendarInThread(calendar(...event('UID:1')), asked)).events).toHaveLength(1)
})
