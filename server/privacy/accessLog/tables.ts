import { bigint, index, mysqlEnum, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { studioId } from '../../platform/accounts/tables'
import { moment, reference } from '../../platform/db/columns'

export const ACCESS_KINDS = ['saw', 'changed', 'rights'] as const

/**
 * Who saw or changed health data, or people's rights. Rows are only ever added; `accessChain` shows whether one was
 * changed or taken away. Names are not in it: an erased member is an id.
 */
export const accessLog = mysqlTable(
  'access_log',
  {
    position: bigint('position', { mode: 'number' }).primaryKey().autoincrement(),
    studioId: studioId(),
    at: moment('at').notNull(),
    /** The account; null for a member's own page, and for scheduled work. */
    actor: reference('actor'),
    kind: mysqlEnum('kind', ACCESS_KINDS).notNull(),
    /** A page, a file or a command. */
    what: varchar('what', { length: 60 }).notNull(),
    /** The member, class or account it is about. */
    subject: reference('subject'),
    /** The command it was taken over from; unique in a studio. */
    commandId: reference('command_id'),
  },
  (t) => [
    uniqueIndex('access_command').on(t.studioId, t.commandId),
    index('access_at').on(t.studioId, t.at),
    index('access_subject').on(t.studioId, t.subject, t.position),
    index('access_actor').on(t.studioId, t.actor, t.position),
  ],
)

/** One link a row of the log: SHA-256 over the link before and the row. */
export const accessChain = mysqlTable(
  'access_chain',
  {
    studioId: studioId(),
    link: bigint('link', { mode: 'number' }).notNull(),
    logPosition: bigint('log_position', { mode: 'number' }).notNull().unique(),
    hash: varchar('hash', { length: 64 }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.link] })],
)
