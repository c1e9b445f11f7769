import { axesOf, axisOf, type Bike, type BikeType } from '../bike/bike'
import { GRIP_AXES, SEAT_AXES, type AxisName } from '../../base/adjustments'
import { degrees, unitVector, radians } from '../../base/geometry'
import { scaledBy } from '../scale/scale'
import { measuredAxesOf, type LengthName } from './readings'

/**
 * What a tape can find out about a type, as one vector: the two origins (seat x, y, grip x, y; mm), then per axis its
 * direction (degrees) and one factor on the guess's millimetres. The nose stays as guessed: only setback sees it, and
 * setback cannot separate it from the seat's own x.
 */
export type Parameters = Float64Array

const SEAT_X = 0
const GRIP_X = 2
/** Where the factor on an axis' millimetres stands in the vector. */
export const factorIndex = (axes: readonly AxisName[], name: AxisName): number => firstOf(axes, name) + 1

const firstOf = (axes: readonly AxisName[], name: AxisName): number => 4 + 2 * axes.indexOf(name)

/** Standard deviation of a careful guess of a type: origins mm, directions degrees, factors. Assumption. */
const GUESS_SD = Object.freeze({ originMm: 25, directionDeg: 3, factor: 0.05 })

/**
 * Standard deviations of seat height and slide on a type that nobody measured, mm: those of a careful guess of its
 * origins.
 */
export const UNMEASURED_SD_MM = Object.freeze({ seatHeight: GUESS_SD.originMm, seatSlide: GUESS_SD.originMm })

/** The same on the axes that a type has. */
export const unmeasuredSdMm = ({ axes }: BikeType): NonNullable<Bike['sdMm']> =>
  axes.seatSlide ? UNMEASURED_SD_MM : { seatHeight: UNMEASURED_SD_MM.seatHeight }

/** True for a machine as unsure as its guessed type. */
export const isUnmeasured = ({ sdMm }: Bike): boolean => (sdMm?.seatHeight ?? 0) >= UNMEASURED_SD_MM.seatHeight

export function initialParameters(bikeType: BikeType): Parameters {
  const { seatOrigin, gripOrigin } = bikeType
  return Float64Array.from([
    seatOrigin.xMm,
    seatOrigin.yMm,
    gripOrigin.xMm,
    gripOrigin.yMm,
    ...measuredAxesOf(bikeType).flatMap((name) => [axisOf(bikeType, name)!.directionDeg, 1]),
  ])
}

/** One over the guess's variance, per parameter. */
export function priorWeights(bikeType: BikeType): Float64Array {
  const { originMm, directionDeg, factor } = GUESS_SD
  const spreads = [
    originMm,
    originMm,
    originMm,
    originMm,
    ...measuredAxesOf(bikeType).flatMap(() => [directionDeg, factor]),
  ]
  return Float64Array.from(spreads, (sd) => 1 / (sd * sd))
}

/** A part of the guess that the tape put farther off than a careful guess strays: signed, tape minus guess. */
export type PriorOutlier =
  | Readonly<{ code: 'origin'; point: 'saddle' | 'grip'; xMm: number; yMm: number }>
  | Readonly<{ code: 'direction'; axis: AxisName; deg: number }>
  /** The marks' spacing came out as this share more (plus) or less. */
  | Readonly<{ code: 'spacing'; axis: AxisName; share: number }>

/**
 * Beyond this many standard deviations of the guess, a misplaced tape is likelier than such a part.
 */
const STRAY_SDS = 3

/** The parts that lie farther from the guess than a careful one strays. */
export function farFromPrior(bikeType: BikeType, p: Parameters): PriorOutlier[] {
  const guess = initialParameters(bikeType)
  const axes = measuredAxesOf(bikeType)
  const far = (by: number, sd: number) => Math.abs(by) > STRAY_SDS * sd
  const origins = (
    [
      ['saddle', SEAT_X],
      ['grip', GRIP_X],
    ] as const
  ).map(([point, x]) => ({ code: 'origin' as const, point, xMm: p[x] - guess[x], yMm: p[x + 1] - guess[x + 1] }))
  const directions = axes.map((axis) => ({
    code: 'direction' as const,
    axis,
    deg: normalizedDeg(p[firstOf(axes, axis)] - guess[firstOf(axes, axis)]),
  }))
  const spacings = axes.map((axis) => ({ code: 'spacing' as const, axis, share: p[firstOf(axes, axis) + 1] - 1 }))
  return [
    ...origins.filter(({ xMm, yMm }) => far(xMm, GUESS_SD.originMm) || far(yMm, GUESS_SD.originMm)),
    ...directions.filter(({ deg }) => far(deg, GUESS_SD.directionDeg)),
    ...spacings.filter(({ share }) => far(share, GUESS_SD.factor)),
  ]
}

