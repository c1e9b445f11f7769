import { and, count, eq, gt, isNotNull, ne } from 'drizzle-orm'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { complaint } from '../db/tables/comfort'
import { memberLink, memberMessage } from '../db/tables/memberPage'
import type { LinkOwner } from './links'

/** So many messages, and so many complaints, a member writes from their page within a day; nobody reads more. */
export const MOST_A_DAY = 20
const DAY_MS = 86_400_000

export type TooMany = Readonly<{ outcome: 'tooMany' }>

/**
 * Something a member writes from their page, unless as much was written within a day; one after the other where several
 * come at once. What is sent again under an id that is there is written again, which changes nothing.
 */
export function writeFromPage<R>(
  db: Database,
  { linkId, memberId }: Pick<LinkOwner, 'linkId' | 'memberId'>,
  { table, id }: Readonly<{ table: typeof memberMessage | typeof complaint; id: string }>,
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
    if (written >= MOST_A_DAY) {
      const [there] = await tx.select({ id: table.id }).from(table).where(eq(table.id, id))
      if (!there) return { outcome: 'tooMany' }
    }
    return write(tx)
  })
}
