import type { BikeType } from '../bike/bike'
import { AXES, type AxisName, type Label, type Marks } from '../conventions'
import type { MeantReason } from '../evidence/kinds/set'
import type { Evidence } from '../evidence/registry'
import { middlePosition } from '../scale/scale'

/** Where the axes stood when each row was seen, and the marks that were named up to the last. */
export type MarksHistory = Readonly<{ at: readonly Marks[]; now: Marks }>

/** Where a slide stands that nobody named: the mark nearest 0 mm, as for the start. */
export function defaultSlide(bikeType: BikeType): Label {
  return middlePosition(bikeType.axes.seatSlide.scale).label
}

/** Where a bar slide stands that nobody named; undefined on a bike without one. */
export const defaultBarSlide = ({ axes }: BikeType): Label | undefined =>
  axes.barSlide && middlePosition(axes.barSlide.scale).label

/**
 * The marks of every row: an axis stands where the last row that named it left it; a slide never named, as for the
 * start.
 */
export function marksHistory(bikeType: BikeType, evidence: readonly Evidence[]): MarksHistory {
  const named: Partial<Record<AxisName, Label>> = {}
  const seatSlide = defaultSlide(bikeType)
  const at = evidence.map((row): Marks => {
    Object.assign(named, row.at)
    return { seatSlide, ...named }
  })
  return { at, now: { ...named } }
}

/** Why the bike stands on purpose as it does: what the latest row that says so gave, unless an axis was moved since. */
export function intentionalSettingReason(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  now: Marks,
): MeantReason | undefined {
  const i = evidence.findLastIndex((row) => row.kind === 'set')
  const row = evidence[i]
  const stands =
    now.seatHeight !== undefined && i >= 0 && AXES.every((axis) => now[axis] === undefined || at[i][axis] === now[axis])
  return row?.kind === 'set' && stands ? row.meant : undefined
}