/** A length at a setting and how it changes with each parameter (a row of the Jacobian). */
export type LengthGradient = Readonly<{ mm: number; by: readonly number[] }>

/** `positions` are the guess's millimetres along each axis; an axis left out is at 0. */
export function lengthAt(
  bikeType: BikeType,
  p: Parameters,
  positions: Readonly<Partial<Record<AxisName, number>>>,
  length: LengthName,
): LengthGradient {
  const axes = measuredAxesOf(bikeType)
  const seat = pointAt(axes, p, positions, SEAT_X, SEAT_AXES)
  if (length === 'setbackMm') return { mm: -(seat.x + bikeType.saddle.noseAheadMm), by: seat.byX.map((v) => -v) }
  if (length === 'saddleHeightMm') {
    const mm = Math.hypot(seat.x, seat.y)
    return { mm, by: seat.byX.map((v, i) => (seat.x * v + seat.y * seat.byY[i]) / mm) }
  }
  const grip = pointAt(axes, p, positions, GRIP_X, GRIP_AXES)
  if (length === 'stackMm') return { mm: grip.y, by: grip.byY }
  return { mm: grip.x - seat.x, by: grip.byX.map((v, i) => v - seat.byX[i]) }
}

function pointAt(
  axes: readonly AxisName[],
  p: Parameters,
  positions: Readonly<Partial<Record<AxisName, number>>>,
  origin: number,
  own: readonly AxisName[],
) {
  // Plain arrays: typed ones take longer to make than all of this to compute.
  const byX = new Array<number>(p.length).fill(0)
  const byY = new Array<number>(p.length).fill(0)
  byX[origin] = 1
  byY[origin + 1] = 1
  let x = p[origin]
  let y = p[origin + 1]
  for (const name of own) {
    const at = positions[name] ?? 0
    if (!axes.includes(name) || at === 0) continue
    const i = firstOf(axes, name)
    const u = unitVector(p[i])
    const mm = p[i + 1] * at
    x += u.x * mm
    y += u.y * mm
    byX[i] = -u.y * radians(mm)
    byY[i] = u.x * radians(mm)
    byX[i + 1] = u.x * at
    byY[i + 1] = u.y * at
  }
  return { x, y, byX, byY }
}

/** The guess with the parameters put in: labels stay, millimetres, directions and origins follow the tape. */
export function typeWith(bikeType: BikeType, p: Parameters): BikeType {
  const axes = measuredAxesOf(bikeType)
  const fitted = Object.fromEntries(
    axes.map((name) => {
      const i = firstOf(axes, name)
      const axis = axisOf(bikeType, name)!
      const scale = scaledBy(axis.scale, p[i + 1])
      return [
        name,
        {
          directionDeg: normalizedDeg(p[i]),
          scale,
          ...(axis.name && { name: axis.name }),
          ...(axis.riderOn && { riderOn: true }),
        },
      ]
    }),
  ) as BikeType['axes']
  // Cranks and tilt, which no tape sees, stay as they were described.
  const unseen = Object.fromEntries(
    axesOf(bikeType).flatMap((name) => (axes.includes(name) ? [] : [[name, axisOf(bikeType, name)!]])),
  )
  return {
    ...bikeType,
    seatOrigin: { xMm: p[SEAT_X], yMm: p[SEAT_X + 1] },
    gripOrigin: { xMm: p[GRIP_X], yMm: p[GRIP_X + 1] },
    axes: { ...fitted, ...unseen },
  }
}

/** The same direction within −180…180°. */
const normalizedDeg = (deg: number): number => degrees(Math.atan2(Math.sin(radians(deg)), Math.cos(radians(deg))))
