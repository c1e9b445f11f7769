import { index, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { studio } from '../accounts/tables'
import { moment, reference } from '../db/columns'

/**
 * One row per command that was carried out: who, what, about whom, when, and its outcome. A command sent again under
 * its id is answered from here.
 */
export const commandReceipt = mysqlTable(
  'command_receipt',
  {
    studioId: reference('studio_id')
      .references(() => studio.id)
      .notNull(),
    id: reference('id').notNull(),
    name: varchar('name', { length: 60 }).notNull(),
    /** The account that sent it; null for a member's own page. */
    actor: reference('actor'),
    /** The member, class, bike or other record it is about. */
    subject: reference('subject'),
    /** SHA-256 of name and input. */
    contentHash: varchar('content_hash', { length: 64 }).notNull(),
    outcome: json('outcome').$type<object>().notNull(),
    at: moment('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.id] }), index('command_receipt_at').on(t.at)],
)
