import type { Posterior } from '../../../riders/inference/posterior'
import { medianOf, momentsOf, type Moments } from '../../../riders/inference/moments'
import type { Point } from '../../../base/conventions'
import { HEEL_JUST_STRAIGHT_MM } from '../../../base/measurementNoise'
import { columnOf } from '../../../base/columns'
import {
  bottomFlexionDeg,
  eachLeg,
  heelReachDeficitMm,
  hipToAnkleSquared,
  kneeAndPlumbWithin,
  kneeAndPlumbShare,
  kneeOverPedalMm,
  kneeShares,
  plumbShares,
  squaredAtFlexion,
  type KneeLimits,
} from '../../../riders/kinematics/leg'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../../../base/school/school'

/**
 * The saddle's two checks against the school's windows, for any seat point.
 * Knee limits are turned into hip–ankle distances once per sample, so a grid of marks needs no trigonometry.
 */
export type TargetProbabilities = Readonly<{
  kneeChance: (seat: Point) => number
  plumbChance: (seat: Point) => number
  bothChance: (seat: Point) => number
  /** Of the particles at `index`, 1 where both checks pass. */
  bothWithin: (seat: Point, index: Int32Array) => Uint8Array
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

/**
 * `bothSides`: the knee was read left and right, so that both must lie in the window. `wider`: degrees and millimetres
 * that both windows are opened by at each end.
 */
export function targetProbabilities(
  posterior: Posterior,
  school: School,
  bothSides = false,
  wider: Readonly<{ deg: number; mm: number }> = { deg: 0, mm: 0 },
): TargetProbabilities {
  const { particles: samples, weights } = posterior
  const { legs, sideDeg, count } = samples
  const [least, most] = [school.kneeWindowDeg[0] - wider.deg, school.kneeWindowDeg[1] + wider.deg]
  const asideDeg = (i: number) => (bothSides ? Math.abs(sideDeg[i]) : 0)
  const limits: KneeLimits = {
    farthest: columnOf(count, (i) => squaredAtFlexion(legs, least + asideDeg(i), i)),
    nearest: columnOf(count, (i) => squaredAtFlexion(legs, most - asideDeg(i), i)),
  }
  const [behind, ahead] = PLUMB_WINDOW_MM[school.foreAft]
  const plumbWindow = [behind - wider.mm, ahead + wider.mm] as const
  const byAngle = school.heelCheck !== 'target' && school.heelCheck !== 'ceiling'
  const anyPlumb = school.foreAft === 'unused'

  const heelGap = (i: number, seat: Point) => heelReachDeficitMm(legs, seat, i)
  const kneeInRange = (i: number, seat: Point) => {
    if (school.heelCheck === 'target') return Math.abs(heelGap(i, seat)) <= HEEL_JUST_STRAIGHT_MM
    const squared = hipToAnkleSquared(legs, seat, i)
    const angle = squared >= limits.nearest[i] && squared <= limits.farthest[i]
    return angle && (school.heelCheck !== 'ceiling' || heelGap(i, seat) <= HEEL_JUST_STRAIGHT_MM)
  }
  const plumbInRange = (i: number, seat: Point) => anyPlumb || inWindow(kneeOverPedalMm(legs, seat, i), plumbWindow)
  const share = (predicate: (i: number) => boolean) => {
    let sum = 0
    for (let i = 0; i < weights.length; i++) if (predicate(i)) sum += weights[i]
    return Math.min(1, sum)
  }
  const tooHigh = (i: number, seat: Point) => {
    const straight = hipToAnkleSquared(legs, seat, i) > limits.farthest[i]
    return heelGap(i, seat) > HEEL_JUST_STRAIGHT_MM || (school.heelCheck === 'ceiling' && straight)
  }
  /** Shares of riders for whom the seat is right, and too high, for the knee. */
  const knees = memoized((seat) =>
    byAngle
      ? kneeShares(legs, seat, limits, weights)
      : { right: share((i) => kneeInRange(i, seat)), straight: share((i) => tooHigh(i, seat)) },
  )
  const plumbs = memoized((seat) => plumbShares(legs, seat, plumbWindow, weights))
  const bothShare = (seat: Point) =>
    byAngle && !anyPlumb
      ? kneeAndPlumbShare(legs, seat, limits, plumbWindow, weights)
      : share((i) => kneeInRange(i, seat) && plumbInRange(i, seat))

  return {
    kneeChance: (seat) => Math.min(1, knees(seat).right),
    plumbChance: (seat) => (anyPlumb ? 1 : Math.min(1, plumbs(seat).right)),
    bothChance: memoized((seat) => Math.min(1, bothShare(seat))),
    bothWithin: (seat, index) =>
      byAngle && !anyPlumb
        ? kneeAndPlumbWithin(legs, seat, limits, plumbWindow, index)
        : Uint8Array.from(index, (i) => (kneeInRange(i, seat) && plumbInRange(i, seat) ? 1 : 0)),
    tooHighChance: (seat) => Math.min(1, knees(seat).straight),
    tooLowChance: (seat) => Math.max(0, 1 - knees(seat).right - knees(seat).straight),
    tooFarAheadChance: (seat) => Math.min(1, plumbs(seat).ahead),
    tooFarBehindChance: (seat) => Math.max(0, 1 - plumbs(seat).right - plumbs(seat).ahead),
    knee: memoized((seat) => momentsOf(posterior, () => eachLeg(legs, seat, bottomFlexionDeg))),
    plumb: memoized((seat) => momentsOf(posterior, () => eachLeg(legs, seat, kneeOverPedalMm))),
    kneeMedian: memoized((seat) => medianOf(posterior, () => eachLeg(legs, seat, bottomFlexionDeg))),
    plumbMedian: memoized((seat) => medianOf(posterior, () => eachLeg(legs, seat, kneeOverPedalMm))),
  }
}

/** Many callers need the same value of the same seat; it is computed once. */
function memoized<T>(worksOut: (seat: Point) => T): (seat: Point) => T {
  const cache = new Map<string, T>()
  return (seat) => {
    const key = `${seat.xMm} ${seat.yMm}`
    const found = cache.get(key) ?? worksOut(seat)
    cache.set(key, found)
    return found
  }
}
