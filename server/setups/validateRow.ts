import type { BikeType } from '../../core/bikes/bike/bike'
import type { Evidence } from '../../core/riders/evidence/registry'
import { canonicalMarks, marksIssues } from '../../core/operations/requests/bikeIssues'
import { evidenceIssues } from '../../core/operations/dispatch'

/** More reasons at once than this nobody reads. */
const MAX_REASONS = 5

/** A row validated against the wire format and the bike's own marks, its labels spelled as the scale spells them. */
export function validateRow(
  bikeType: BikeType,
  row: Evidence,
): Readonly<{ row: Evidence }> | Readonly<{ reasons: readonly string[] }> {
  const issues = evidenceIssues(row)
  if (issues.length > 0)
    return { reasons: issues.slice(0, MAX_REASONS).map((i) => `${i.pointer.slice(1)} ${i.reason}`.trim()) }
  const marks = marksIssues(bikeType, row.at, '')
  if (marks.length > 0) return { reasons: marks.map((i) => i.reason) }
  return { row: row.at ? { ...row, at: canonicalMarks(bikeType, row.at) } : row }
}
