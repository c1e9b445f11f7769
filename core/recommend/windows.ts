import type { Belief } from '../belief/belief'
import { median, summary, type Summary } from '../belief/belief'
import { trueSeat, type Sample } from '../belief/sample'
import type { Point } from '../conventions'
import { HEEL_JUST_STRAIGHT_MM } from '../evidence/readingSpreads'
import { bottomFlexionDeg, heelGapMm, hipToAnkleSquared, levelPlumbMm, squaredAtFlexion } from '../linkage/leg'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../school/school'

/**
 * The saddle's two checks against the school's windows, for any seat point: whether sample i passes.
 * Knee limits are turned into hip–ankle distances once per sample, so a grid of marks needs no trigonometry.
 */
export type SaddleChecks = Readonly<{
  kneeHolds: (i: number, seat: Point) => boolean
  plumbHolds: (i: number, seat: Point) => boolean
  kneeChance: (seat: Point) => number
  plumbChance: (seat: Point) => number
  bothChance: (seat: Point) => number
  /** Share of riders for whom the seat is still too low (or too high) here. */
  tooLowChance: (seat: Point) => number
  tooHighChance: (seat: Point) => number
  /** Share of riders whose knee hangs too far ahead of (or behind) the pedal here. */
  tooFarAheadChance: (seat: Point) => number
  tooFarBehindChance: (seat: Point) => number
  knee: (seat: Point) => Summary
  plumb: (seat: Point) => Summary
  /** What the two checks are expected to read: medians, since a leg that does not reach has a long tail. */
  kneeMedian: (seat: Point) => number
  plumbMedian: (seat: Point) => number
}>

/** `bothSides`: the knee was read left and right, so that both must lie in the window. */
export function saddleChecks(belief: Belief, school: School, bothSides = false): SaddleChecks {
  const { samples, weights } = belief
  const [least, most] = school.kneeWindowDeg
  const aside = (s: Sample) => (bothSides ? Math.abs(s.sideDeg) : 0)
  const farthest = samples.map((s) => squaredAtFlexion(s.leg, least + aside(s)))
  const nearest = samples.map((s) => squaredAtFlexion(s.leg, most - aside(s)))
  const plumbWindow = PLUMB_WINDOW_MM[school.foreAft]

  const angleHolds = (i: number, seat: Point) => {
    const squared = hipToAnkleSquared(samples[i].leg, trueSeat(samples[i], seat))
    return squared >= nearest[i] && squared <= farthest[i]
  }
  const heelGap = (i: number, seat: Point) => heelGapMm(samples[i].leg, trueSeat(samples[i], seat))
  const kneeHolds = (i: number, seat: Point) => {
    if (school.heelCheck === 'target') return Math.abs(heelGap(i, seat)) <= HEEL_JUST_STRAIGHT_MM
    return angleHolds(i, seat) && (school.heelCheck !== 'ceiling' || heelGap(i, seat) <= HEEL_JUST_STRAIGHT_MM)
  }
  const plumbAt = (i: number, seat: Point) => levelPlumbMm(samples[i].leg, trueSeat(samples[i], seat))
  const plumbHolds = (i: number, seat: Point) => inWindow(plumbAt(i, seat), plumbWindow)
  const share = (holds: (i: number) => boolean) => {
    let sum = 0
    for (let i = 0; i < weights.length; i++) if (holds(i)) sum += weights[i]
    return Math.min(1, sum)
  }
  const tooHigh = (i: number, seat: Point) =>
    school.heelCheck === 'target' || school.heelCheck === 'ceiling'
      ? heelGap(i, seat) > HEEL_JUST_STRAIGHT_MM
      : hipToAnkleSquared(samples[i].leg, trueSeat(samples[i], seat)) > farthest[i]

  return {
    kneeHolds,
    plumbHolds,
    kneeChance: (seat) => share((i) => kneeHolds(i, seat)),
    plumbChance: (seat) => share((i) => plumbHolds(i, seat)),
    bothChance: (seat) => share((i) => kneeHolds(i, seat) && plumbHolds(i, seat)),
    tooHighChance: (seat) => share((i) => tooHigh(i, seat)),
    tooLowChance: (seat) => share((i) => !kneeHolds(i, seat) && !tooHigh(i, seat)),
    tooFarAheadChance: (seat) => share((i) => plumbAt(i, seat) > plumbWindow[1]),
    tooFarBehindChance: (seat) => share((i) => plumbAt(i, seat) < plumbWindow[0]),
    knee: (seat) => summary(belief, (s) => bottomFlexionDeg(s.leg, trueSeat(s, seat))),
    plumb: (seat) => summary(belief, (s) => levelPlumbMm(s.leg, trueSeat(s, seat))),
    kneeMedian: (seat) => median(belief, (s) => bottomFlexionDeg(s.leg, trueSeat(s, seat))),
    plumbMedian: (seat) => median(belief, (s) => levelPlumbMm(s.leg, trueSeat(s, seat))),
  }
}

