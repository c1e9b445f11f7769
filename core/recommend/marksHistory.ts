import type { BikeType } from '../bike/bike'
import type { AxisName, Label, Marks } from '../conventions'
import type { Evidence } from '../evidence/registry'
import { middlePosition } from '../scale/scale'

/** Where the axes stood when each row was seen, and the marks that were named up to the last. */
export type MarksHistory = Readonly<{ at: readonly Marks[]; now: Marks }>

/** Where a slide stands that nobody named: the mark nearest 0 mm, as for the start. */
export function defaultSlide(bikeType: BikeType): Label {
  return middlePosition(bikeType.axes.seatSlide.scale).label
}

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
