import { backupTrouble, formatBytes, formatMoment } from './operation'

const now = new Date('2004-05-06T12:00:00Z')
const before = (hours: number) => new Date(now.getTime() - 3_600_000 * hours)

test('backups that are missing, failed since, or late are named; fresh ones are not', () => {
  const fault = { at: before(1), why: 'disk full' }
  expect(backupTrouble(null, now)).toMatch(/no backups by itself/)
  expect(backupTrouble({ lastSuccess: null, lastFault: null }, now)).toMatch(/no backup yet/)
  expect(backupTrouble({ lastSuccess: null, lastFault: fault }, now)).toBe('The last backup failed: disk full')
  expect(backupTrouble({ lastSuccess: before(2), lastFault: fault }, now)).toMatch(/failed: disk full/)
  expect(backupTrouble({ lastSuccess: before(0.5), lastFault: fault }, now)).toBeNull()
  expect(backupTrouble({ lastSuccess: before(47), lastFault: null }, now)).toBeNull()
  expect(backupTrouble({ lastSuccess: before(49), lastFault: null }, now)).toMatch(/two days old/)
})

test('sizes and moments are short', () => {
  expect([10, 45_678, 3_210_000, 123_456_789].map(formatBytes)).toEqual(['1 kB', '46 kB', '3.2 MB', '123 MB'])
  expect(formatMoment(now, 'Europe/Oslo')).toMatch(/^Thu 6 May.*, 14:00$/)
})
