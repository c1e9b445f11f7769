/** @jest-environment node */
import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'
import { createRng } from '@/core/base/rng'
import { formatDate, formatDayAndTime, formatTime, studioDay } from './dates'

dayjs.extend(utc)
dayjs.extend(timezone)

test('days and times are those of the studio’s own clock', () => {
  const late = new Date('2026-06-30T23:30:00Z')
  expect([studioDay(late, 'Europe/Oslo'), studioDay(late, 'UTC')]).toEqual(['2026-07-01', '2026-06-30'])
  expect(formatDate(new Date('2026-11-23T12:00:00Z'), 'UTC')).toBe('Mon 23 Nov 2026')
  expect(formatTime(new Date('2026-11-23T00:05:00Z'), 'UTC')).toBe('00:05')
  expect(formatDayAndTime(late, 'UTC', new Date('2026-06-30T01:00:00Z'))).toBe('at 23:30')
  expect(formatDayAndTime(late, 'UTC', new Date('2026-07-01T01:00:00Z'))).toBe('on Tue 30 Jun 2026 at 23:30')
})

test('they equal those of another library (Day.js), over zones, summer time and leap days', () => {
  const random = createRng(5)
  for (const zone of ['UTC', 'Europe/Oslo', 'America/St_Johns', 'Australia/Lord_Howe', 'Pacific/Kiritimati'])
    for (let i = 0; i < 60; i++) {
      const at = new Date(Date.UTC(2024, 0, 1) + Math.floor(random.uniform() * 1500 * 86_400_000))
      const there = dayjs(at).tz(zone)
      expect([studioDay(at, zone), formatDate(at, zone), formatTime(at, zone)]).toEqual(
        ['YYYY-MM-DD', 'ddd D MMM YYYY', 'HH:mm'].map((form) => there.format(form)),
      )
    }
})
