import type { OutboxEntry } from '@/server/platform/entry'
import type { Row } from '../steps/flow'

/** The server's rows with this device's pending entries; a row the server has already stays in its place. */
export function withPendingEntries(rows: readonly Row[], entries: readonly OutboxEntry[]): readonly Row[] {
  return entries.reduce<readonly Row[]>((all, entry) => {
    if (entry.op === 'withdrawEvidence') return all.filter((r) => r.id !== entry.rowId)
    if (entry.op !== 'appendEvidence' || all.some((r) => r.id === entry.id)) return all
    return [...all, { id: entry.id, row: entry.row }]
  }, rows)
}
