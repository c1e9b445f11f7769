import type { BikeType } from '../bike/bike'
import { positionsOf, type Positions } from '../bike/place'
import type { AxisName, Label, Marks } from '../conventions'
import type { Evidence } from '../evidence/evidence'
import { middleStop } from '../scale/scale'

/** Where the axes stood when each row was seen, and the marks that were named up to the last. */
export type MarksHistory = Readonly<{ at: readonly Marks[]; now: Marks }>

/** Where a slide stands that nobody named: the mark nearest 0 mm, as for the start. */
export function startSlide(bikeType: BikeType): Label {
  return middleStop(bikeType.axes.seatSlide.scale).label
}

/** The marks of every row: an axis stands where the last row that named it left it; a slide never named, as for the start. */
export function marksHistory(bikeType: BikeType, evidence: readonly Evidence[]): MarksHistory {
  const named: Partial<Record<AxisName, Label>> = {}
  const seatSlide = startSlide(bikeType)
  const at = evidence.map((row): Marks => {
    Object.assign(named, row.at)
    return { seatSlide, ...named }
  })
  return { at, now: { ...named } }
}

/** Labels → positions, for marks already checked at the door. */
export function positions(bikeType: BikeType, marks: Marks): Positions {
  return positionsOf(bikeType, marks).positions
}
