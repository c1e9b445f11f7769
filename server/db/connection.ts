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

/** Deadlock found, and a lock waited for too long: the database undid the work, and it may simply be done again. */
const TRY_AGAIN: readonly unknown[] = [1213, 1205]
const TRIES = 4

/** Everything in `work` or nothing, in one transaction; done again after a deadlock, after a short and uneven wait. */
export async function together<T>(db: Database, work: (tx: Access) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await db.transaction(work)
    } catch (error) {
      if (tries === TRIES || !TRY_AGAIN.includes((error as { cause?: { errno?: number } }).cause?.errno)) throw error
      await new Promise((resolve) => setTimeout(resolve, 20 * tries + 40 * Math.random()))
    }
  }
}

export async function closeDatabase(): Promise<void> {
  await pool?.end()
  pool = undefined
}
