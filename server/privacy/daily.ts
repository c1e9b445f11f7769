import { isNotNull } from 'drizzle-orm'
import { studio } from '../platform/accounts/tables'
import type { Database } from '../platform/db/connection'
import { withLease } from '../platform/lease/lease'
import { pruneAloneSetups } from '../setups/aloneSetups'
import { applyRetention } from './retention'

const LEASE = 'retention'
const FIRST_MS = 60_000
const EVERY_MS = 6 * 3_600_000

/** Deletes rows past their retention time in every studio; one process at a time for each. */
export async function applyRetentions(db: Database, now: Date): Promise<void> {
  const studios = await db.select({ studioId: studio.id }).from(studio).where(isNotNull(studio.retention))
  for (const scope of studios) await withLease(db, scope, LEASE, () => applyRetention(db, scope, now))
}

/** Does so from now on, several times a day; a failure waits for the next time. */
export function keepRetention(db: () => Database): void {
  const apply = () => {
    const done = applyRetentions(db(), new Date()).then(() => pruneAloneSetups(db(), new Date()))
    done.catch((error: unknown) => console.error('What is too old waits:', error))
  }
  setTimeout(apply, FIRST_MS).unref()
  setInterval(apply, EVERY_MS).unref()
}
