import { ADJUSTMENTS, FURTHER_AXES, type AxisName } from '../../base/adjustments'
import type { Label, Marks } from '../../base/conventions'
import { degrees, offsetPoint, unitVector } from '../../base/geometry'
import { middlePosition, nearestPosition, positionsOf, type ScalePosition } from '../scale/scale'
import type { Axis, Bike, BikeType } from './bike'
import { axisPositions } from './contactPoints'

/** A type with seat height, seat slide, bar height and mostly a bar slide, and nothing else that moves. */
export type PlainType = BikeType & Readonly<{ axes: BikeType['axes'] & Readonly<{ seatSlide: Axis }> }>

/** The axes beside the common four that this type has, in the order of `AXES`. */
export const furtherAxesOf = ({ axes }: BikeType): readonly AxisName[] => FURTHER_AXES.filter((axis) => axes[axis])

/** Whether only the common four move, the seat slide among them. */
export const isPlain = (bikeType: BikeType): bikeType is PlainType =>
  bikeType.axes.seatSlide !== undefined && furtherAxesOf(bikeType).length === 0

/** Where an adjustment stands that nobody named: at 0 mm or the middle of its scale; cranks at the type’s own. */
export function defaultPosition({ axes, crankMm }: BikeType, axis: AxisName): ScalePosition | undefined {
  const scale = axes[axis]?.scale
  return scale && (axis === 'crankLength' ? nearestPosition(scale, crankMm) : middlePosition(scale))
}

/** The marks with every further adjustment and the slide that they leave out at its default. */
export function withDefaults(bikeType: BikeType, marks: Marks): Marks {
  const unnamed = furtherAxesOf(bikeType).filter((axis) => marks[axis] === undefined)
  if (unnamed.length === 0) return marks
  return { ...marks, ...Object.fromEntries(unnamed.map((axis) => [axis, defaultPosition(bikeType, axis)!.label])) }
}

/** The further adjustments of these marks alone. */
export const furtherMarks = (bikeType: BikeType, marks: Marks): Marks =>
  Object.fromEntries(
    furtherAxesOf(bikeType).flatMap((axis) => (marks[axis] === undefined ? [] : [[axis, marks[axis]]])),
  )

/** The length of the cranks at these marks, mm: the type's own where there is no choice. */
export function crankMmAt(bikeType: BikeType, marks: Marks): number {
  if (!bikeType.axes.crankLength) return bikeType.crankMm
  const { crankLength } = marks
  const chosen = crankLength === undefined ? undefined : axisPositions(bikeType, { crankLength }).crankLength
  return chosen ?? defaultPosition(bikeType, 'crankLength')!.mm
}

/** The saddle's tilt that the hand set, degrees, minus is nose down; 0 where it does not tilt. */
export function handTiltDeg(bikeType: BikeType, marks: Marks): number {
  const riseMm = axisPositions(bikeType, { saddleTilt: marks.saddleTilt }).saddleTilt ?? 0
  return degrees(Math.atan2(riseMm, Math.max(1, bikeType.saddle.noseAheadMm)))
}

/** A slide of one mark, for a type that has none: it stays where it is. */
export const NO_SLIDE: Axis = Object.freeze({
  directionDeg: 0,
  scale: Object.freeze({ marks: [{ label: '0', mm: 0 }], halfMarks: false }),
})

/**
 * The machine with its further adjustments standing at `marks`, as a plain one: frame, second adjustments and bar turn
 * move the origins, a choice of cranks becomes their length, tilt by hand the machine's tilt, and a missing slide has
 * one mark. A plain type comes back as it is. What computes with the common four then serves every type; what
 * chooses among the further ones does so around it.
 */
export function standingAt(
  bikeType: BikeType,
  bike: Bike | undefined,
  marks: Marks,
): Readonly<{ bikeType: PlainType; bike: Bike | undefined }> {
  if (isPlain(bikeType)) return { bikeType, bike }
  const further = furtherAxesOf(bikeType)
  const positions = axisPositions(bikeType, withDefaults(bikeType, furtherMarks(bikeType, marks)))
  const moved = (origin: BikeType['seatOrigin'], part: 'saddle' | 'bars') =>
    further.reduce((point, axis) => {
      const { carries } = ADJUSTMENTS[axis]
      const isCarried = carries === 'frame' || carries === part || (part === 'bars' && carries === 'barTurn')
      if (!isCarried) return point
      const u = unitVector(bikeType.axes[axis]!.directionDeg)
      const mm = (positions[axis] ?? 0) + (bike?.offsetsMm?.[axis] ?? 0)
      return offsetPoint(point, u.x * mm, u.y * mm)
    }, origin)
  const { seatHeight, seatSlide = NO_SLIDE, barHeight, barSlide } = bikeType.axes
  const tiltDeg = handTiltDeg(bikeType, marks)
  return {
    bikeType: {
      ...bikeType,
      crankMm: crankMmAt(bikeType, marks),
      seatOrigin: moved(bikeType.seatOrigin, 'saddle'),
      gripOrigin: moved(bikeType.gripOrigin, 'bars'),
      axes: { seatHeight, seatSlide, barHeight, ...(barSlide && { barSlide }) },
    },
    bike: tiltDeg === 0 ? bike : { ...bike, tiltDeg: (bike?.tiltDeg ?? 0) + tiltDeg },
  }
}

/** Marks of a plain type as those of `bikeType`: without the slide it lacks, and with its further adjustments. */
export function onType(bikeType: BikeType, plain: Marks, further: Marks): Marks {
  if (isPlain(bikeType)) return plain
  const { seatSlide, ...rest } = plain
  return { ...rest, ...(bikeType.axes.seatSlide && seatSlide !== undefined && { seatSlide }), ...further }
}

/** Every mark of a further adjustment but the one it stands at, the nearest first. */
export function otherMarksOf(bikeType: BikeType, axis: AxisName, at: Label): readonly ScalePosition[] {
  const positions = positionsOf(bikeType.axes[axis]!.scale)
  const here = positions.find(({ label }) => label === at)?.mm ?? 0
  return positions.filter(({ label }) => label !== at).toSorted((a, b) => Math.abs(a.mm - here) - Math.abs(b.mm - here))
}
