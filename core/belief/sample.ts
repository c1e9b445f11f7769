import type { Point } from '../conventions'
import { direction, shifted } from '../geometry'
import type { Leg } from '../linkage/leg'
import { legOn } from '../linkage/leg'
import { bottomCrankDeg, type Bike, type BikeType } from '../bike/bike'
import { SIDE_HALF_DIFFERENCE_SD_DEG } from '../evidence/readingSpreads'
import { bodyAt, PRIOR_PARTS, type Body, type PriorTable } from '../rider/prior'

/** One imagined rider on this bike; `shift` is how far this bike's saddle truly stands from where its marks say. */
export type Sample = Readonly<{
  body: Body
  leg: Leg
  shift: Point
  /** Half of left minus right knee flexion, degrees. */
  sideDeg: number
}>

/** The bike, the rider's sole and the spreads that samples are drawn from. */
export type Setting = Readonly<{ bikeType: BikeType; bike?: Bike; prior: PriorTable; soleMm: number }>

/** Standard scores a sample is made of: one per part of the prior, one per seat axis, and one for left against right. */
export const SCORES = PRIOR_PARTS.length + 3

/** The sample at a row of standard scores. */
export function sampleAt(setting: Setting, scores: ArrayLike<number>, from = 0): Sample {
  const { bikeType, bike, prior, soleMm } = setting
  const body = bodyAt(prior, scores, from)
  const heightMm = (bike?.sdMm?.seatHeight ?? 0) * scores[from + PRIOR_PARTS.length]
  const slideMm = (bike?.sdMm?.seatSlide ?? 0) * scores[from + PRIOR_PARTS.length + 1]
  const sideDeg = SIDE_HALF_DIFFERENCE_SD_DEG * scores[from + PRIOR_PARTS.length + 2]
  return { body, sideDeg, leg: legOn(body, soleMm, bikeType, bottomCrankDeg(bikeType)), shift: shiftBy(bikeType, heightMm, slideMm) }
}

const UNSHIFTED: Point = Object.freeze({ xMm: 0, yMm: 0 })

function shiftBy(bikeType: BikeType, heightMm: number, slideMm: number): Point {
  if (heightMm === 0 && slideMm === 0) return UNSHIFTED
  const up = direction(bikeType.axes.seatHeight.directionDeg)
  const along = direction(bikeType.axes.seatSlide.directionDeg)
  return { xMm: up.x * heightMm + along.x * slideMm, yMm: up.y * heightMm + along.y * slideMm }
}

/** The seat point as it truly is for this sample. */
export const trueSeat = ({ shift }: Sample, seat: Point): Point =>
  shift.xMm === 0 && shift.yMm === 0 ? seat : shifted(seat, shift.xMm, shift.yMm)
