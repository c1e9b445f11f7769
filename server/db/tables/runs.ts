import { int, mysqlEnum, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { studioId } from './accounts'
import { moment } from './columns'

export const FEEDS = ['booking', 'calendar'] as const

/** How often in a row the reading of a studio's feed was begun and never ended: the server hung over it, or died. */
export const feedRead = mysqlTable(
  'feed_read',
  {
    studioId: studioId(),
    feed: mysqlEnum('feed', FEEDS).notNull(),
    /** Of which address, so that another one starts anew. SHA-256, hexadecimal. */
    address: varchar('address', { length: 64 }).notNull(),
    unfinished: int('unfinished').notNull(),
    begunAt: moment('begun_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.feed] })],
)

/** Work that goes on once a studio at a time, whoever asks for it, and until when that holds unless it is renewed. */
export const lease = mysqlTable(
  'lease',
  {
    studioId: studioId(),
    name: varchar('name', { length: 40 }).notNull(),
    holder: varchar('holder', { length: 36 }).notNull(),
    until: moment('until').notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.name] })],
)
