import type { Point } from '../conventions'
import { acosDeg, spanMm } from '../geometry'
import type { Body } from '../rider/prior'
import { footVector, pedalAt } from './pose'

/**
 * One body's leg on one type of bike, with everything worked out that does not depend on where the saddle stands:
 * made once per sample, so that a whole grid of marks can be looked at. Frame and units: conventions.
 */
export type Leg = Readonly<{
  thighMm: number
  shankMm: number
  hipAboveSeatMm: number
  patellaAheadMm: number
  bottomAnkle: Point
  forwardAnkle: Point
  forwardPedalXMm: number
  bottomPedal: Point
  /** Hip joint to pedal axle with the heel on the pedal and the leg straight: the pedal swivels to face the leg. */
  straightMm: number
}>

/** `bottomDeg` is the crank angle of the knee check (`bottomCrankDeg`). */
export function legOn(
  body: Body,
  soleMm: number,
  bike: Readonly<{ crankMm: number; pedalSurfaceMm: number }>,
  bottomDeg: number,
): Leg {
  const aboveMm = body.ankleHeightMm + soleMm + bike.pedalSurfaceMm
  const bottomPedal = pedalAt(bike.crankMm, bottomDeg)
  const bottomFoot = footVector(body.ankleToBallMm, aboveMm, body.bottomPitchDeg)
  const forwardFoot = footVector(body.ankleToBallMm, aboveMm, body.forwardPitchDeg)
  return {
    thighMm: body.thighMm,
    shankMm: body.shankMm,
    hipAboveSeatMm: body.hipAboveSeatMm,
    patellaAheadMm: body.patellaAheadMm,
    bottomAnkle: { xMm: bottomPedal.xMm + bottomFoot.xMm, yMm: bottomPedal.yMm + bottomFoot.yMm },
    forwardAnkle: { xMm: bike.crankMm + forwardFoot.xMm, yMm: forwardFoot.yMm },
    forwardPedalXMm: bike.crankMm,
    bottomPedal,
    straightMm: body.thighMm + body.shankMm + aboveMm,
  }
}

/** Squared distance hip → ankle at the bottom, mm². */
export function hipToAnkleSquared(leg: Leg, seat: Point): number {
  const dx = seat.xMm - leg.bottomAnkle.xMm
  const dy = seat.yMm + leg.hipAboveSeatMm - leg.bottomAnkle.yMm
  return dx * dx + dy * dy
}

/** Squared hip → ankle distance at which the knee is flexed by `deg`. */
export function squaredAtFlexion(leg: Leg, deg: number): number {
  const span = spanMm(leg.thighMm, leg.shankMm, deg)
  return span * span
}

/**
 * Knee flexion at the bottom, degrees. Where the leg does not reach, it goes on below zero, a degree for every
 * 2 mm missing: a smooth stand-in that reads as "far too high" in every comparison.
 */
export function bottomFlexionDeg(leg: Leg, seat: Point): number {
  const squared = hipToAnkleSquared(leg, seat)
  const whole = leg.thighMm + leg.shankMm
  if (squared >= whole * whole) return -(Math.sqrt(squared) - whole) / 2
  return acosDeg((squared - leg.thighMm ** 2 - leg.shankMm ** 2) / (2 * leg.thighMm * leg.shankMm))
}

/** How much farther the hip is from the pedal's surface than the straight leg is long; plus = the heel cannot reach. */
export function heelGapMm(leg: Leg, seat: Point): number {
  const dx = seat.xMm - leg.bottomPedal.xMm
  const dy = seat.yMm + leg.hipAboveSeatMm - leg.bottomPedal.yMm
  return Math.sqrt(dx * dx + dy * dy) - leg.straightMm
}

/** Plumb offset with the cranks level, mm; where the leg does not reach, that of the leg stretched out. */
export function levelPlumbMm(leg: Leg, seat: Point): number {
  const hipX = seat.xMm
  const hipY = seat.yMm + leg.hipAboveSeatMm
  const dx = leg.forwardAnkle.xMm - hipX
  const dy = leg.forwardAnkle.yMm - hipY
  const gap = Math.sqrt(dx * dx + dy * dy)
  const along = Math.min(leg.thighMm, (gap * gap + leg.thighMm ** 2 - leg.shankMm ** 2) / (2 * gap))
  const across = Math.sqrt(Math.max(0, leg.thighMm ** 2 - along * along))
  return hipX + (along * dx - across * dy) / gap + leg.patellaAheadMm - leg.forwardPedalXMm
}
