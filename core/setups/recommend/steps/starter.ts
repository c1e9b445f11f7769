import type { Label } from '../../../base/conventions'
import type { Move } from '../request/request'
import { latest } from '../../../riders/evidence/evidence'
import type { Evidence } from '../../../riders/evidence/registry'
import { STARTER_RIDES } from '../../../riders/plans/plan'
import { positionsOf } from '../../../bikes/scale/scale'
import { saddlePositionAt, seatAt, type SaddlePosition, type SaddleSearch } from '../saddle/saddleSearch'

/** A seat height a newcomer may begin at, below the one that suits, and after how many rides it is raised to that. */
export type Starter = Readonly<{ from: Label; to: Label; mm: number; afterRides: number }>

/** A starter is no lower than so many mm. Common practice, no source. */
const STARTER_MOST_MM = 25

/** Where the school begins newcomers low: one mark, or as much lower as is sensible; else undefined. */
export function starterFor(
  search: SaddleSearch,
  evidence: readonly Evidence[],
  proposed: SaddlePosition,
): Starter | undefined {
  if (search.school.newcomers !== 'starterLow' || latest(evidence, 'rider')?.experience !== 'new') return undefined
  const lower = positionsOf(search.bikeType.axes.seatHeight.scale)
    .map((height) => saddlePositionAt(search, height, proposed.slide))
    .filter(({ seat }) => seat.yMm < seatAt(search, proposed.height, proposed.slide).yMm - 1)
    .sort((a, b) => b.seat.yMm - a.seat.yMm)
  const to = lower.find(({ seat }) => proposed.seat.yMm - seat.yMm >= STARTER_LEAST_MM) ?? lower[0]
  if (!to || proposed.seat.yMm - to.seat.yMm > STARTER_MOST_MM) return undefined
  return {
    from: proposed.height.label,
    to: to.height.label,
    mm: to.height.mm - proposed.height.mm,
    afterRides: STARTER_RIDES,
  }
}
const STARTER_LEAST_MM = 10

/**
 * What saving these marks plans for later: the seat height to raise to, where they are a starter by the school, or on
 * purpose (`isStarter`) and a higher seat is advised. Undefined where nothing is to be raised.
 */
export function starterPlan(
  { starter, next }: Readonly<{ starter?: Starter; next: Readonly<{ moves: readonly Move[] }> }>,
  seatHeight: Label | undefined,
  isStarter: boolean,
): Readonly<{ to: Label; afterRides: number }> | undefined {
  if (starter && starter.to === seatHeight) return { to: starter.from, afterRides: starter.afterRides }
  const up = next.moves.find(({ axis, mm }) => axis === 'seatHeight' && mm > 0)
  return isStarter && up && up.to !== seatHeight ? { to: up.to, afterRides: STARTER_RIDES } : undefined
}
