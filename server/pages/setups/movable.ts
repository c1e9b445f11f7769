import type { AxisName, Label, Marks } from '../../../core/base/conventions'
import { schoolOf } from '../../../core/base/school/school'
import { floorScales } from '../../../core/messages/setups/floorScales'
import { raisedTo, type FloorScales } from '../../../core/setups/moves/move'
import type { MoveExpectation } from '../../../core/messages/setups/floorMoves'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { Recommendation } from '../../../core/operations/requests/recommend'
import type { RecommendRequest } from '../../../core/setups/recommend/request/request'
import { findBike, type StudioBike } from '../../bikes/bikes'
import { numbersOn, ridersMovedOnDay } from '../../classes/moves'
import { stopsOf } from '../../comfort/stops'
import { runningTrials } from '../../comfort/trials'
import { effectsOfLimits } from '../../riders/limits'
import { duePlans } from '../riders/plans'
import { adviceLimits } from './setup'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { Database, DbExecutor } from '../../platform/db/connection'
import { learnedPrior } from '../../setups/learned'
import { carriedBodyOf } from '../../setups/carriedBodies'
import { listHistory } from '../../setups/setups'
import { getStudio } from '../../studio/studio'

/** A rider's numbers on a bike, as far as they can be moved there. */
export type Movable = Readonly<{
  scales: FloorScales
  marks: Marks
  number: number
  /** A move earlier today, or a running trial: another move needs a reason. */
  movedToday: boolean
  onTrial: boolean
  /** What prevents a set-up of the rider, in words; null for nothing. */
  stop: string | null
  /** A starter that is due: the mark to raise the seat to, and the plan in words. */
  raise: Readonly<{ to: Label; text: string }> | null
}>

/** What can be moved on a bike for a rider; null where the studio has neither, or the rider no numbers there. */
export async function movable(
  db: DbExecutor,
  scope: Scope,
  { memberId, bikeId }: Readonly<{ memberId: string; bikeId: string }>,
  now: Date,
): Promise<Movable | null> {
  const bike = await findBike(db, scope, bikeId)
  const numbers = bike && (await numbersOn(db, scope, memberId, bike))
  if (!numbers) return null
  const scales = floorScales(bike.type)
  const [plan] = ((await duePlans(db, scope, [memberId], now)).get(memberId) ?? []).filter(
    ({ raise }) => raise?.lineId === bike.lineId,
  )
  const to = plan && raisedTo(scales, numbers.marks, plan.raise!.mm)
  return {
    scales,
    marks: numbers.marks,
    number: bike.number,
    movedToday: (await ridersMovedOnDay(db, scope, [memberId], now)).has(memberId),
    onTrial: (await runningTrials(db, scope, [memberId], now)).length > 0,
    stop: (await stopsOf(db, scope, [memberId], now)).get(memberId) ?? null,
    raise: to ? { to, text: plan.text } : null,
  }
}

/** Self-adjustment marks of an axis, and the posterior means of the checks at each requested mark. */
export type MoveOutlook = Readonly<{ alone: readonly Label[]; expects: Readonly<Record<Label, MoveExpectation>> }>

/**
 * Outlook of one axis at other marks, inferred from the rider's earlier set-ups. Null without any, or if the inference
 * failed. Runs one inference in a compute thread for the present mark and one for each target.
 */
export async function moveOutlook(
  db: Database,
  scope: Scope,
  { memberId, bikeId, axis, to }: Readonly<{ memberId: string; bikeId: string; axis: AxisName; to: readonly Label[] }>,
  now: Date,
): Promise<MoveOutlook | null> {
  const bike = await findBike(db, scope, bikeId)
  const numbers = bike && (await numbersOn(db, scope, memberId, bike))
  if (!numbers) return null
  // Health comes first: nothing is advised, and nothing is a mild move.
  const effects = (await effectsOfLimits(db, scope, [memberId], now)).get(memberId)
  if ((effects?.health.length ?? 0) > 0 || (await stopsOf(db, scope, [memberId], now)).has(memberId))
    return { alone: [], expects: {} }
  const history = await listHistory(db, scope, memberId, now)
  const body = await carriedBodyOf(db, scope, memberId, now)
  if (history.length === 0 && !body) return null
  const studio = await getStudio(db, scope)
  const prior = (await learnedPrior(db, scope, studio))?.prior
  const limits = effects && adviceLimits(effects)
  const context = { school: schoolOf(studio.school), history, ...(body && { body }), prior, limits }
  const at = (marks: Marks) => compute<Recommendation>('recommend', requestAt(bike, marks, context))
  const here = await at(numbers.marks)
  if (isErrorResponse(here)) return null
  const expects: Record<Label, MoveExpectation> = {}
  for (const label of to) {
    const there = await at({ ...numbers.marks, [axis]: label })
    if (isErrorResponse(there)) return null
    const between = (of: (answer: Recommendation) => number) => ({ from: of(here), to: of(there) })
    expects[label] = {
      kneeDeg: between(({ belief }) => belief.kneeFlexionDeg.mean),
      plumbMm: between(({ belief }) => belief.plumbOffsetMm.mean),
    }
  }
  return { alone: here.tryAlone[axis] ?? [], expects }
}

/** Request at given marks. The set-up is marked as intentional, so that `recommend` advises no other marks. */
const requestAt = (
  bike: StudioBike,
  marks: Marks,
  context: Pick<RecommendRequest, 'school' | 'history' | 'body' | 'prior' | 'limits'>,
): RecommendRequest => ({
  bikeType: bike.type,
  bike: bike.machineCalibration,
  ...context,
  evidence: [{ kind: 'set', meant: 'wish', at: marks }],
})
