import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { createPool, type Pool } from 'mysql2/promise'
import * as schema from './schema'

export type Database = MySql2Database<typeof schema>
/** A database or a transaction on it. */
export type Access = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>

let pool: Pool | undefined

/** The one pool of this process, opened at the first question: building the application needs no database. */
export function database(): Database {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  pool ??= createPool({ uri: url, timezone: 'Z', connectionLimit: 10, charset: 'utf8mb4_unicode_ci', connectTimeout: 5000 })
  return drizzle(pool, { schema, mode: 'default' })
}

export async function closeDatabase(): Promise<void> {
  await pool?.end()
  pool = undefined
}
