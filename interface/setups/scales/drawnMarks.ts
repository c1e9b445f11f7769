import { axisOf, type BikeType } from '@/core/bikes/bike/bike'
import { ADJUSTMENTS, isCommon, type AxisName } from '@/core/base/adjustments'
import type { Label, Marks } from '@/core/base/conventions'
import { unitVector } from '@/core/base/geometry'
import type { MarkChance } from '@/core/setups/recommend/request/request'
import { positionsOf } from '@/core/bikes/scale/scale'
import type { DrawnMark } from '../../kit/scale/Scale'
import { formatLabel } from '@/core/messages/words/labels'

/**
 * The marks of an axis as drawn: upright ones from the highest down, level ones from the rearmost forward, those of a
 * further adjustment as printed. `flag`: a
 * mark at which something was found.
 */
export function drawnMarks(
  bikeType: BikeType,
  axis: AxisName,
  current: Marks,
  target: Marks,
  chances: readonly MarkChance[] | undefined,
  flag?: Readonly<{ label: Label; text: string }>,
  isLying = !isUpright(axis),
): DrawnMark[] {
  const { directionDeg, scale } = axisOf(bikeType, axis)!
  const u = unitVector(directionDeg)
  // A further adjustment, or a post drawn lying, runs as its marks do.
  const along = !isCommon(axis) || (isLying && isUpright(axis)) ? 1 : isLying ? u.x : -u.y
  const chanceAt = new Map(chances?.map((c) => [c.label, c.chance]))
  return positionsOf(scale)
    .map(({ label, mm }) => ({
      order: along * mm,
      label,
      text: formatLabel(bikeType, axis, label),
      set: current[axis] === label,
      isTarget: target[axis] === label && current[axis] !== label,
      chance: chanceAt.get(label),
      ...(flag?.label === label && { flag: flag.text }),
    }))
    .sort((a, b) => a.order - b.order)
}

/** Heights are drawn upright, slides level, as on the bike; further adjustments level, in a row of their own. */
export const isUpright = (axis: AxisName): boolean => isCommon(axis) && ADJUSTMENTS[axis].upright
