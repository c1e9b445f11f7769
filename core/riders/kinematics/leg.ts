import type { Point } from '../../base/conventions'
import { acosDeg, degrees, radians, spanMm } from '../../base/geometry'
import { columnOf, type Columns } from '../../base/columns'
import { columnsOf, type Bodies, type Body } from '../rider/prior'
import { pedalToAnkle, pedalAt } from './pose'

/**
 * Legs on one type of bike, a column per quantity, with everything worked out that does not depend on where the saddle
 * is: computed once for a whole grid of marks. Frame and units: conventions.
 */
export type Legs = Columns<
  | 'thighMm'
  | 'shankMm'
  /** Hip joint ahead of the seat point as marked, and above it. */
  | 'hipAheadMm'
  | 'hipAboveSeatMm'
  | 'patellaAheadMm'
  | 'bottomAnkleXMm'
  | 'bottomAnkleYMm'
  | 'forwardAnkleXMm'
  | 'forwardAnkleYMm'
  /** Hip joint to pedal axle with the heel on the pedal and the leg straight: the pedal swivels to face the leg. */
  | 'straightMm'
> &
  Readonly<{ count: number; bottomPedal: Point; forwardPedalXMm: number }>

/**
 * `bottomDeg` is the crank angle of the knee check (`bottomCrankDeg`). `shift` is the true offset of each saddle from
 * its marks, mm.
 */
export function prepareLegs(
  bodies: Bodies,
  soleMm: number,
  bike: Readonly<{ crankMm: number; pedalSurfaceMm: number }>,
  bottomDeg: number,
  shift?: Columns<'xMm' | 'yMm'>,
): Legs {
  const { count, thighMm, shankMm, patellaAheadMm } = bodies
  const bottomPedal = pedalAt(bike.crankMm, bottomDeg)
  const empty = () => new Float64Array(count)
  const [bottomAnkleXMm, bottomAnkleYMm, forwardAnkleXMm, forwardAnkleYMm] = [empty(), empty(), empty(), empty()]
  const [hipAheadMm, hipAboveSeatMm, straightMm] = [empty(), empty(), empty()]
  for (let i = 0; i < count; i++) {
    const aboveMm = bodies.ankleHeightMm[i] + soleMm + bike.pedalSurfaceMm
    const bottomFoot = pedalToAnkle(bodies.ankleToBallMm[i], aboveMm, bodies.bottomPitchDeg[i])
    const forwardFoot = pedalToAnkle(bodies.ankleToBallMm[i], aboveMm, bodies.forwardPitchDeg[i])
    hipAheadMm[i] = shift ? shift.xMm[i] : 0
    hipAboveSeatMm[i] = bodies.hipAboveSeatMm[i] + (shift ? shift.yMm[i] : 0)
    bottomAnkleXMm[i] = bottomPedal.xMm + bottomFoot.xMm
    bottomAnkleYMm[i] = bottomPedal.yMm + bottomFoot.yMm
    forwardAnkleXMm[i] = bike.crankMm + forwardFoot.xMm
    forwardAnkleYMm[i] = forwardFoot.yMm
    straightMm[i] = thighMm[i] + shankMm[i] + aboveMm
  }
  return {
    count,
    bottomPedal,
    forwardPedalXMm: bike.crankMm,
    thighMm,
    shankMm,
    patellaAheadMm,
    hipAheadMm,
    hipAboveSeatMm,
    bottomAnkleXMm,
    bottomAnkleYMm,
    forwardAnkleXMm,
    forwardAnkleYMm,
    straightMm,
  }
}

/** The leg of one body: columns of length 1. */
export const prepareLeg = (
  body: Body,
  soleMm: number,
  bike: Parameters<typeof prepareLegs>[2],
  bottomDeg: number,
): Legs => prepareLegs(columnsOf(body), soleMm, bike, bottomDeg)

/** Squared distance hip → ankle at the bottom of leg `i`, mm². */
export function hipToAnkleSquared(legs: Legs, seat: Point, i = 0): number {
  const dx = seat.xMm + legs.hipAheadMm[i] - legs.bottomAnkleXMm[i]
  const dy = seat.yMm + legs.hipAboveSeatMm[i] - legs.bottomAnkleYMm[i]
  return dx * dx + dy * dy
}

