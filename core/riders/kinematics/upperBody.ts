import type { Point } from '../../base/conventions'
import { columnOf, type Columns } from '../../base/columns'
import { acosDeg, degrees, radians, spanMm, unitVector } from '../../base/geometry'
import { FOREARM_TO_GRIP_FRACTION, FRACTION_OF_STATURE as F } from '../rider/anthropometry'
import type { Bodies } from '../rider/prior'
import { squaredAtFlexion, type Legs } from './leg'
import { pedalAt } from './pose'

/**
 * Trunks and arms of many riders, a column per quantity, with what does not depend on the bars worked out once. The hip
 * joint lies where the legs have it. Frame and units: conventions.
 */
export type UpperBodies = Columns<
  | 'trunkMm'
  /** Shoulder to grip centre with this rider's own soft elbow. */
  | 'softArmMm'
  /** Elbow's tip to fingertips, hand stretched. */
  | 'fingertipMm'
  /** The trunk's angle this rider is easy with. */
  | 'trunkComfortDeg'
> &
  Readonly<{ count: number; legs: Legs }>

export function prepareUpperBodies(bodies: Bodies, legs: Legs): UpperBodies {
  const { count, trunkMm, upperArmMm, forearmToGripMm, elbowFlexionDeg, trunkComfortDeg } = bodies
  return {
    count,
    legs,
    trunkMm,
    trunkComfortDeg,
    softArmMm: columnOf(count, (i) => spanMm(upperArmMm[i], forearmToGripMm[i], elbowFlexionDeg[i])),
    fingertipMm: columnOf(count, (i) => ((F.forearm + F.hand) / FOREARM_TO_GRIP_FRACTION) * forearmToGripMm[i]),
  }
}

/**
 * What arm or trunk lacks counts as so many degrees of trunk per millimetre: a smooth substitute, about the true slope.
 */
const DEG_PER_MISSING_MM = 0.1

/**
 * Trunk above level with soft elbows on the grip, degrees. Where the arms do not reach, the line from hip to grip, and
 * lower by the millimetres missing; where they are too long to fold, upright.
 */
export function trunkAngleDeg({ legs, trunkMm, softArmMm }: UpperBodies, seat: Point, grip: Point, i: number): number {
  const dx = grip.xMm - seat.xMm - legs.hipAheadMm[i]
  const dy = grip.yMm - seat.yMm - legs.hipAboveSeatMm[i]
  const gap = Math.sqrt(dx * dx + dy * dy)
  const trunk = trunkMm[i]
  const arm = softArmMm[i]
  const toGripDeg = degrees(Math.atan2(dy, dx))
  if (gap > trunk + arm) return toGripDeg - DEG_PER_MISSING_MM * (gap - trunk - arm)
  return toGripDeg + acosDeg((trunk * trunk + gap * gap - arm * arm) / (2 * trunk * gap))
}

/**
 * Share of riders, by weight, whose trunk's angle lies in a window, ends included, for any seat and grip: no
 * trigonometry but once a body.
 */
export function trunkShare(
  { legs, trunkMm, softArmMm, count }: UpperBodies,
  [lowDeg, highDeg]: readonly [number, number],
  weights: Float64Array,
): (seat: Point, grip: Point) => number {
  const shoulder = (deg: number) => {
    const u = unitVector(deg)
    return {
      x: columnOf(count, (i) => legs.hipAheadMm[i] + u.x * trunkMm[i]),
      y: columnOf(count, (i) => legs.hipAboveSeatMm[i] + u.y * trunkMm[i]),
    }
  }
  const [low, high] = [shoulder(lowDeg), shoulder(highDeg)]
  return (seat, grip) => {
    const [x, y] = [grip.xMm - seat.xMm, grip.yMm - seat.yMm]
    let share = 0
    for (let i = 0; i < count; i++) {
      const arm = softArmMm[i] * softArmMm[i]
      // The steeper the trunk, the farther the shoulder is from the grip.
      const lx = x - low.x[i]
      const ly = y - low.y[i]
      if (lx * lx + ly * ly > arm) continue
      const hx = x - high.x[i]
      const hy = y - high.y[i]
      if (hx * hx + hy * hy >= arm) share += weights[i]
    }
    return Math.min(1, share)
  }
}

