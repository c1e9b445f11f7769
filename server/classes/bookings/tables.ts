import { int, mysqlEnum, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { studioId } from '../../platform/accounts/tables'
import { moment } from '../../platform/db/columns'

export const FEEDS = ['booking', 'calendar'] as const

/** Feed reads that started and did not end, because the server hung or died. */
export const feedRead = mysqlTable(
  'feed_read',
  {
    studioId: studioId(),
    feed: mysqlEnum('feed', FEEDS).notNull(),
    /** SHA-256 of the feed's address, hexadecimal; a new address resets the count. */
    address: varchar('address', { length: 64 }).notNull(),
    unfinished: int('unfinished').notNull(),
    begunAt: moment('begun_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.feed] })],
)
