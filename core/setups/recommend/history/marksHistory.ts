import type { BikeType } from '../../../bikes/bike/bike'
import { AXES, type AxisName, type Label, type Marks } from '../../../base/conventions'
import type { MeantReason } from '../../../riders/evidence/kinds/onBike/set'
import type { Evidence } from '../../../riders/evidence/registry'
import { NO_SLIDE, withDefaults } from '../../../bikes/bike/standing'
import { middlePosition } from '../../../bikes/scale/scale'

/** Positions of the axes at each row, and the marks named up to the last row. */
export type MarksHistory = Readonly<{ at: readonly Marks[]; now: Marks }>

/** Position of an unnamed slide: the mark nearest 0 mm, as for the start; the one mark of a type without a slide. */
export function defaultSlide(bikeType: BikeType): Label {
  return middlePosition((bikeType.axes.seatSlide ?? NO_SLIDE).scale).label
}

/** Position of an unnamed bar slide; undefined on a bike without one. */
export const defaultBarSlide = ({ axes }: BikeType): Label | undefined =>
  axes.barSlide && middlePosition(axes.barSlide.scale).label

/**
 * The marks of every row: an axis is at the mark of the last row that named it; a slide, or a further adjustment, never
 * named is as for the start.
 */
export function marksHistory(bikeType: BikeType, evidence: readonly Evidence[]): MarksHistory {
  const named: Partial<Record<AxisName, Label>> = {}
  const start = { seatSlide: defaultSlide(bikeType), ...withDefaults(bikeType, {}) }
  const at = evidence.map((row): Marks => {
    Object.assign(named, row.at)
    return { ...start, ...named }
  })
  return { at, now: { ...named } }
}

/** Why the bike is set so on purpose: the reason of the latest row with one, unless an axis was moved since. */
export function intentionalSettingReason(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  now: Marks,
): MeantReason | undefined {
  const i = evidence.findLastIndex((row) => row.kind === 'set')
  const row = evidence[i]
  const isUnchanged =
    now.seatHeight !== undefined && i >= 0 && AXES.every((axis) => now[axis] === undefined || at[i][axis] === now[axis])
  return row?.kind === 'set' && isUnchanged ? row.meant : undefined
}
