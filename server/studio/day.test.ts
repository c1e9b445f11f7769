import { formatDate, studioDay, formatTime } from './day'

test('the day turns at the studio’s midnight, also across the summer-time change', () => {
  expect(studioDay(new Date('2026-11-23T22:59:00Z'), 'Europe/Oslo')).toBe('2026-11-23')
  expect(studioDay(new Date('2026-11-23T23:00:00Z'), 'Europe/Oslo')).toBe('2026-11-24')
  expect(studioDay(new Date('2026-06-30T21:59:59Z'), 'Europe/Oslo')).toBe('2026-06-30')
  expect(studioDay(new Date('2026-06-30T22:00:00Z'), 'Europe/Oslo')).toBe('2026-07-01')
})

test('dates and times are said in the studio’s own', () => {
  const at = new Date('2026-11-23T17:05:00Z')
  expect(`${formatDate(at, 'Europe/Oslo')} ${formatTime(at, 'Europe/Oslo')}`).toBe('Mon 23 Nov 2026 18:05')
})
