import { bottomCrankDeg, pedalSurfaceMm, type Bike } from '../../../bikes/bike/bike'
import type { PlainType } from '../../../bikes/bike/standing'
import { contactPoints } from '../../../bikes/bike/contactPoints'
import { distanceMm } from '../../../base/geometry'
import { pedalAt } from '../../../riders/kinematics/pose'
import { FRACTION_OF_STATURE } from '../../../riders/rider/anthropometry'
import type { Body } from '../../../riders/rider/prior'
import { middlePosition, positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { START_LANDMARKS } from '../../../base/school/school'

/** A school's way to the first seat height. */
export type StartRule = (typeof START_LANDMARKS)[number]

/** What the rules are of: heights above the floor and inseam, barefoot, and the sole worn, mm. */
export type RuledBody = Readonly<
  Pick<Body, 'statureMm' | 'inseamMm' | 'trochanterHeightMm' | 'hipCrestHeightMm' | 'frontHipBoneHeightMm'> & {
    soleMm: number
  }
>

/**
 * The seat height each school's rule would set beside the bike, the slide at its middle: the mark nearest to the rule.
 * 0.883 × inseam from the crank axle; 1.09 × inseam from the pedal axle at its farthest (Hamley & Thomas 1967, from
 * memory); heel length from the pedal's surface at its farthest, which a shod inseam equals (common practice, no
 * source); a landmark level with the saddle's top.
 */
export function startRuleMarks(
  bikeType: PlainType,
  bike: Bike | undefined,
  body: RuledBody,
): Readonly<Record<StartRule, ScalePosition>> {
  const { seatHeight, seatSlide } = bikeType.axes
  const slideMm = middlePosition(seatSlide.scale).mm
  const farthest = pedalAt(bikeType.crankMm, bottomCrankDeg(bikeType))
  const { inseamMm, trochanterHeightMm: trochanter, hipCrestHeightMm: crest, soleMm } = body
  const heights = positionsOf(seatHeight.scale).map((position) => ({
    position,
    seat: contactPoints(bikeType, bike, { seatHeight: position.mm, seatSlide: slideMm }).seat,
  }))
  type Placed = (typeof heights)[number]
  const nearest = (missMm: (placed: Placed) => number): ScalePosition =>
    heights.reduce((a, b) => (Math.abs(missMm(b)) < Math.abs(missMm(a)) ? b : a)).position
  const level = (heightMm: number) => nearest(({ seat }) => seat.yMm + bikeType.axleHeightMm - heightMm - soleMm)
  const fromPedal = ({ seat }: Placed) => distanceMm(farthest, seat)
  return {
    hipCrest: level(crest),
    frontHipBone: level(body.frontHipBoneHeightMm),
    between: level((trochanter + crest) / 2),
    raisedThigh: level(trochanter + FRACTION_OF_STATURE.thighTopAboveHip * body.statureMm),
    halfThigh: level(trochanter),
    factor0883: nearest(({ seat }) => Math.hypot(seat.xMm, seat.yMm) - 0.883 * inseamMm),
    percent109: nearest((placed) => fromPedal(placed) - 1.09 * inseamMm),
    heelLength: nearest((placed) => fromPedal(placed) - pedalSurfaceMm(bikeType) - inseamMm - soleMm),
  }
}
