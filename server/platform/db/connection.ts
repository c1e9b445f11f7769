import { MySqlTransaction, type MySqlTransactionConfig } from 'drizzle-orm/mysql-core'
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { createPool, type Pool } from 'mysql2/promise'
import pRetry from 'p-retry'
import { errnoOf } from './errors'
import { logSlowQueries } from './slowQueries'

export type Database = MySql2Database
/** A database or a transaction on it. */
export type DbExecutor = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>

let pool: Pool | undefined

/** The one pool of this process, opened at the first question: building the application needs no database. */
export function connectionPool(): Pool {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  if (!pool) {
    pool = createPool({
      uri: url,
      timezone: 'Z',
      connectionLimit: 10,
      charset: 'utf8mb4_unicode_ci',
      connectTimeout: 30_000,
    })
    logSlowQueries(pool)
  }
  return pool
}

let opened: Readonly<{ pool: Pool; db: Database }> | undefined

/** The database of this process; made once a pool. */
export function database(): Database {
  const current = connectionPool()
  if (opened?.pool !== current) opened = { pool: current, db: drizzle(current) }
  return opened.db
}

/**
 * Deadlock, a lock waited for too long, a row changed under the snapshot: the database undid the work; it may be done
 * again.
 */
const RETRYABLE: readonly (number | undefined)[] = [1213, 1205, 1020]
const RETRIES = 5

/**
 * Everything in `work` or nothing, in one transaction; done again after a deadlock, after a short and uneven wait.
 * Inside a running transaction, `work` is a part of it.
 */
export function withTransaction<T>(
  db: Database,
  work: (tx: DbExecutor) => Promise<T>,
  config?: MySqlTransactionConfig,
): Promise<T> {
  if (db instanceof MySqlTransaction) return work(db)
  return pRetry(() => db.transaction(work, config), {
    retries: RETRIES,
    minTimeout: 20,
    randomize: true,
    shouldRetry: ({ error }) => RETRYABLE.includes(errnoOf(error)),
  })
}

export async function closeDatabase(): Promise<void> {
  await pool?.end()
  pool = undefined
}
