import { getTableColumns, getTableName } from 'drizzle-orm'
import { customType, type MySqlTable } from 'drizzle-orm/mysql-core'
import { openText, sealText } from './keys'

/** JSON Schema of a sealed column's plain value. */
export type PlainShape = object

/** The plain shape of every sealed column, by `table.column`. */
const shapes = new Map<string, PlainShape>()

/** A plain value on its way into a sealed column. */
class Sealing {
  constructor(
    readonly studioId: string,
    readonly value: unknown,
  ) {}
}

/**
 * A column whose values are encrypted with the key of their studio. Reading gives the plain value; what is written
 * must come from `sealRow`, else the write throws. The database cannot compare or search it.
 */
export function sealed<T>(table: string, name: string, shape: PlainShape) {
  const column = `${table}.${name}`
  shapes.set(column, shape)
  return customType<{ data: T; driverData: string }>({
    dataType: () => 'text',
    toDriver: (value: unknown) => {
      if (!(value instanceof Sealing)) throw new TypeError(`${column} takes only sealed values`)
      return sealText(value.studioId, column, JSON.stringify(value.value))
    },
    fromDriver: (text) => JSON.parse(openText(column, text)) as T,
  })(name)
}

/** The plain shape of a sealed column, or undefined for any other. */
export const plainShapeOf = (table: string, name: string): PlainShape | undefined => shapes.get(`${table}.${name}`)

/** The sealed columns of all tables that were loaded, as `table.column`. */
export const sealedColumns = (): readonly string[] => [...shapes.keys()].sort()

/** The fields of a table's rows that are sealed. */
export const sealedFields = (table: MySqlTable): readonly string[] =>
  Object.entries(getTableColumns(table)).flatMap(([field, { name }]) =>
    plainShapeOf(getTableName(table), name) ? [field] : [],
  )

/**
 * Fields of a row of this studio, ready to be written: those that are sealed go through the studio's key, null stays
 * null. The types stay those of the plain values, as the table names them.
 */
export function sealRow<Row extends object>(table: MySqlTable, studioId: string, row: Row): Row {
  const values = row as Record<string, unknown>
  const own = sealedFields(table).filter((field) => values[field] !== undefined && values[field] !== null)
  return { ...row, ...Object.fromEntries(own.map((field) => [field, new Sealing(studioId, values[field])])) }
}