/** Share of riders, by weight, whose forearm gap lies in a window, ends included. */
export function forearmShare(
  { legs, fingertipMm, count }: UpperBodies,
  [low, high]: readonly [number, number],
  weights: Float64Array,
): (nose: Point, grip: Point) => number {
  const { hipAheadMm } = legs
  // A bar that is only raised needs the same value again.
  const cache = new Map<number, number>()
  return (nose, grip) => {
    const x = grip.xMm - nose.xMm
    const before = cache.get(x)
    if (before !== undefined) return before
    let share = 0
    for (let i = 0; i < count; i++) {
      const gap = x - hipAheadMm[i] - fingertipMm[i]
      if (gap >= low && gap <= high) share += weights[i]
    }
    cache.set(x, Math.min(1, share))
    return Math.min(1, share)
  }
}

/**
 * How much farther the grip is than the soft arm reaches from the trunk this rider is easy with, mm; plus = stretched.
 */
export function reachExcessMm(upper: UpperBodies, seat: Point, grip: Point, i: number): number {
  const angle = radians(upper.trunkComfortDeg[i])
  const dx = grip.xMm - seat.xMm - upper.legs.hipAheadMm[i] - Math.cos(angle) * upper.trunkMm[i]
  const dy = grip.yMm - seat.yMm - upper.legs.hipAboveSeatMm[i] - Math.sin(angle) * upper.trunkMm[i]
  return Math.sqrt(dx * dx + dy * dy) - upper.softArmMm[i]
}

/** Fingertips short of the grip with the elbow at the saddle's nose, mm; minus = over it. */
export const forearmGapMm = ({ legs, fingertipMm }: UpperBodies, nose: Point, grip: Point, i: number): number =>
  grip.xMm - nose.xMm - legs.hipAheadMm[i] - fingertipMm[i]

/** A pedal at the crank angles at which a standing knee comes nearest to the bars, for a crank of 1 mm. */
const KNEE_UP = [30, 60, 90].map((deg) => pedalAt(1, deg))
/** Knee of the lower leg, degrees. Assumption. */
const STANDING_FLEXION_DEG = 25
/** Half a hand on the bar and a little air: nearer than this a knee touches, mm; ours. */
const TOUCHES_MM = 60

/**
 * Room between knee and grip when standing with the hips over the saddle's front third, mm, at the crank angle where it
 * is least; minus = they touch. `noseAheadMm` is the saddle's.
 */
export function standingClearanceMm(
  { legs }: UpperBodies,
  seat: Point,
  grip: Point,
  noseAheadMm: number,
  i: number,
): number {
  const hipX = seat.xMm + legs.hipAheadMm[i] + (2 / 3) * noseAheadMm
  const across = hipX - legs.bottomAnkleXMm[i]
  const hipY =
    legs.bottomAnkleYMm[i] + Math.sqrt(Math.max(0, squaredAtFlexion(legs, STANDING_FLEXION_DEG, i) - across * across))
  const thigh = legs.thighMm[i]
  const shank = legs.shankMm[i]
  let room = Infinity
  for (const pedal of KNEE_UP) {
    const ankleX = legs.forwardPedalXMm * pedal.xMm + legs.forwardAnkleXMm[i] - legs.forwardPedalXMm
    const dx = ankleX - hipX
    const dy = legs.forwardPedalXMm * pedal.yMm + legs.forwardAnkleYMm[i] - hipY
    const gap = Math.sqrt(dx * dx + dy * dy)
    const along = Math.min(thigh, (gap * gap + thigh * thigh - shank * shank) / (2 * gap))
    const out = Math.sqrt(Math.max(0, thigh * thigh - along * along))
    const kneeX = hipX + (along * dx - out * dy) / gap + legs.patellaAheadMm[i]
    const kneeY = hipY + (along * dy + out * dx) / gap
    room = Math.min(room, Math.hypot(grip.xMm - kneeX, grip.yMm - kneeY))
  }
  return room - TOUCHES_MM
}

/** A measure of every upper body with saddle and bars as set, as a column. */
export const eachUpperBody = (
  upper: UpperBodies,
  from: Point,
  grip: Point,
  measure: (upper: UpperBodies, from: Point, grip: Point, i: number) => number,
): Float64Array => columnOf(upper.count, (i) => measure(upper, from, grip, i))
