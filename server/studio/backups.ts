import { readFile } from 'node:fs/promises'
import { join } from 'node:path'

/** What became of the last backups; `lastSuccess` null before the first. */
export type BackupStatus = Readonly<{
  lastSuccess: Date | null
  bytes: number | null
  rows: number | null
  lastFault: Readonly<{ at: Date; why: string }> | null
}>

type Stored = Readonly<{ lastSuccess?: string; bytes?: number; rows?: number; lastFault?: { at: string; why: string } }>

/** As the start's backups noted it in the data folder; null where this installation makes none. */
export async function backupStatus(): Promise<BackupStatus | null> {
  const hours = Number(process.env.BACKUP_HOURS ?? 0)
  if (hours === 0 || !process.env.DATA_FOLDER) return null
  const text = await readFile(join(process.env.DATA_FOLDER, 'backup-status.json'), 'utf8').catch(() => '{}')
  const { lastSuccess, bytes, rows, lastFault } = JSON.parse(text) as Stored
  return {
    lastSuccess: lastSuccess ? new Date(lastSuccess) : null,
    bytes: bytes ?? null,
    rows: rows ?? null,
    lastFault: lastFault ? { at: new Date(lastFault.at), why: lastFault.why } : null,
  }
}
