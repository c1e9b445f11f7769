import { sql } from 'drizzle-orm'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import type { Database } from './connection'
import { errnoOf, messageOf } from './errors'

/**
 * What MariaDB answers when a statement of a migration was carried out already: table, column, key, foreign key exist;
 * what is to be dropped is gone.
 */
const DONE_ALREADY: readonly number[] = [1050, 1060, 1061, 1091, 1826, 1068]

const PROGRESS = sql`CREATE TABLE IF NOT EXISTS __migration_progress (
  hash varchar(64) PRIMARY KEY, statements int NOT NULL, whole boolean NOT NULL DEFAULT false)`

/**
 * Migrates the database to the newest version, also after an interrupted start. DDL cannot be rolled back, so a table
 * counts the executed statements of each migration. After a kill between a statement and its count the statement runs
 * again, and "exists already" counts as success. Statements that move data are idempotent. Resolves with the number of
 * statements executed.
 */
export async function migrate(db: Database, migrationsFolder: string): Promise<number> {
  await db.execute(PROGRESS)
  const carriedOut = await recordedByLibrary(db)
  let count = 0
  for (const { hash, sql: statements, folderMillis } of readMigrationFiles({ migrationsFolder })) {
    if (carriedOut.has(folderMillis)) continue
    const done = await statementsDone(db, hash)
    if (done.whole) continue
    for (let i = done.statements; i < statements.length; i++) {
      await carryOut(db, statements[i])
      await db.execute(
        sql`INSERT INTO __migration_progress (hash, statements) VALUES (${hash}, ${i + 1})
          ON DUPLICATE KEY UPDATE statements = ${i + 1}`,
      )
      count += 1
    }
    await db.execute(sql`UPDATE __migration_progress SET whole = true WHERE hash = ${hash}`)
  }
  return count
}

async function carryOut(db: Database, statement: string): Promise<void> {
  try {
    await db.execute(sql.raw(statement))
  } catch (error) {
    if (!isAppliedAlready(error)) throw error
  }
}

function isAppliedAlready(error: unknown): boolean {
  const errno = errnoOf(error) ?? 0
  // A foreign key that is there: the storage engine's own word for a duplicate, wrapped in "cannot create table".
  return DONE_ALREADY.includes(errno) || (errno === 1005 && messageOf(error).includes('errno: 121'))
}

async function statementsDone(db: Database, hash: string): Promise<{ statements: number; whole: boolean }> {
  const [rows] = (await db.execute(
    sql`SELECT statements, whole FROM __migration_progress WHERE hash = ${hash}`,
  )) as unknown as [{ statements: number; whole: number }[]]
  return rows[0] ? { statements: rows[0].statements, whole: rows[0].whole === 1 } : { statements: 0, whole: false }
}

/**
 * Migrations that an earlier version of this product carried out with the library's own migrator, which records whole
 * ones.
 */
async function recordedByLibrary(db: Database): Promise<ReadonlySet<number>> {
  try {
    const [rows] = (await db.execute(sql`SELECT created_at FROM __drizzle_migrations`)) as unknown as [
      { created_at: number | string }[],
    ]
    return new Set(rows.map((row) => Number(row.created_at)))
  } catch (error) {
    if (errnoOf(error) === NO_SUCH_TABLE) return new Set()
    throw error
  }
}

export const NO_SUCH_TABLE = 1146
