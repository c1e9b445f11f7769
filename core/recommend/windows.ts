import type { Belief } from '../belief/belief'
import { median, summary, type Summary } from '../belief/belief'
import type { Point } from '../conventions'
import { HEEL_JUST_STRAIGHT_MM } from '../evidence/readingSpreads'
import { columnOf } from '../columns'
import { bottomFlexionDeg, eachLeg, heelGapMm, hipToAnkleSquared, levelPlumbMm, squaredAtFlexion } from '../linkage/leg'
import { inWindow, PLUMB_WINDOW_MM, type School } from '../school/school'

/**
 * The saddle's two checks against the school's windows, for any seat point.
 * Knee limits are turned into hip–ankle distances once per sample, so a grid of marks needs no trigonometry.
 */
export type SaddleChecks = Readonly<{
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
  const { legs, sideDeg, count } = samples
  const [least, most] = school.kneeWindowDeg
  const asideDeg = (i: number) => (bothSides ? Math.abs(sideDeg[i]) : 0)
  const farthest = columnOf(count, (i) => squaredAtFlexion(legs, least + asideDeg(i), i))
  const nearest = columnOf(count, (i) => squaredAtFlexion(legs, most - asideDeg(i), i))
  const plumbWindow = PLUMB_WINDOW_MM[school.foreAft]

  const angleHolds = (i: number, seat: Point) => {
    const squared = hipToAnkleSquared(legs, seat, i)
    return squared >= nearest[i] && squared <= farthest[i]
  }
  const heelGap = (i: number, seat: Point) => heelGapMm(legs, seat, i)
  const kneeHolds = (i: number, seat: Point) => {
    if (school.heelCheck === 'target') return Math.abs(heelGap(i, seat)) <= HEEL_JUST_STRAIGHT_MM
    return angleHolds(i, seat) && (school.heelCheck !== 'ceiling' || heelGap(i, seat) <= HEEL_JUST_STRAIGHT_MM)
  }
  const plumbAt = (i: number, seat: Point) => levelPlumbMm(legs, seat, i)
  const plumbHolds = (i: number, seat: Point) => inWindow(plumbAt(i, seat), plumbWindow)
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
    kneeChance: remembered((seat) => share((i) => kneeHolds(i, seat))),
    plumbChance: (seat) => share((i) => plumbHolds(i, seat)),
    bothChance: remembered((seat) => share((i) => kneeHolds(i, seat) && plumbHolds(i, seat))),
    tooHighChance: (seat) => share((i) => tooHigh(i, seat)),
    tooLowChance: (seat) => share((i) => !kneeHolds(i, seat) && !tooHigh(i, seat)),
    tooFarAheadChance: (seat) => share((i) => plumbAt(i, seat) > plumbWindow[1]),
    tooFarBehindChance: (seat) => share((i) => plumbAt(i, seat) < plumbWindow[0]),
    knee: (seat) => summary(belief, () => eachLeg(legs, seat, bottomFlexionDeg)),
    plumb: (seat) => summary(belief, () => eachLeg(legs, seat, levelPlumbMm)),
    kneeMedian: (seat) => median(belief, () => eachLeg(legs, seat, bottomFlexionDeg)),
    plumbMedian: (seat) => median(belief, () => eachLeg(legs, seat, levelPlumbMm)),
  }
}

/** The same chance of the same seat is asked for by many; it is worked out once. */
function remembered(chance: (seat: Point) => number): (seat: Point) => number {
  const known = new Map<string, number>()
  return (seat) => {
    const key = `${seat.xMm} ${seat.yMm}`
    const found = known.get(key) ?? chance(seat)
    known.set(key, found)
    return found
  }
}
