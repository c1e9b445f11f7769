import type { Posterior } from '../inference/posterior'
import { medianOf, momentsOf, type Moments } from '../inference/moments'
import type { Point } from '../conventions'
import { HEEL_JUST_STRAIGHT_MM } from '../measurementNoise'
import { columnOf } from '../columns'
import {
  bottomFlexionDeg,
  eachLeg,
  heelReachDeficitMm,
  hipToAnkleSquared,
  kneeOverPedalMm,
  squaredAtFlexion,
} from '../kinematics/leg'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../school/school'

/**
 * The saddle's two checks against the school's windows, for any seat point.
 * Knee limits are turned into hip–ankle distances once per sample, so a grid of marks needs no trigonometry.
 */
export type TargetProbabilities = Readonly<{
  kneeChance: (seat: Point) => number
  plumbChance: (seat: Point) => number
  bothChance: (seat: Point) => number
  /** Whether both checks hold for one particle. */
  bothHold: (i: number, seat: Point) => boolean
  /** Share of riders for whom the seat is still too low (or too high) here. */
  tooLowChance: (seat: Point) => number
  tooHighChance: (seat: Point) => number
  /** Share of riders whose knee hangs too far ahead of (or behind) the pedal here. */
  tooFarAheadChance: (seat: Point) => number
  tooFarBehindChance: (seat: Point) => number
  knee: (seat: Point) => Moments
  plumb: (seat: Point) => Moments
  /** What the two checks are expected to read: medians, since a leg that does not reach has a long tail. */
  kneeMedian: (seat: Point) => number
  plumbMedian: (seat: Point) => number
}>

/** `bothSides`: the knee was read left and right, so that both must lie in the window. */
export function targetProbabilities(posterior: Posterior, school: School, bothSides = false): TargetProbabilities {
  const { particles: samples, weights } = posterior
  const { legs, sideDeg, count } = samples
  const [least, most] = school.kneeWindowDeg
  const asideDeg = (i: number) => (bothSides ? Math.abs(sideDeg[i]) : 0)
  const farthest = columnOf(count, (i) => squaredAtFlexion(legs, least + asideDeg(i), i))
  const nearest = columnOf(count, (i) => squaredAtFlexion(legs, most - asideDeg(i), i))
  const plumbWindow = PLUMB_WINDOW_MM[school.foreAft]

  const angleInRange = (i: number, seat: Point) => {
    const squared = hipToAnkleSquared(legs, seat, i)
    return squared >= nearest[i] && squared <= farthest[i]
  }
  const heelGap = (i: number, seat: Point) => heelReachDeficitMm(legs, seat, i)
  const kneeInRange = (i: number, seat: Point) => {
    if (school.heelCheck === 'target') return Math.abs(heelGap(i, seat)) <= HEEL_JUST_STRAIGHT_MM
    return angleInRange(i, seat) && (school.heelCheck !== 'ceiling' || heelGap(i, seat) <= HEEL_JUST_STRAIGHT_MM)
  }
  const plumbAt = (i: number, seat: Point) => kneeOverPedalMm(legs, seat, i)
  const plumbInRange = (i: number, seat: Point) =>
    school.foreAft === 'unused' || inWindow(plumbAt(i, seat), plumbWindow)
  const share = (holds: (i: number) => boolean) => {
    let sum = 0
    for (let i = 0; i < weights.length; i++) if (holds(i)) sum += weights[i]
    return Math.min(1, sum)
  }
  const tooHigh = (i: number, seat: Point) => {
    const straight = hipToAnkleSquared(legs, seat, i) > farthest[i]
    if (school.heelCheck !== 'target' && school.heelCheck !== 'ceiling') return straight
    return heelGap(i, seat) > HEEL_JUST_STRAIGHT_MM || (school.heelCheck === 'ceiling' && straight)
  }

  return {
    kneeChance: memoized((seat) => share((i) => kneeInRange(i, seat))),
    plumbChance: (seat) => share((i) => plumbInRange(i, seat)),
    bothChance: memoized((seat) => share((i) => kneeInRange(i, seat) && plumbInRange(i, seat))),
    bothHold: (i, seat) => kneeInRange(i, seat) && plumbInRange(i, seat),
    tooHighChance: (seat) => share((i) => tooHigh(i, seat)),
    tooLowChance: (seat) => share((i) => !kneeInRange(i, seat) && !tooHigh(i, seat)),
    tooFarAheadChance: (seat) => share((i) => plumbAt(i, seat) > plumbWindow[1]),
    tooFarBehindChance: (seat) => share((i) => plumbAt(i, seat) < plumbWindow[0]),
    knee: (seat) => momentsOf(posterior, () => eachLeg(legs, seat, bottomFlexionDeg)),
    plumb: (seat) => momentsOf(posterior, () => eachLeg(legs, seat, kneeOverPedalMm)),
    kneeMedian: (seat) => medianOf(posterior, () => eachLeg(legs, seat, bottomFlexionDeg)),
    plumbMedian: (seat) => medianOf(posterior, () => eachLeg(legs, seat, kneeOverPedalMm)),
  }
}

/** The same chance of the same seat is asked for by many; it is worked out once. */
function memoized(chance: (seat: Point) => number): (seat: Point) => number {
  const known = new Map<string, number>()
  return (seat) => {
    const key = `${seat.xMm} ${seat.yMm}`
    const found = known.get(key) ?? chance(seat)
    known.set(key, found)
    return found
  }
}
