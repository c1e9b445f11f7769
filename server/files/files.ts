import type { FileRefusal } from '../../core/messages/studio/files'
import type { BikeType } from '../../core/bikes/bike/bike'
import { guessColumns, printedNames } from '../../core/setups/openFiles/columns'
import { MEMBER_COLUMNS, type MemberColumn } from '../../core/setups/openFiles/memberRow'
import type { ColumnMap } from './importMembers'
import { linesOf, recognizeList, type ListFormat } from './list'
import type { Upload } from './uploads'

/** The first lines of a list with what its columns seem to be. */
export type ListPreview = Readonly<{
  format: ListFormat
  headings: readonly string[]
  rows: readonly (readonly string[])[]
  columns: ColumnMap
}>

const PREVIEW_ROWS = 6
/** More columns than this no list has. */
const MAX_COLUMNS = 100

/**
 * What a chosen list looks like, its columns also by what these types are called on the bikes; refused where there is
 * nothing below its headings.
 */
export async function previewList(
  { path }: Upload,
  types: readonly BikeType[] = [],
): Promise<ListPreview | FileRefusal> {
  const format = await recognizeList(path)
  const rows: (readonly string[])[] = []
  for await (const found of linesOf(path, format)) {
    if (found.outcome === 'faulty') break
    rows.push(found.cells.slice(0, MAX_COLUMNS))
    if (rows.length > PREVIEW_ROWS) break
  }
  const [headings, ...shown] = rows
  if (!headings || shown.length === 0) return 'noLines'
  return { format, headings, rows: shown, columns: guessColumns(headings, printedNames(types)) }
}

/** Columns that name the member; a list needs one of them. */
const NAMING: readonly MemberColumn[] = ['name', 'firstName', 'lastName']

/** The columns as chosen by the user, or why they are invalid. */
export function columnsFrom(value: unknown): ColumnMap | FileRefusal {
  if (!Array.isArray(value) || value.length > MAX_COLUMNS) return 'noName'
  const columns = value.map((one): MemberColumn | null => MEMBER_COLUMNS.find((column) => column === one) ?? null)
  if (!NAMING.some((column) => columns.includes(column))) return 'noName'
  const named = columns.filter((column) => column !== null)
  return new Set(named).size === named.length ? columns : 'twice'
}
