import type { AfterChangeRequest } from '../../core/operations/requests/afterChange'
import { isErrorResponse } from '../../core/operations/errorResponse'
import type { TranslateRequest, TranslateResponse } from '../../core/operations/requests/translate'
import type { Basis, Change } from '../../core/setups/register/entry'
import type { Source as TapeOrMarks } from '../../core/setups/translate/translate'
import { NOT_COMPUTED } from '../../core/messages/setups/register'
import type { Scope } from '../platform/accounts/scope'
import { listTypes, type TypeVersion } from '../bikes/versions'
import { compute } from '../platform/compute/pool'
import { withTransaction, type Database } from '../platform/db/connection'
import { listEvidence } from './evidence'
import { HISTORY_ROWS } from './setups'
import { validateRow } from './validateRow'
import { getStudio } from '../studio/studio'
import { currentEntries, findEntry, recordEntry, type EntryResult, type NewEntry } from './register'

/**
 * `refused`: with the core's reason; `stale`: other numbers are in force by now than were shown. Nothing was written.
 */
export type ProposalResult =
  EntryResult | Readonly<{ outcome: 'refused'; say: string }> | Readonly<{ outcome: 'stale' }>

/** Rows one translation takes; the latest count. */
const MAX_ROWS = Math.min(200, HISTORY_ROWS)

/**
 * Stores a rider's numbers for another type as well, recomputed here from the entry and the readings of its
 * set-up; under the caller's id, so that a retry changes nothing.
 */
export async function saveTranslation(
  db: Database,
  scope: Scope,
  { id, entryId, lineId }: Readonly<{ id: string; entryId: string; lineId: string }>,
  now: Date,
): Promise<ProposalResult> {
  const [entry, target] = [await findEntry(db, scope, entryId), await typeInForce(db, scope, lineId)]
  if (!entry || !target) return { outcome: 'gone' }
  const { school } = await getStudio(db, scope)
  const rows = entry.setupId ? await listEvidence(db, scope, entry.setupId) : []
  const evidence = rows
    .map(({ row }) => row)
    .filter((row) => 'row' in validateRow(entry.type, row))
    .slice(-MAX_ROWS)
  const request: TranslateRequest = {
    from: { bikeType: entry.type, bike: entry.machineCalibration ?? {}, marks: entry.marks },
    to: { bikeType: target.bikeType },
    school,
    ...(evidence.length > 0 && { evidence }),
  }
  const answer = await compute<TranslateResponse>('translate', request)
  if (isErrorResponse(answer)) return refused(answer.error.faults[0]?.reason)
  return withTransaction(db, (tx) =>
    recordEntry(
      tx,
      scope,
      {
        id,
        memberId: entry.memberId,
        lineId,
        typeId: target.id,
        purpose: entry.purpose,
        source: 'translated',
        certainty: 'translated',
        marks: answer.marks,
        footwear: entry.footwear,
        basis: { fromType: entry.type.name },
        fromId: entry.id,
      },
      now,
    ),
  )
}

/** Stores the numbers of a rider's own bike on some types, for riding as on the road bike: all of them or none. */
export async function saveTapeNumbers(
  db: Database,
  scope: Scope,
  {
    memberId,
    from,
    parts,
  }: Readonly<{
    memberId: string
    from: Extract<TapeOrMarks, { crankMm: number }>
    parts: readonly Readonly<{ id: string; lineId: string }>[]
  }>,
  now: Date,
): Promise<ProposalResult> {
  const entries: NewEntry[] = []
  for (const { id, lineId } of parts) {
    const target = await typeInForce(db, scope, lineId)
    if (!target) return { outcome: 'gone' }
    const answer = await compute<TranslateResponse>('translate', { from, to: { bikeType: target.bikeType } })
    if (isErrorResponse(answer)) return refused(answer.error.faults[0]?.reason)
    entries.push({
      id,
      memberId,
      lineId,
      typeId: target.id,
      purpose: 'road',
      source: 'tape',
      certainty: 'translated',
      marks: answer.marks,
    })
  }
  return recordAll(db, scope, entries, now)
}

/** What a change of shoes or bike makes of numbers, each with the entry it was worked out from. */
export async function saveChange(
  db: Database,
  scope: Scope,
  {
    memberId,
    what,
    mm,
    parts,
  }: Readonly<{
    memberId: string
    what: Change
    mm: number
    parts: readonly Readonly<{ id: string; entryId: string }>[]
  }>,
  now: Date,
): Promise<ProposalResult> {
  const current = await currentEntries(db, scope, [memberId])
  const entries: NewEntry[] = []
  for (const { id, entryId } of parts) {
    if (current.some((entry) => entry.id === id)) continue
    const entry = current.find((one) => one.id === entryId)
    if (!entry) return { outcome: 'stale' }
    const { type: bikeType, machineCalibration, marks, footwear } = entry
    const request: AfterChangeRequest = { bikeType, bike: machineCalibration ?? {}, marks, what, mm }
    const answer = await compute<TranslateResponse>('afterChange', request)
    if (isErrorResponse(answer)) return refused(answer.error.faults[0]?.reason)
    const basis: Basis = { change: { what, mm } }
    entries.push({
      id,
      memberId,
      lineId: entry.lineId,
      typeId: entry.typeId,
      purpose: entry.purpose,
      source: 'change',
      certainty: 'translated',
      marks: answer.marks,
      bikeId: entry.bikeId,
      machineCalibration,
      footwear:
        what === 'shoes' && footwear.soleMm !== undefined ? { ...footwear, soleMm: footwear.soleMm + mm } : footwear,
      basis,
      fromId: entry.id,
    })
  }
  return recordAll(db, scope, entries, now)
}

const refused = (reason: string = NOT_COMPUTED): ProposalResult => ({ outcome: 'refused', say: reason })

async function typeInForce(db: Database, scope: Scope, lineId: string): Promise<TypeVersion | null> {
  return (await listTypes(db, scope)).find((type) => type.lineId === lineId) ?? null
}

/** All entries or none; one that is refused takes the others back. */
async function recordAll(db: Database, scope: Scope, entries: readonly NewEntry[], now: Date): Promise<EntryResult> {
  try {
    await withTransaction(db, async (tx) => {
      for (const entry of entries) {
        const { outcome } = await recordEntry(tx, scope, entry, now)
        if (outcome !== 'kept') throw new NotRecorded(outcome)
      }
    })
    return { outcome: 'kept' }
  } catch (error) {
    if (error instanceof NotRecorded) return { outcome: error.outcome }
    throw error
  }
}

class NotRecorded extends Error {
  constructor(readonly outcome: 'gone' | 'idTaken') {
    super(outcome)
  }
}
