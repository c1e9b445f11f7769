import type { AxisName, Label, Marks } from '../../../core/base/conventions'
import { schoolOf } from '../../../core/base/school/school'
import type { BikeType } from '../../../core/bikes/bike/bike'
import type { MoveExpectation } from '../../../core/messages/setups/floorMoves'
import { isErrorResponse } from '../../../core/operations/errorResponse'
import type { Recommendation } from '../../../core/operations/requests/recommend'
import type { RecommendRequest } from '../../../core/setups/recommend/request/request'
import { findBike, type StudioBike } from '../../bikes/bikes'
import { numbersOn, ridersMovedOnDay } from '../../classes/moves'
import { runningTrials } from '../../comfort/trials'
import type { Scope } from '../../platform/accounts/scope'
import { compute } from '../../platform/compute/pool'
import type { Database, DbExecutor } from '../../platform/db/connection'
import { learnedPrior } from '../../setups/learned'
import { listHistory } from '../../setups/setups'
import { getStudio } from '../../studio/studio'

/** A rider's numbers on a bike, as far as they can be moved there. */
export type Movable = Readonly<{
  type: BikeType
  marks: Marks
  number: number
  /** A mark was moved today already, or a change is on trial: a second one asks for a reason. */
  movedToday: boolean
  onTrial: boolean
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
  return {
    type: bike.type,
    marks: numbers.marks,
    number: bike.number,
    movedToday: (await ridersMovedOnDay(db, scope, [memberId], now)).has(memberId),
    onTrial: (await runningTrials(db, scope, [memberId], now)).length > 0,
  }
}

/** What the belief says of an axis: marks that are mild to try, and what the checks should read at marks asked for. */
export type MoveOutlook = Readonly<{ alone: readonly Label[]; expects: Readonly<Record<Label, MoveExpectation>> }>

/**
 * What the belief expects of one axis at other marks, from the rider's earlier set-ups; null where there are none, or
 * where nothing could be computed. An inference in a thread for each mark, and one for the present one.
 */
export async function moveOutlook(
  db: Database,
  scope: Scope,
  { memberId, bikeId, axis, to }: Readonly<{ memberId: string; bikeId: string; axis: AxisName; to: readonly Label[] }>,
  now: Date,
): Promise<MoveOutlook | null> {
  const bike = await findBike(db, scope, bikeId)
  const numbers = bike && (await numbersOn(db, scope, memberId, bike))
  const history = await listHistory(db, scope, memberId, now)
  if (!numbers || history.length === 0) return null
  const studio = await getStudio(db, scope)
  const prior = (await learnedPrior(db, scope, studio))?.prior
  const at = (marks: Marks) =>
    compute<Recommendation>('recommend', requestAt(bike, marks, { school: schoolOf(studio.school), history, prior }))
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

/** The belief of earlier set-ups, read at these marks: set there on purpose, so that nothing else is advised. */
const requestAt = (
  bike: StudioBike,
  marks: Marks,
  context: Pick<RecommendRequest, 'school' | 'history' | 'prior'>,
): RecommendRequest => ({
  bikeType: bike.type,
  bike: bike.machineCalibration,
  ...context,
  evidence: [{ kind: 'set', meant: 'wish', at: marks }],
})
