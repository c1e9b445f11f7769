import { setImmediate as nextTurn } from 'node:timers/promises'
import type { FileFault, ImportTally } from '../../core/messages/studio/files'
import type { MemberCells, MemberColumn } from '../../core/setups/openFiles/memberRow'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { isDuplicate } from '../platform/db/errors'
import { withLease } from '../platform/lease/lease'
import { BATCH, planFor, type ImportPlan } from './importPlan'
import { linesOf, type ListFormat } from './list'
import type { Upload } from './uploads'

/** Which column each cell of a line is, in the file's order; null where it is none. */
export type ColumnMap = readonly (MemberColumn | null)[]
export type ImportInput = Readonly<{ upload: Upload; format: ListFormat; columns: ColumnMap }>

/** Maximum number of listed faults; more are counted. */
export const MAX_FAULTS = 200
/** Lines between turns of the event loop. */
const TURN = 50

export type ImportOutcome =
  | Readonly<{ outcome: 'fits' | 'kept'; tally: ImportTally }>
  | Readonly<{ outcome: 'faulty'; faults: readonly FileFault[]; count: number }>
  | Readonly<{ outcome: 'stopped' | 'busy' | 'gone' }>

/** Files are brought in one at a time: this names the lease. */
export const IMPORT_LEASE = 'import'

/** Progress while a long file is read: bytes of how many. */
export type Progress = (done: number, of: number) => void

/** Reads a whole list against the studio and writes nothing: what it would do, or every fault of it. */
export async function checkMembers(
  db: DbExecutor,
  scope: Scope,
  input: ImportInput,
  now: Date,
  progress: Progress,
  signal: AbortSignal,
): Promise<ImportOutcome> {
  const plan = await planFor(db, scope, now)
  const read = await readAll(input, plan, progress, signal, async () => undefined)
  if (read.outcome !== 'read') return read
  return { outcome: 'fits', tally: plan.tally }
}

/**
 * Brings a whole list in, or nothing of it: faults, a stop and a failure leave all as it was. What is written appears
 * at once at the end; until then nobody waits for it. `busy`: another file is being brought in.
 */
export async function importMembers(
  db: Database,
  scope: Scope,
  input: ImportInput,
  now: Date,
  progress: Progress,
  signal: AbortSignal,
  /** Before what was written appears. */
  beforeAppearing: () => Promise<void> = async () => undefined,
): Promise<ImportOutcome> {
  try {
    return await withLease(db, scope, IMPORT_LEASE, (renew) =>
      withTransaction(db, async (tx): Promise<ImportOutcome> => {
        const plan = await planFor(tx, scope, now)
        const read = await readAll(input, plan, progress, signal, () => plan.write(tx))
        if (read.outcome !== 'read') throw new NothingWritten(read)
        await plan.write(tx)
        await beforeAppearing()
        // Rows that others need are locked only now.
        await plan.appear(tx)
        await renew(tx)
        return { outcome: 'kept', tally: plan.tally }
      }),
    )
  } catch (error) {
    if (error instanceof NothingWritten) return error.why
    // Somebody gave one of these member numbers to another member meanwhile.
    if (isDuplicate(error, 'member_number')) return { outcome: 'busy' }
    throw error
  }
}

/** Takes the transaction back. */
class NothingWritten extends Error {
  constructor(readonly why: ImportOutcome) {
    super(why.outcome)
  }
}

async function readAll(
  { upload, format, columns }: ImportInput,
  plan: ImportPlan,
  progress: Progress,
  signal: AbortSignal,
  batch: () => Promise<void>,
): Promise<ImportOutcome | Readonly<{ outcome: 'read' }>> {
  const faults: FileFault[] = []
  let [count, announced] = [0, -1]
  const fault = (one: FileFault) => {
    if (faults.length < MAX_FAULTS) faults.push(one)
    count += 1
  }
  for await (const found of linesOf(upload.path, format)) {
    if (signal.aborted) return { outcome: 'stopped' }
    if (found.outcome === 'faulty') {
      fault(found.fault)
      break
    }
    const { line, cells, bytes } = found
    if (announced < 0) {
      announced = cells.length
      continue
    }
    if (cells.length !== announced) fault({ line, code: 'cells', found: cells.length, wanted: announced })
    else plan.read(line, cellsOf(columns, cells)).forEach((cell) => fault({ line, cell }))
    if (plan.tally.lines % TURN === 0) await nextTurn()
    if (plan.tally.lines % BATCH === 0) {
      progress(bytes, upload.bytes)
      // After a fault nothing will be stored: the rest is only read.
      if (count === 0) await batch()
    }
  }
  progress(upload.bytes, upload.bytes)
  return count > 0 ? { outcome: 'faulty', faults, count } : { outcome: 'read' }
}

const cellsOf = (columns: ColumnMap, cells: readonly string[]): MemberCells =>
  Object.fromEntries(columns.flatMap((column, i) => (column ? [[column, cells[i]]] : [])))