/** Squared hip → ankle distance at which the knee of leg `i` is flexed by `deg`. */
export function squaredAtFlexion(legs: Legs, deg: number, i = 0): number {
  const span = spanMm(legs.thighMm[i], legs.shankMm[i], deg)
  return span * span
}

/**
 * Knee flexion at the bottom, degrees. Where the leg does not reach, it goes on below zero, a degree for every
 * 2 mm missing: a smooth substitute that reads as "far too high" in every comparison.
 */
export function bottomFlexionDeg(legs: Legs, seat: Point, i = 0): number {
  const squared = hipToAnkleSquared(legs, seat, i)
  const thigh = legs.thighMm[i]
  const shank = legs.shankMm[i]
  const straightMm = thigh + shank
  if (squared >= straightMm * straightMm) return -(Math.sqrt(squared) - straightMm) / 2
  return acosDeg((squared - thigh * thigh - shank * shank) / (2 * thigh * shank))
}

/** How much farther the hip is from the pedal's surface than the straight leg is long; plus = the heel cannot reach. */
export function heelReachDeficitMm(legs: Legs, seat: Point, i = 0): number {
  const dx = seat.xMm + legs.hipAheadMm[i] - legs.bottomPedal.xMm
  const dy = seat.yMm + legs.hipAboveSeatMm[i] - legs.bottomPedal.yMm
  return Math.sqrt(dx * dx + dy * dy) - legs.straightMm[i]
}

/**
 * Knee flexion with the heel on the pedal at its farthest, degrees: the pedal swivels to face the leg, and shank, foot
 * and sole are one line. Below zero as `bottomFlexionDeg`.
 */
export function heelFlexionDeg(legs: Legs, seat: Point, i = 0): number {
  const deficitMm = heelReachDeficitMm(legs, seat, i)
  if (deficitMm >= 0) return -deficitMm / 2
  const thigh = legs.thighMm[i]
  const lower = legs.straightMm[i] - thigh
  const gap = legs.straightMm[i] + deficitMm
  return acosDeg((gap * gap - thigh * thigh - lower * lower) / (2 * thigh * lower))
}

/** Plumb offset with the cranks level, mm; where the leg does not reach, that of the leg stretched out. */
export function kneeOverPedalMm(legs: Legs, seat: Point, i = 0): number {
  const hipX = seat.xMm + legs.hipAheadMm[i]
  const hipY = seat.yMm + legs.hipAboveSeatMm[i]
  const thigh = legs.thighMm[i]
  const shank = legs.shankMm[i]
  const dx = legs.forwardAnkleXMm[i] - hipX
  const dy = legs.forwardAnkleYMm[i] - hipY
  const gap = Math.sqrt(dx * dx + dy * dy)
  const along = Math.min(thigh, (gap * gap + thigh * thigh - shank * shank) / (2 * gap))
  const across = Math.sqrt(Math.max(0, thigh * thigh - along * along))
  return hipX + (along * dx - across * dy) / gap + legs.patellaAheadMm[i] - legs.forwardPedalXMm
}

/** A measure of every leg with the saddle at `seat`, as a column. */
export const eachLeg = (
  legs: Legs,
  seat: Point,
  measure: (legs: Legs, seat: Point, i: number) => number,
): Float64Array => columnOf(legs.count, (i) => measure(legs, seat, i))

/** Squared hip–ankle distances between which each leg's knee lies in its window. */
export type KneeLimits = Columns<'nearest' | 'farthest'>

/** Shares of riders, by weight, whose knee is right with the saddle at `seat`, or too straight. */
export function kneeShares(
  legs: Legs,
  seat: Point,
  { nearest, farthest }: KneeLimits,
  weights: Float64Array,
): Readonly<{ right: number; straight: number }> {
  const { hipAheadMm, hipAboveSeatMm, bottomAnkleXMm, bottomAnkleYMm } = legs
  let [right, straight] = [0, 0]
  for (let i = 0; i < weights.length; i++) {
    const dx = seat.xMm + hipAheadMm[i] - bottomAnkleXMm[i]
    const dy = seat.yMm + hipAboveSeatMm[i] - bottomAnkleYMm[i]
    const squared = dx * dx + dy * dy
    if (squared > farthest[i]) straight += weights[i]
    else if (squared >= nearest[i]) right += weights[i]
  }
  return { right, straight }
}

