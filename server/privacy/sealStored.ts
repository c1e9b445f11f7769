import { getTableColumns, getTableName, sql } from 'drizzle-orm'
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { getTableConfig } from 'drizzle-orm/mysql-core'
import { classFollowUp } from '../classes/tables'
import { complaint, programme, trial } from '../comfort/tables'
import { withTransaction, type Database } from '../platform/db/connection'
import { openText, readableStarts, SealError, sealedNow, sealText } from '../platform/sealing/keys'
import { plainShapeOf, sealedFields } from '../platform/sealing/sealed'
import { memberMessage } from '../riders/memberPage/tables'
import { aloneSetup, riderFile } from '../setups/tables'
import { studioKey } from '../studio/tables'
import { riderLimit, riderPlan } from '../riders/tables'

/** The tables with sealed columns. */
export const SEALED_TABLES: readonly MySqlTable[] = [
  classFollowUp,
  complaint,
  trial,
  programme,
  memberMessage,
  aloneSetup,
  riderFile,
  studioKey,
  riderLimit,
  riderPlan,
]
const BATCH = 200
/** Form of a sealed text, of any key. */
const SEALED = /^s\d\.[0-9a-f]{8}\./

/**
 * Seals what is stored with the key in force: words of a database from before they were sealed, and those sealed with
 * an earlier key. May be interrupted and run again. Resolves with the number of values written; throws `SealError`
 * where a value was sealed with a key that is not here, and leaves that value as it is.
 */
export async function sealStored(db: Database): Promise<number> {
  let count = 0
  for (const table of SEALED_TABLES)
    for (const field of sealedFields(table)) count += await sealColumn(db, table, getTableColumns(table)[field])
  return count
}

async function sealColumn(db: Database, table: MySqlTable, column: AnyMySqlColumn): Promise<number> {
  const keys = keysOf(table)
  const where = sql`${column} IS NOT NULL AND ${column} NOT LIKE ${`${sealedNow()}%`}`
  const names = sql.join(
    keys.map((key, i) => sql`${key} AS ${sql.identifier(`key${i}`)}`),
    sql`, `,
  )
  for (let count = 0; ;) {
    const [rows] = (await db.execute(
      sql`SELECT studio_id AS studioId, ${column} AS value, ${names} FROM ${table} WHERE ${where} LIMIT ${BATCH}`,
    )) as unknown as [Record<string, string>[]]
    if (rows.length === 0) return count
    await withTransaction(db, async (tx) => {
      for (const row of rows) {
        const own = sql.join(
          keys.map((key, i) => sql`${key} = ${row[`key${i}`]}`),
          sql` AND `,
        )
        const sealed = resealed(table, column, row.studioId, row.value)
        // Without a change of the value meanwhile; the next round finds a later one.
        await (tx as Database).execute(
          sql`UPDATE ${table} SET ${column} = ${sealed} WHERE ${own} AND ${column} = ${row.value}`,
        )
      }
    })
    count += rows.length
  }
}

function resealed(table: MySqlTable, { name }: AnyMySqlColumn, studioId: string, value: string): string {
  const column = `${getTableName(table)}.${name}`
  if (readableStarts().some((start) => value.startsWith(start)))
    return sealText(studioId, column, openText(column, value))
  if (SEALED.test(value)) throw new SealError(`${column} was sealed with a key that is not here`)
  return sealText(studioId, column, isText(table, name) ? JSON.stringify(value) : value)
}

/** Whether a column, before it was sealed, stored plain text and not JSON. */
function isText(table: MySqlTable, name: string): boolean {
  const shape = plainShapeOf(getTableName(table), name) as Readonly<{ type?: unknown; enum?: unknown }>
  return shape.type === 'string' || shape.enum !== undefined
}

function keysOf(table: MySqlTable): readonly AnyMySqlColumn[] {
  const { columns, primaryKeys } = getTableConfig(table)
  return primaryKeys[0]?.columns ?? columns.filter(({ primary }) => primary)
}
