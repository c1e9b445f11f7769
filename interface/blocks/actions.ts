'use server'
import { parse } from 'csv-parse/sync'
import { readPlanRows } from '@/core/classPlan/planFile'
import type { Block } from '@/core/classPlan/blocks'
import { formatActionRefusal } from '@/core/messages/actions'
import { formatPlanFault } from '@/core/messages/watch'
import { shapeIssues } from '@/core/operations/dispatch'
import { authorize } from '@/server/accounts/session'
import type { ActionResult } from '../shared/actionResult'

const MAX_FILE_LENGTH = 200_000

/** A plan from a file's text, JSON or CSV; what cannot be read is told, and nothing is written. */
export async function readPlan(
  text: string,
): Promise<ActionResult<{ blocks: readonly Block[]; faults: readonly string[] }>> {
  if (!(await authorize('planClasses'))) return { outcome: 'refused', say: formatActionRefusal({ code: 'notAllowed' }) }
  const bad = { outcome: 'refused', say: formatActionRefusal({ code: 'badBlocks' }) } as const
  if (typeof text !== 'string' || text.length > MAX_FILE_LENGTH) return bad
  try {
    if (/^\s*[[{]/.test(text)) {
      const read = JSON.parse(text) as unknown
      const blocks = Array.isArray(read) ? read : (read as { blocks?: unknown }).blocks
      if (shapeIssues('blocks', blocks).length > 0) return bad
      return { outcome: 'kept', blocks: blocks as Block[], faults: [] }
    }
    const delimiter = text.split('\n')[0].includes(';') ? ';' : ','
    const rows: string[][] = parse(text, { bom: true, delimiter, relax_column_count: true, skip_empty_lines: true })
    const { blocks, faults } = readPlanRows(rows)
    if (blocks.length === 0 || shapeIssues('blocks', blocks).length > 0) return bad
    return { outcome: 'kept', blocks, faults: faults.map(formatPlanFault) }
  } catch {
    return bad
  }
}