/** Shares of riders, by weight, whose knee hangs within a window with the saddle at `seat`, and farther ahead of it. */
export function plumbShares(
  legs: Legs,
  seat: Point,
  [least, most]: readonly [number, number],
  weights: Float64Array,
): Readonly<{ right: number; ahead: number }> {
  let [right, ahead] = [0, 0]
  for (let i = 0; i < weights.length; i++) {
    const mm = kneeOverPedalMm(legs, seat, i)
    if (mm > most) ahead += weights[i]
    else if (mm >= least) right += weights[i]
  }
  return { right, ahead }
}

/** Share of riders, by weight, for whom knee and plumb offset both lie in their windows with the saddle at `seat`. */
export function kneeAndPlumbShare(
  legs: Legs,
  seat: Point,
  { nearest, farthest }: KneeLimits,
  [least, most]: readonly [number, number],
  weights: Float64Array,
): number {
  const { hipAheadMm, hipAboveSeatMm, bottomAnkleXMm, bottomAnkleYMm, forwardAnkleXMm, forwardAnkleYMm } = legs
  const { thighMm, shankMm, patellaAheadMm, forwardPedalXMm } = legs
  let share = 0
  for (let i = 0; i < weights.length; i++) {
    const hipX = seat.xMm + hipAheadMm[i]
    const hipY = seat.yMm + hipAboveSeatMm[i]
    const bx = hipX - bottomAnkleXMm[i]
    const by = hipY - bottomAnkleYMm[i]
    const squared = bx * bx + by * by
    if (squared > farthest[i] || squared < nearest[i]) continue
    const thigh = thighMm[i]
    const shank = shankMm[i]
    const dx = forwardAnkleXMm[i] - hipX
    const dy = forwardAnkleYMm[i] - hipY
    const gap = Math.sqrt(dx * dx + dy * dy)
    const along = Math.min(thigh, (gap * gap + thigh * thigh - shank * shank) / (2 * gap))
    const across = Math.sqrt(Math.max(0, thigh * thigh - along * along))
    const plumb = hipX + (along * dx - across * dy) / gap + patellaAheadMm[i] - forwardPedalXMm
    if (plumb >= least && plumb <= most) share += weights[i]
  }
  return share
}

/** The same rider by rider, of those at `index`: 1 where both checks pass. */
export function kneeAndPlumbWithin(
  legs: Legs,
  seat: Point,
  limits: KneeLimits,
  window: readonly [number, number],
  index: Int32Array,
): Uint8Array {
  const within = new Uint8Array(index.length)
  for (let k = 0; k < index.length; k++) {
    const i = index[k]
    const squared = hipToAnkleSquared(legs, seat, i)
    if (squared > limits.farthest[i] || squared < limits.nearest[i]) continue
    const plumb = kneeOverPedalMm(legs, seat, i)
    if (plumb >= window[0] && plumb <= window[1]) within[k] = 1
  }
  return within
}

/** Knee flexion at which a leg difference is turned into degrees: the middle of the usual window. */
const USUAL_FLEXION_RAD = radians(30)

/**
 * How many degrees less the knee of a leg bends that is shorter by `mm`, both hips and both feet being level. By the
 * law of cosines, D² = a² + b² + 2ab·cos θ, so dθ = dD · D / (ab·sin θ): 8 mm → about 4° for an adult.
 */
export function shorterLegDeg(mm: number, thighMm: number, shankMm: number): number {
  const product = thighMm * shankMm
  const spanMm = Math.sqrt(thighMm ** 2 + shankMm ** 2 + 2 * product * Math.cos(USUAL_FLEXION_RAD))
  return degrees((mm * spanMm) / (product * Math.sin(USUAL_FLEXION_RAD)))
}
