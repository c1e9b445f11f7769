import { sql } from 'drizzle-orm'
import { datetime, varchar } from 'drizzle-orm/mysql-core'

/** A key made by the client, so that a retry is harmless. */
export const id = () => varchar('id', { length: 36 }).primaryKey()

/** A column with the key of another row. */
export const reference = (name: string) => varchar(name, { length: 36 })

/** A time in UTC, with milliseconds. */
export const moment = (name: string) => datetime(name, { mode: 'date', fsp: 3 })

export const now = sql`CURRENT_TIMESTAMP(3)`
