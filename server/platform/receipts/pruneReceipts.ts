import { lt } from 'drizzle-orm'
import type { Database } from '../db/connection'
import { commandReceipt } from './tables'

/** A device may lie unused for weeks; nothing sends a command again after a season. */
const RETENTION_MS = 180 * 86_400_000
const EVERY_MS = 86_400_000
/** Rows in one statement: others write meanwhile. */
const CHUNK = 5000

let prunedAt = -Infinity

/** Deletes receipts older than a season, at most once a day in this process. */
export async function pruneReceipts(db: Database, now: Date): Promise<void> {
  if (now.getTime() - prunedAt < EVERY_MS) return
  prunedAt = now.getTime()
  const before = new Date(now.getTime() - RETENTION_MS)
  for (;;) {
    const [{ affectedRows }] = await db.delete(commandReceipt).where(lt(commandReceipt.at, before)).limit(CHUNK)
    if (affectedRows < CHUNK) return
  }
}
