import type { Label } from '../../base/conventions'
import { latest } from '../../riders/evidence/evidence'
import type { Evidence } from '../../riders/evidence/registry'
import { positionsOf } from '../../bikes/scale/scale'
import { saddlePositionAt, seatAt, type SaddlePosition, type SaddleSearch } from './saddle/saddleSearch'

/** A seat height a newcomer may begin at, below the one that suits, and after how many rides it is raised to that. */
export type Starter = Readonly<{ from: Label; to: Label; mm: number; afterRides: number }>

/** So many rides until a starter is raised, and no lower than so many mm. Common practice, no source. */
const STARTER_RIDES = 3
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
