import { index, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { studioId, user } from '../platform/accounts/tables'
import { moment, reference } from '../platform/db/columns'
import { sealed } from '../platform/sealing/sealed'

/** The key by which a studio signs what its riders take along: Ed25519, base64url; the private part is sealed. */
export const studioKey = mysqlTable(
  'studio_key',
  {
    studioId: studioId(),
    publicKey: varchar('public_key', { length: 43 }).notNull(),
    privateKey: sealed<string>('studio_key', 'private_key', { type: 'string', maxLength: 43 }).notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.studioId] }), index('studio_key_public').on(t.publicKey)],
)

/** Studios whose signature a studio takes as measured. */
export const knownStudio = mysqlTable(
  'known_studio',
  {
    studioId: studioId(),
    key: varchar('key', { length: 43 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    createdAt: moment('created_at').notNull(),
    createdBy: reference('created_by')
      .notNull()
      .references(() => user.id),
  },
  (t) => [primaryKey({ columns: [t.studioId, t.key] })],
)
