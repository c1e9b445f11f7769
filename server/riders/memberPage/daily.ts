import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { and, count, eq, gt, isNotNull, ne } from 'drizzle-orm'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { memberLink } from './tables'
import type { LinkOwner } from './links'

/** Maximum number of messages, and of complaints, per member and day from the member page. */
export const MAX_PER_DAY = 20
const DAY_MS = 86_400_000

/** A table of rows that members write from their page. */
type PageTable = MySqlTable & Readonly<Record<'id' | 'memberId' | 'linkId' | 'createdAt', AnyMySqlColumn>>

export type TooMany = Readonly<{ outcome: 'tooMany' }>

/**
 * Runs a write from the member page unless the member reached the daily limit (`tooMany`). Locks the link row, so that
 * concurrent writes are counted one after another. A retry with a stored id always runs; the write is idempotent.
 */
export function writeFromPage<R>(
  db: Database,
  { linkId, memberId }: Pick<LinkOwner, 'linkId' | 'memberId'>,
  { table, id }: Readonly<{ table: PageTable; id: string }>,
  now: Date,
  write: (tx: DbExecutor) => Promise<R>,
): Promise<R | TooMany> {
  return withTransaction(db, async (tx): Promise<R | TooMany> => {
    await tx.select({ id: memberLink.id }).from(memberLink).where(eq(memberLink.id, linkId)).for('update')
    const [{ written }] = await tx
      .select({ written: count() })
      .from(table)
      .where(
        and(
          eq(table.memberId, memberId),
          isNotNull(table.linkId),
          gt(table.createdAt, new Date(now.getTime() - DAY_MS)),
          ne(table.id, id),
        ),
      )
    if (written >= MAX_PER_DAY) {
      const [there] = await tx.select({ id: table.id }).from(table).where(eq(table.id, id))
      if (!there) return { outcome: 'tooMany' }
    }
    return write(tx)
  })
}
