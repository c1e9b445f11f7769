import { mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { studioId } from '../accounts/tables'
import { moment } from '../db/columns'

/** Leases: exclusive work per studio, with holder and expiry. */
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
