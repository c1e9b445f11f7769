import { AXES, GRIP_AXES, SEAT_AXES, type AxisName } from '../../base/adjustments'
import type { Marks, Point } from '../../base/conventions'
import { unitVector, offsetPoint } from '../../base/geometry'
import { findPosition } from '../scale/scale'
import { axisOf, type Bike, type BikeType } from './bike'

/** The four lengths a tape reads, from the crank axle centre, mm. Definitions in `place`. */
export type Lengths = Readonly<{ saddleHeightMm: number; setbackMm: number; reachMm: number; stackMm: number }>

/** Position of each axis along its scale, mm; an axis left out is at 0. */
export type AxisPositions = Readonly<Partial<Record<AxisName, number>>>

export type ContactPoints = Readonly<{ seat: Point; nose: Point; grip: Point; lengths: Lengths }>

/**
 * Seat point, nose and grip of a bike with its axes at `positions`, and the tape's four lengths:
 * saddle height = straight distance axle → seat point; setback = nose behind the axle, horizontally;
 * reach = seat point → grip, horizontally; stack = grip above the axle. Tilt never changes them.
 */
export function contactPoints(bikeType: BikeType, bike: Bike | undefined, positions: AxisPositions): ContactPoints {
  const seat = moved(bikeType.seatOrigin, SEAT_AXES)
  const grip = moved(bikeType.gripOrigin, GRIP_AXES)
  const nose = offsetPoint(seat, bikeType.saddle.noseAheadMm + (bike?.saddle?.noseDeltaMm ?? 0), 0)
  const lengths = {
    saddleHeightMm: Math.hypot(seat.xMm, seat.yMm),
    setbackMm: 0 - nose.xMm,
    reachMm: grip.xMm - seat.xMm,
    stackMm: grip.yMm,
  }
  return { seat, nose, grip, lengths }

  function moved(origin: Point, axes: readonly AxisName[]): Point {
    return axes.reduce((point, name) => {
      const axis = axisOf(bikeType, name)
      if (!axis) return point
      const u = unitVector(axis.directionDeg)
      const mm = (positions[name] ?? 0) + (bike?.offsetsMm?.[name] ?? 0)
      return offsetPoint(point, u.x * mm, u.y * mm)
    }, origin)
  }
}

/**
 * The type as it is for a rider who sits `sitsAtMm` ahead of the saddle's middle (minus: behind): its seat point is
 * their own place on the saddle, higher or lower by the saddle's tilt. The nose stays where it is.
 */
export function seatedAt(bikeType: BikeType, bike: Bike | undefined, sitsAtMm: number | undefined): BikeType {
  if (!sitsAtMm) return bikeType
  // A board over the front half does not measure the whole saddle.
  const tiltDeg = bike?.tiltAcross === 'frontHalf' ? 0 : (bike?.tiltDeg ?? 0)
  const along = unitVector(tiltDeg)
  return {
    ...bikeType,
    seatOrigin: offsetPoint(bikeType.seatOrigin, sitsAtMm * along.x, sitsAtMm * along.y),
    saddle: { ...bikeType.saddle, noseAheadMm: bikeType.saddle.noseAheadMm - sitsAtMm * along.x },
  }
}

export type MarkIssue =
  | Readonly<{ axis: AxisName; code: 'noSuchAxis' }>
  | Readonly<{ axis: AxisName; code: 'noSuchLabel'; label: string; nearest: readonly string[] }>

/** Labels turned into positions. Every issue is found, with the labels nearest to what was given. */
export function resolveMarks(bikeType: BikeType, marks: Marks): { positions: AxisPositions; issues: MarkIssue[] } {
  const positions: Partial<Record<AxisName, number>> = {}
  const issues: MarkIssue[] = []
  for (const name of AXES) {
    const label = marks[name]
    if (label === undefined) continue
    const axis = axisOf(bikeType, name)
    if (!axis) {
      issues.push({ axis: name, code: 'noSuchAxis' })
      continue
    }
    const found = findPosition(axis.scale, label)
    if (found.outcome === 'found') positions[name] = found.stop.mm
    else issues.push({ axis: name, code: 'noSuchLabel', label, nearest: found.nearest })
  }
  return { positions, issues }
}

/** Positions of marks that have no issues (checked at the API boundary), mm. */
export const axisPositions = (bikeType: BikeType, marks: Marks): AxisPositions =>
  resolveMarks(bikeType, marks).positions
