import { Type, type TSchema } from '@sinclair/typebox'
import { AXES, perAxis, pointRef, type AxisName } from '../../base/conventions'
import { scaleSchema } from '../scale/scale'
import { between, closed, oneOf, positiveMm, refTo, type Plain } from '../../base/schema'

/**
 * One adjustable part: the direction it moves in (see conventions), the scale printed on it, and the name printed on
 * the bike where it is not the common one. What its millimetres mean stands in `ADJUSTMENTS`.
 */
export const axisSchema = closed({
  directionDeg: between(-360, 360),
  scale: scaleSchema,
  name: Type.Optional(Type.String({ minLength: 1, maxLength: 30 })),
  /** It may be moved with the rider on the bike; left out: the rider is off. */
  riderOn: Type.Optional(Type.Literal(true)),
})
export type Axis = Plain<typeof axisSchema>
const axisRef = refTo<typeof axisSchema>('axis')

export const PEDAL_SIDES = ['cage', 'cleat'] as const
export type PedalSide = (typeof PEDAL_SIDES)[number]
const perPedalSide = <S extends TSchema>(schema: S): Record<PedalSide, S> => ({ cage: schema, cleat: schema })

/** How a board lies on a saddle: over its two highest points, or over its front half (kicked or split saddles). */
export const TILT_ACROSS = ['highestPoints', 'frontHalf'] as const
export const SADDLE_SHAPES = ['flat', 'tailKick', 'curved'] as const

/** A type of studio bike: what every machine of it has in common. Lengths from the crank axle, mm. */
export const bikeTypeSchema = closed({
  name: Type.String({ minLength: 1, maxLength: 80 }),
  crankMm: between(50, 300),
  /** Pedal axle to the surface under the shoe. */
  pedalSurfaceMm: between(-50, 100),
  /** Crank axle above the floor. */
  axleHeightMm: between(50, 1000),
  /** The nose lies `noseAheadMm` ahead of the seat point. */
  saddle: closed({ noseAheadMm: between(0, 400), lengthMm: positiveMm, shape: oneOf(SADDLE_SHAPES) }),
  /** Seat point (middle of the widest part, on top) with both seat axes at 0 mm. */
  seatOrigin: pointRef,
  /** Grip point of the nearest hand position with both bar axes at 0 mm. */
  gripOrigin: pointRef,
  axes: closed({ ...perAxis(Type.Optional(axisRef)), seatHeight: axisRef, barHeight: axisRef }),
  /** The order in which the hand sets its adjustments, where not that of `AXES`; what it leaves out comes last. */
  order: Type.Optional(Type.Array(oneOf(AXES), { maxItems: AXES.length, uniqueItems: true })),
  forearmGaugeValid: Type.Boolean(),
  /** Where the pedal's two sides differ: pedal axle to the surface, as `pedalSurfaceMm`. */
  pedalSurfacesMm: Type.Optional(closed(perPedalSide(Type.Optional(between(-50, 100))))),
  /** Further hand positions, from the grip point. */
  grips: Type.Optional(
    Type.Array(
      closed({
        name: Type.String({ minLength: 1, maxLength: 40 }),
        aheadMm: between(-600, 600),
        aboveMm: between(-600, 600),
      }),
      { maxItems: 12 },
    ),
  ),
})
export type BikeType = Plain<typeof bikeTypeSchema>
export const bikeTypeRef = refTo<typeof bikeTypeSchema>('bikeType')

/**
 * One machine of a type: its own offset along each axis, how sure that is (sd), and its saddle's tilt (minus = nose
 * down).
 */
export const bikeSchema = closed({
  offsetsMm: Type.Optional(closed(perAxis(Type.Optional(between(-300, 300))))),
  sdMm: Type.Optional(closed(perAxis(Type.Optional(between(0, 100))))),
  tiltDeg: Type.Optional(between(-45, 45)),
  /** The saddle it carries where that is not its type's: `noseDeltaMm` farther ahead from the seat point. */
  saddle: Type.Optional(
    closed({
      name: Type.String({ minLength: 1, maxLength: 60 }),
      widthMm: between(80, 320),
      lengthMm: positiveMm,
      shape: oneOf(SADDLE_SHAPES),
      board: oneOf(TILT_ACROSS),
      noseDeltaMm: between(-400, 400),
    }),
  ),
  /** How the board lay that the tilt was read with; its window goes by it. Left out: over the two highest points. */
  tiltAcross: Type.Optional(oneOf(TILT_ACROSS)),
})
export type Bike = Plain<typeof bikeSchema>
export const bikeRef = refTo<typeof bikeSchema>('bike')

/** The axes this type has, in reading order: the hand's own where the type names one. */
export function axesOf({ axes, order = [] }: BikeType): AxisName[] {
  return [...order, ...AXES.filter((axis) => !order.includes(axis))].filter((axis) => axes[axis])
}

/** Pedal axle to the surface under the shoe, mm, on the side ridden; the type's usual side by default. */
export const pedalSurfaceMm = (bikeType: BikeType, side?: PedalSide): number =>
  (side && bikeType.pedalSurfacesMm?.[side]) ?? bikeType.pedalSurfaceMm

/** An axis of this type, or undefined where the type lacks it. */
export const axisOf = (bikeType: BikeType, axis: AxisName): Axis | undefined => bikeType.axes[axis]

/**
 * Crank angle at which the pedal is farthest from the saddle, taken in line with the seat post:
 * c = 180 − (90 − postAngle). Example: a post leaning back by 17° (direction 107) → 163.
 */
export const bottomCrankDeg = (bikeType: BikeType): number => 270 - bikeType.axes.seatHeight.directionDeg
