import { columnOf, type Columns } from '../columns'
import { unitVector } from '../geometry'
import { prepareLegs, type Legs } from '../kinematics/leg'
import { bottomCrankDeg, type Bike, type BikeType } from '../bike/bike'
import { SIDE_HALF_DIFFERENCE_SD_DEG } from '../measurementNoise'
import { bodiesFromScores, PRIOR_PARTS, type Bodies, type PriorVector } from '../rider/prior'

/** Imagined riders on this bike, a column per quantity. */
export type Particles = Readonly<{
  count: number
  body: Bodies
  /** Their legs in the sole worn now. */
  legs: Legs
  /** Their legs in another sole, mm; worked out once per sole. */
  legsIn: (soleMm: number) => Legs
  /** How far this bike's saddle truly stands from where its marks say. */
  shift: Columns<'xMm' | 'yMm'>
  /** Half of left minus right knee flexion, degrees. */
  sideDeg: Float64Array
}>

/** The bike, the rider's sole and the spreads that samples are drawn from. */
export type ModelInputs = Readonly<{ bikeType: BikeType; bike?: Bike; prior: PriorVector; soleMm: number }>

/**
 * Standard scores a sample is made of: one per part of the prior, one per seat axis, and one for left against right.
 */
export const SCORE_COUNT = PRIOR_PARTS.length + 3

/** `count` samples from `SCORES` columns of standard scores. */
export function particlesFromScores(
  { bikeType, bike, prior, soleMm }: ModelInputs,
  scores: readonly ArrayLike<number>[],
  count: number,
): Particles {
  const [higher, farther, sideways] = scores.slice(PRIOR_PARTS.length)
  const body = bodiesFromScores(prior, scores, count)
  const up = unitVector(bikeType.axes.seatHeight.directionDeg)
  const along = unitVector(bikeType.axes.seatSlide.directionDeg)
  const heightSdMm = bike?.sdMm?.seatHeight ?? 0
  const slideSdMm = bike?.sdMm?.seatSlide ?? 0
  const shift = {
    xMm: columnOf(count, (i) => up.x * heightSdMm * higher[i] + along.x * slideSdMm * farther[i]),
    yMm: columnOf(count, (i) => up.y * heightSdMm * higher[i] + along.y * slideSdMm * farther[i]),
  }
  const sideDeg = columnOf(count, (i) => SIDE_HALF_DIFFERENCE_SD_DEG * sideways[i])
  const bySole = new Map<number, Legs>()
  const legsIn = (mm: number): Legs => {
    const known = bySole.get(mm) ?? prepareLegs(body, mm, bikeType, bottomCrankDeg(bikeType), shift)
    bySole.set(mm, known)
    return known
  }
  return { count, body, shift, sideDeg, legsIn, legs: legsIn(soleMm) }
}
