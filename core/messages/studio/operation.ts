import { formatDay } from '../words/dates'

const DAY_MS = 86_400_000
/** A backup older than this is said to be late, ms. */
const LATE_MS = 2 * DAY_MS

/** "3.2 MB" */
export const formatBytes = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(bytes < 1e8 ? 1 : 0)} MB`

/** "Tue 1 Dec, 09:15" on the studio's clock. */
export function formatMoment(at: Date, timeZone: string): string {
  const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone })
  return `${formatDay(at, timeZone)}, ${clock.format(at)}`
}

type Backup = Readonly<{ lastSuccess: Date | null; lastFault: Readonly<{ at: Date; why: string }> | null }>

/** What is wrong with the backups, as a sentence; null where all is well. */
export function backupTrouble(backup: Backup | null, now: Date): string | null {
  if (!backup) return 'This installation makes no backups by itself. npm start does, unless it is told not to.'
  const { lastSuccess, lastFault } = backup
  if (lastFault && (!lastSuccess || lastFault.at > lastSuccess)) return `The last backup failed: ${lastFault.why}`
  if (!lastSuccess) return 'There is no backup yet. The first one is made soon after the start.'
  if (now.getTime() - lastSuccess.getTime() > LATE_MS) return 'The last backup is more than two days old.'
  return null
}
