import type { AxisName, Marks } from '../../base/conventions'
import type { BikeType } from '../../bikes/bike/bike'
import type { Lengths } from '../../bikes/bike/contactPoints'
import { defaultPosition, furtherAxesOf, otherMarksOf } from '../../bikes/bike/standing'
import { nearestPosition } from '../../bikes/scale/scale'

type Carried = Readonly<{
  residueMm: Lengths
  outOfRange: readonly Readonly<{ axis: AxisName; missingMm: number }>[]
}>

/**
 * What moving a further adjustment costs beside a residue, mm: the same seat and grip by the common axes are felt less
 * than by a lifted frame or turned bars, and are set sooner. Ours.
 */
const FURTHER_COST_MM = 6
/** What lies beyond a scale weighs so many times as much as what rounding leaves. */
const MISSING_WEIGHT = 2
/** So many further adjustments are moved at most. */
const ROUNDS = 3

/** The further adjustments with which numbers arrive best on a type, and how they then arrive. */
export function carriedBest<C extends Carried>(
  bikeType: BikeType,
  crankMm: number,
  carriedAt: (further: Marks) => C,
): Readonly<{ further: Marks; carried: C }> {
  const start = startOf(bikeType, crankMm)
  const axes = furtherAxesOf(bikeType).filter((axis) => axis !== 'crankLength' && axis !== 'saddleTilt')
  const costOf = (further: Marks, carried: C) =>
    residueCost(carried) + FURTHER_COST_MM * axes.filter((axis) => further[axis] !== start[axis]).length
  let best = { further: start, carried: carriedAt(start) }
  let cost = costOf(best.further, best.carried)
  for (let round = 0; round < ROUNDS && cost > FURTHER_COST_MM; round++) {
    const before = best
    for (const axis of axes)
      for (const { label } of otherMarksOf(bikeType, axis, before.further[axis]!)) {
        const further = { ...before.further, [axis]: label }
        const carried = carriedAt(further)
        const here = costOf(further, carried)
        if (here < cost - 1e-6) {
          best = { further, carried }
          cost = here
        }
      }
    if (best === before) break
  }
  return best
}

/** Every further adjustment at its default, the cranks as near as there are to those ridden before. */
function startOf(bikeType: BikeType, crankMm: number): Marks {
  return Object.fromEntries(
    furtherAxesOf(bikeType).map((axis) => [
      axis,
      axis === 'crankLength'
        ? nearestPosition(bikeType.axes.crankLength!.scale, crankMm).label
        : defaultPosition(bikeType, axis)!.label,
    ]),
  )
}

/** What is left over of seat and grip, mm; the seat counts twice, since the leg feels it. */
function residueCost({ residueMm, outOfRange }: Carried): number {
  const { saddleHeightMm, setbackMm, reachMm, stackMm } = residueMm
  const missing = outOfRange.reduce((sum, { missingMm }) => sum + missingMm, 0)
  return 2 * Math.hypot(saddleHeightMm, setbackMm) + Math.hypot(reachMm, stackMm) + MISSING_WEIGHT * missing
}
