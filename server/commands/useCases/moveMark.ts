import { findBike, type StudioBike } from '../../bikes/bikes'
import { listFaults } from '../../bikes/inspections'
import { findMove, recordMove, undoMove as undo, type MoveResult, type NewMove } from '../../classes/moves'
import { runningTrials } from '../../comfort/trials'
import { lockMember } from '../../comfort/trialChanges'
import type { Scope } from '../../platform/accounts/scope'
import type { Database, DbExecutor } from '../../platform/db/connection'

/**
 * Moves a mark of a rider on a bike within the caller's transaction. `outOfUse`: the bike was out of use when it was
 * moved; a fault found later does not refuse it. `needsReason`: another change came first today, or one is on trial.
 */
export async function moveMark(
  tx: Database,
  scope: Scope,
  { bikeId, ...move }: NewMove & Readonly<{ bikeId: string }>,
  at: Date,
): Promise<MoveResult | Readonly<{ outcome: 'outOfUse'; number: number }>> {
  // Locks before the first read, so that the reads are current.
  if (!(await lockMember(tx, scope, move.memberId))) return { outcome: 'gone' }
  const bike = await findBike(tx, scope, bikeId)
  if (!bike) return { outcome: 'gone' }
  const isRepeated = (await findMove(tx, scope, move.id)) !== null
  if (!isRepeated && (await isOutOfUse(tx, scope, bike, at))) return { outcome: 'outOfUse', number: bike.number }
  if (!isRepeated && !move.again && (await runningTrials(tx, scope, [move.memberId], at)).length > 0)
    return { outcome: 'needsReason' }
  return recordMove(tx, scope, bike, move, at)
}

async function isOutOfUse(tx: DbExecutor, scope: Scope, bike: StudioBike, at: Date): Promise<boolean> {
  if (bike.retiredAt && bike.retiredAt <= at) return true
  if (bike.openFaults === 0) return false
  return (await listFaults(tx, scope, bike.id)).some(({ foundAt, resolvedAt }) => !resolvedAt && foundAt <= at)
}

/** Takes a move back. A move that nobody knows was refused before: nothing is left to take back. */
export async function undoMove(
  tx: Database,
  scope: Scope,
  { id, moveId }: Readonly<{ id: string; moveId: string }>,
  at: Date,
): Promise<MoveResult> {
  const known = await findMove(tx, scope, moveId)
  if (!known) return { outcome: 'kept' }
  await lockMember(tx, scope, known.memberId)
  const move = await findMove(tx, scope, moveId)
  return move ? undo(tx, scope, { id, move }, at) : { outcome: 'kept' }
}
