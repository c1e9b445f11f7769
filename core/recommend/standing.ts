import type { BikeType } from '../bike/bike'
import { positionsOf, type Positions } from '../bike/place'
import type { AxisName, Label, Marks } from '../conventions'
import { needsMarks, type Evidence } from '../evidence/evidence'
import { middleStop } from '../scale/scale'

/** Where the axes stood when each row was seen, and where they stand after the last. */
export type History = Readonly<{ at: readonly Marks[]; now: Marks }>

/** The slides as they start without fore-aft evidence: the mark nearest 0 mm. */
export function startSlide(bikeType: BikeType): Label {
  return middleStop(bikeType.axes.seatSlide.scale).label
}

/**
 * Replays `at` over the rows: an axis stands at the label of the latest `at` that names it, else as last proposed.
 * A landmark taken with the seat height alone was taken with the slide as for the start.
 * `proposedBefore(i)` gives the marks proposed on the rows before i; it is asked only for axes nobody named,
 * and only where a row needs them.
 */
export function replay(
  bikeType: BikeType,
  evidence: readonly Evidence[],
  proposedBefore: (row: number) => Marks,
): History {
  const named: Partial<Record<AxisName, Label>> = {}
  const at = evidence.map((row, i) => {
    Object.assign(named, row.at)
    if (!needsMarks(row)) return { ...named }
    if (row.kind === 'landmarkAtMark') return { seatSlide: startSlide(bikeType), ...named }
    const complete = named.seatHeight !== undefined && named.seatSlide !== undefined
    return complete ? { ...named } : { ...proposedBefore(i), ...named }
  })
  return { at, now: { ...named } }
}

/** Labels → positions, for marks already checked at the door. */
export function positions(bikeType: BikeType, marks: Marks): Positions {
  return positionsOf(bikeType, marks).positions
}
