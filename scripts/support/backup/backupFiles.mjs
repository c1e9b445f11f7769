import { existsSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** "saddle-20261201T091500Z.sql.gz.age" */
const NAME = /^saddle-(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z\.sql\.gz\.age$/
export const backupName = (at) =>
  `saddle-${at
    .toISOString()
    .replace(/\.\d+Z$/, 'Z')
    .replace(/[-:]/g, '')}.sql.gz.age`

/** The backups of a folder, `{ file, at }`, the oldest first. */
export function listBackups(folder) {
  if (!existsSync(folder)) return []
  return readdirSync(folder)
    .flatMap((name) => {
      const found = NAME.exec(name)
      if (!found) return []
      const [, year, month, day, hour, minute, second] = found.map(Number)
      return [{ file: join(folder, name), at: new Date(Date.UTC(year, month - 1, day, hour, minute, second)) }]
    })
    .sort((a, b) => a.at - b.at)
}

/** The file of a backup, named by its path or by its name in the folder of the backups. Throws where there is none. */
export function backupNamed(folder, named) {
  const found = [named, join(folder, named)].find((file) => existsSync(file))
  if (found) return found
  throw new Error(`There is no file ${named}, here or in ${folder}.`)
}

/** How many backups stay: of the latest, and the last one of so many days, weeks and months. */
const KEEP = Object.freeze({ latest: 6, days: 7, weeks: 5, months: 12 })
const DAY_MS = 86_400_000
const PERIOD = Object.freeze({
  days: (at) => at.toISOString().slice(0, 10),
  // Weeks begin on a Monday: the first of January 1970 was a Thursday.
  weeks: (at) => Math.floor((at.getTime() / DAY_MS + 3) / 7),
  months: (at) => at.toISOString().slice(0, 7),
})

/** Of backups, the oldest first, those that a rotation takes away. */
export function outdatedBackups(backups) {
  const kept = new Set(backups.slice(-KEEP.latest))
  for (const [period, of] of Object.entries(PERIOD)) {
    const last = new Map(backups.map((one) => [of(one.at), one]))
    for (const one of [...last.values()].slice(-KEEP[period])) kept.add(one)
  }
  return backups.filter((one) => !kept.has(one))
}

/** Age at which copies of binary logs are deleted, ms: the database's own setting. */
const LOGS_MS = 14 * DAY_MS

/** Takes outdated backups and copies of binary logs away, and what a killed backup left half. Returns how many. */
export function rotateBackups(folder, now = Date.now()) {
  const logs = readdirSync(folder)
    .filter((name) => name.startsWith('log-'))
    .map((name) => join(folder, name))
    .filter((file) => now - statSync(file).mtimeMs > LOGS_MS)
  const halves = readdirSync(folder)
    .filter((name) => name.endsWith('.new'))
    .map((name) => join(folder, name))
    .filter((file) => now - statSync(file).mtimeMs > DAY_MS)
  const outdated = [...outdatedBackups(listBackups(folder)).map(({ file }) => file), ...logs, ...halves]
  for (const file of outdated) rmSync(file)
  return outdated.length
}
