import { sql } from 'drizzle-orm'
import { version } from '../../../package.json'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { recentErrors, type RecentError } from '../../platform/http/recentErrors'
import { backupStatus, type BackupStatus } from '../../studio/backups'
import { getStudio } from '../../studio/studio'
import { certificateDaysLeft } from '../../studio/trust'

/** How the installation does, for its managers. */
export type OperationPage = Readonly<{
  now: Date
  version: string
  startedAt: Date
  timeZone: string
  database: Readonly<{ version: string; bytes: number }>
  /** Null where this installation schedules no backups. */
  backup: BackupStatus | null
  /** Days until the certificate ends; null where the program speaks no TLS itself. */
  daysLeft: number | null
  errors: readonly RecentError[]
}>

export async function operationPage(db: Database, scope: Scope, now: Date): Promise<OperationPage> {
  const [rows] = (await db.execute(
    sql`SELECT VERSION() AS version, SUM(data_length + index_length) AS bytes
      FROM information_schema.tables WHERE table_schema = DATABASE()`,
  )) as unknown as [{ version: string; bytes: string }[]]
  return {
    now,
    version,
    startedAt: new Date(now.getTime() - 1000 * process.uptime()),
    timeZone: (await getStudio(db, scope)).timeZone,
    database: { version: rows[0].version, bytes: Number(rows[0].bytes) },
    backup: await backupStatus(),
    daysLeft: await certificateDaysLeft(now),
    errors: recentErrors(),
  }
}
