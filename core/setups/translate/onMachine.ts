import { axisOf, type Bike, type BikeType } from '../../bikes/bike/bike'
import { sameGeometry } from '../../bikes/calibration/predictionError'
import { ADJUSTMENTS, AXES, type AxisName } from '../../base/adjustments'
import type { Label, Marks, Point } from '../../base/conventions'
import { offsetPoint, unitVector } from '../../base/geometry'
import { findPosition, nearestPosition } from '../../bikes/scale/scale'
import { translateMarks } from './translate'

/** Numbers with the type, and where recorded the machine, they were set on. */
export type SetNumbers = Readonly<{ bikeType: BikeType; bike?: Bike; marks: Marks }>

/** An axis that takes another mark on a machine, and the offset of that machine from the earlier one, mm. */
export type MovedMark = Readonly<{
  axis: AxisName
  from: Label
  to: Label
  offsetMm: number
  /** The bars moved with the saddle rather than for their own offset. */
  followsSaddle?: true
}>
export type MarksOnMachine = Readonly<{
  marks: Marks
  moved: readonly MovedMark[]
  /** The machine's version of the type has other scales: its marks were worked out. */
  translated: boolean
  /** Resulting height of the saddle minus the target, mm along the post. */
  leftOverMm: number
}>

/**
 * Numbers for one machine of the same type, so that all contact points stay the same: each axis at
 * the mark nearest to its place less the machine's own offset. A version of the type with other scales is translated.
 */
export function marksOnMachine(
  numbers: SetNumbers,
  machine: Readonly<{ bikeType: BikeType; bike?: Bike }>,
): MarksOnMachine {
  if (!sameGeometry(numbers.bikeType, machine.bikeType)) {
    const { marks, residueMm } = translateMarks({ from: numbers, to: machine })
    return { marks, moved: [], translated: true, leftOverMm: residueMm.saddleHeightMm }
  }
  const marks: Partial<Record<AxisName, Label>> = {}
  const moved: MovedMark[] = []
  let leftOverMm = 0
  // What the saddle's marks leave over, as a shift of the seat point: the bars follow it.
  let left: Point = { xMm: 0, yMm: 0 }
  // In the order of `AXES`, whatever the hand's own: the bars follow the saddle.
  for (const axis of AXES.filter((one) => machine.bikeType.axes[one])) {
    const label = numbers.marks[axis]
    const { scale, directionDeg } = axisOf(machine.bikeType, axis)!
    const found = label === undefined ? null : findPosition(scale, label)
    if (label === undefined || found?.outcome !== 'found') continue
    const offsetMm = (machine.bike?.offsetsMm?.[axis] ?? 0) - (numbers.bike?.offsetsMm?.[axis] ?? 0)
    const u = unitVector(directionDeg)
    const follows = axis === 'barHeight' ? left.yMm / u.y : axis === 'barSlide' ? left.xMm / u.x : 0
    const targetMm = found.stop.mm - offsetMm + follows
    const nearest = nearestPosition(scale, targetMm)
    // Half-way between two marks nobody moves.
    const moves = Math.abs(nearest.mm - targetMm) < Math.abs(found.stop.mm - targetMm) - TIE_MM
    const to = moves ? nearest : found.stop
    marks[axis] = to.label
    const overMm = to.mm - targetMm
    if (axis === 'seatHeight') leftOverMm = overMm
    if (ADJUSTMENTS[axis].carries === 'saddle') left = offsetPoint(left, u.x * overMm, u.y * overMm)
    const followsSaddle = Math.abs(follows) > Math.abs(offsetMm)
    if (to.label !== label)
      moved.push({ axis, from: label, to: to.label, offsetMm, ...(followsSaddle && { followsSaddle }) })
  }
  return { marks, moved, translated: false, leftOverMm }
}
const TIE_MM = 0.5
