import type { AxisName, Point } from '../conventions'
import type { Scale } from '../scale/scale'

/** One adjustable part: the direction it moves in (see conventions) and the scale printed on it. */
export type Axis = Readonly<{ directionDeg: number; scale: Scale }>

/** A type of studio bike: what every machine of it has in common. Lengths from the crank axle, mm. */
export type BikeType = Readonly<{
  name: string
  crankMm: number
  /** Pedal axle to the surface the shoe stands on, mm. */
  pedalSurfaceMm: number
  /** Crank axle above the floor, mm. */
  axleHeightMm: number
  saddle: Readonly<{
    /** Nose ahead of the seat point, mm. */
    noseAheadMm: number
    lengthMm: number
    shape: 'flat' | 'tailKick' | 'curved'
  }>
  /** Seat point (middle of the widest part, on top) with both seat axes at 0 mm. */
  seatOrigin: Point
  /** Grip point of the nearest hand position with both bar axes at 0 mm. */
  gripOrigin: Point
  axes: Readonly<{ seatHeight: Axis; seatSlide: Axis; barHeight: Axis; barSlide?: Axis }>
  forearmGaugeValid: boolean
}>

/** One machine of a type: its own offset along each axis, how sure that is, and its saddle's tilt (minus = nose down). */
export type Bike = Readonly<{
  offsetsMm?: Readonly<Partial<Record<AxisName, number>>>
  sdMm?: Readonly<Partial<Record<AxisName, number>>>
  tiltDeg?: number
}>

/** The axes this type has, in reading order. */
export function axesOf(bikeType: BikeType): AxisName[] {
  return bikeType.axes.barSlide
    ? ['seatHeight', 'seatSlide', 'barHeight', 'barSlide']
    : ['seatHeight', 'seatSlide', 'barHeight']
}

/** An axis of this type, or undefined where the type lacks it. */
export const axisOf = (bikeType: BikeType, axis: AxisName): Axis | undefined => bikeType.axes[axis]

/**
 * Crank angle at which the pedal is farthest from the saddle, taken in line with the seat post:
 * c = 180 − (90 − postAngle). Example: a post leaning back by 17° (direction 107) → 163.
 */
export const bottomCrankDeg = (bikeType: BikeType): number => 270 - bikeType.axes.seatHeight.directionDeg
