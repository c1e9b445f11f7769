'use client'
import { Select } from 'antd'
import '@/interface/kit/antd/select.generated.css'
import { COLUMN_HEADING } from '@/core/setups/openFiles/columns'
import { MEMBER_COLUMNS, type MemberColumn } from '@/core/setups/openFiles/memberRow'
import { capitalized } from '@/core/messages/words/phrases'
import type { ListPreview } from '@/server/files/files'
import type { ColumnMap } from '@/server/files/importMembers'
import styles from './filesView.module.css'

const SEPARATOR: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }

type Props = Readonly<{
  name: string
  preview: ListPreview
  columns: ColumnMap
  onColumns: (columns: ColumnMap) => void
}>

/** The first lines of a list, with what each of its columns is taken for. */
export function ListColumns({ name, preview: { format, headings, rows }, columns, onColumns }: Props) {
  const set = (at: number, column: MemberColumn | null) =>
    onColumns(columns.map((one, i) => (i === at ? column : one === column && column !== null ? null : one)))
  return (
    <div className={styles.list}>
      <p className={styles.quiet}>
        <b>{name}</b>, parted by {SEPARATOR[format.delimiter]}, {format.encoding.toUpperCase()}
      </p>
      <div className={styles.scroll} tabIndex={0} role="region" aria-label="The first lines">
        <table>
          <thead>
            <tr>
              {headings.map((heading, i) => (
                <th key={i} scope="col">
                  <span>{heading || '–'}</span>
                  <Select
                    size="large"
                    aria-label={`Column ${heading || i + 1} is`}
                    value={columns[i] ?? ''}
                    className={columns[i] ? undefined : styles.unused}
                    options={[
                      { value: '', label: 'left out' },
                      ...MEMBER_COLUMNS.map((value) => ({ value, label: capitalized(COLUMN_HEADING[value]) })),
                    ]}
                    onChange={(value) => set(i, value === '' ? null : (value as MemberColumn))}
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, r) => (
              <tr key={r}>
                {headings.map((_, i) => (
                  <td key={i} className={columns[i] ? undefined : styles.unused}>
                    {row[i]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  )
}
