import type { Bike, BikeType } from '../../../bikes/bike/bike'
import { contactPoints, type AxisPositions, type ContactPoints } from '../../../bikes/bike/contactPoints'
import type { Columns } from '../../../base/columns'
import type { Point } from '../../../base/conventions'
import { unitVector } from '../../../base/geometry'
import { latest } from '../../../riders/evidence/evidence'
import type { Evidence } from '../../../riders/evidence/registry'
import { momentsOf, type Moments } from '../../../riders/inference/moments'
import type { Posterior } from '../../../riders/inference/posterior'
import { dot } from '../../../riders/inference/weights'
import {
  eachUpperBody,
  forearmGapMm,
  reachExcessMm,
  standingClearanceMm,
  trunkAngleDeg,
  forearmShare,
  trunkShare,
  type UpperBodies,
} from '../../../riders/kinematics/upperBody'
import { ELBOW_CUTS_MM } from '../../../base/measurementNoise'
import { normalCdf } from '../../../base/rng'
import {
  barPostureFor,
  barWindowMm,
  type BarPosture,
  type BarReason,
  type BarRider,
} from '../../../base/school/barPosture'
import { FOREARM_GAP_WINDOW_MM, inWindow, TRUNK_WINDOW_DEG, type School } from '../../../base/school/school'

type Window = readonly [number, number]

/**
 * Target of the bars: grip above the seat point, mm, and the reach, by the forearm (mm) or the trunk (degrees).
 */
export type BarTarget = Readonly<{
  posture: BarPosture
  why: BarReason
  windowMm: Window
  /** The targeted part of the window: not below the saddle, unless the rider or the school wants low bars. */
  aimMm: Window
  reach: Readonly<{ by: 'forearm' | 'trunk'; window: Window }>
}>

const TRUNK_OF: Readonly<Record<BarPosture, Window>> = {
  above: TRUNK_WINDOW_DEG.upright,
  level: TRUNK_WINDOW_DEG.level,
  low: TRUNK_WINDOW_DEG.low,
  lowest: [TRUNK_WINDOW_DEG.low[0], TRUNK_WINDOW_DEG.upright[1]],
}

/**
 * By health first, then what the rider wishes, then the studio's school and the rider's experience. The reach goes by
 * the forearm gauge where the type allows it and nobody wished otherwise, else by the trunk's angle.
 */
export function barTargetFor(
  bikeType: BikeType,
  school: School,
  evidence: readonly Evidence[],
  limits: Pick<BarRider, 'upright' | 'rides'> = {},
): BarTarget {
  const wish = latest(evidence, 'wish')?.posture
  const { posture, why } = barPostureFor(school, { ...latest(evidence, 'rider'), ...limits }, wish)
  const byForearm = bikeType.forearmGaugeValid && !wish
  const windowMm = barWindowMm(school, posture)
  return {
    posture,
    why,
    windowMm,
    aimMm: posture === 'low' || posture === 'lowest' ? windowMm : [Math.max(0, windowMm[0]), windowMm[1]],
    reach: byForearm ? { by: 'forearm', window: FOREARM_GAP_WINDOW_MM } : { by: 'trunk', window: TRUNK_OF[posture] },
  }
}

/** The two checks of the bars against the target, for any place of saddle and bars. */
export type BarProbabilities = Readonly<{
  /** Contact points with the axes at positions, the grip being the hand position ridden in for the reach. */
  contactAt: (positions: AxisPositions) => ContactPoints & Readonly<{ hand: Point }>
  aboveSaddleChance: (at: Pick<ContactPoints, 'seat' | 'grip'>) => number
  reachChance: (at: Readonly<{ seat: Point; nose: Point; hand: Point }>) => number
  /** Trunk angle (degrees) or forearm gap (mm), whichever the reach goes by. */
  reach: (at: Readonly<{ seat: Point; nose: Point; hand: Point }>) => Moments
  /** The same of the mean rider alone, for comparing many places. */
  meanReach: (at: Readonly<{ seat: Point; nose: Point; hand: Point }>) => number
  trunk: (at: Readonly<{ seat: Point; hand: Point }>) => Moments
  aboveSaddleSdMm: number
  /** The chance that elbows are soft, and how much farther the grip is than the rider's easy reach, mm. */
  softChance: (at: Readonly<{ seat: Point; grip: Point }>) => number
  excessMm: (at: Readonly<{ seat: Point; grip: Point }>) => number
  /** The chance that the knees clear the bars when standing, and by how much, mm; of every so many particles one. */
  clearChance: (at: Readonly<{ seat: Point; grip: Point }>) => number
  clearanceMm: (at: Readonly<{ seat: Point; grip: Point }>) => number
}>

/** Particles for the clearance, the most expensive quantity: a standard error of about 2 in 100. */
const CLEARANCE_PARTICLES = 600

export function barProbabilities(
  { bikeType, bike, evidence }: Readonly<{ bikeType: BikeType; bike?: Bike; evidence: readonly Evidence[] }>,
  posterior: Posterior,
  target: BarTarget,
): BarProbabilities {
  const { particles, weights } = posterior
  const upper = particles.upperBodies()
  const grip = latest(evidence, 'wish')?.grip
  const offset = bikeType.grips?.find(({ name }) => name === grip) ?? { aheadMm: 0, aboveMm: 0 }
  const byTrunk = trunkShare(upper, target.reach.window, weights)
  const byForearm = forearmShare(upper, target.reach.window, weights)
  const sdOf = (axis: 'seatHeight' | 'barHeight') =>
    (bike?.sdMm?.[axis] ?? 0) * unitVector(bikeType.axes[axis].directionDeg).y
  const aboveSaddleSdMm = Math.hypot(sdOf('seatHeight'), sdOf('barHeight'))
  const mean = meanUpperBody(upper, weights)
  const noseAheadMm = bikeType.saddle.noseAheadMm + (bike?.saddle?.noseDeltaMm ?? 0)
  const trunk: BarProbabilities['trunk'] = ({ seat, hand }) =>
    momentsOf(posterior, () => eachUpperBody(upper, seat, hand, trunkAngleDeg))
  const stride = Math.max(1, Math.ceil(upper.count / CLEARANCE_PARTICLES))
  /** Weighted mean over every so many particles of a measure of the standing clearance. */
  const ofClearance = ({ seat, grip }: Readonly<{ seat: Point; grip: Point }>, measure: (mm: number) => number) => {
    let [sum, total] = [0, 0]
    for (let i = 0; i < upper.count; i += stride) {
      sum += weights[i] * measure(standingClearanceMm(upper, seat, grip, noseAheadMm, i))
      total += weights[i]
    }
    return total > 0 ? sum / total : 0
  }
  return {
    aboveSaddleSdMm,
    softChance: ({ seat, grip }) => {
      let share = 0
      for (let i = 0; i < upper.count; i++) {
        const excess = reachExcessMm(upper, seat, grip, i)
        if (excess >= ELBOW_CUTS_MM.cramped && excess <= ELBOW_CUTS_MM.locked) share += weights[i]
      }
      return Math.min(1, share)
    },
    excessMm: ({ seat, grip }) => momentsOf(posterior, () => eachUpperBody(upper, seat, grip, reachExcessMm)).mean,
    clearChance: (at) => ofClearance(at, (mm) => (mm >= 0 ? 1 : 0)),
    clearanceMm: (at) => ofClearance(at, (mm) => mm),
    contactAt: (positions) => {
      const at = contactPoints(bikeType, bike, positions)
      return { ...at, hand: { xMm: at.grip.xMm + offset.aheadMm, yMm: at.grip.yMm + offset.aboveMm } }
    },
    aboveSaddleChance: (at) => {
      const mm = at.grip.yMm - at.seat.yMm
      const [low, high] = target.windowMm
      if (aboveSaddleSdMm === 0) return inWindow(mm, target.windowMm) ? 1 : 0
      return normalCdf((high - mm) / aboveSaddleSdMm) - normalCdf((low - mm) / aboveSaddleSdMm)
    },
    reachChance: ({ seat, nose, hand }) => (target.reach.by === 'trunk' ? byTrunk(seat, hand) : byForearm(nose, hand)),
    reach: ({ seat, nose, hand }) =>
      target.reach.by === 'trunk'
        ? trunk({ seat, hand })
        : momentsOf(posterior, () => eachUpperBody(upper, nose, hand, forearmGapMm)),
    meanReach: ({ seat, nose, hand }) =>
      target.reach.by === 'trunk' ? trunkAngleDeg(mean, seat, hand, 0) : forearmGapMm(mean, nose, hand, 0),
    trunk,
  }
}

/** The posterior mean of trunks and arms, as columns of length 1. */
function meanUpperBody(upper: UpperBodies, weights: Float64Array): UpperBodies {
  const meanOf = <Name extends string>(columns: Columns<Name>, names: readonly Name[]) =>
    Object.fromEntries(names.map((name) => [name, Float64Array.of(dot(weights, columns[name]))]))
  const own = meanOf(upper, ['trunkMm', 'softArmMm', 'fingertipMm', 'trunkComfortDeg'])
  const hip = meanOf(upper.legs, ['hipAheadMm', 'hipAboveSeatMm'])
  return { ...upper, ...own, count: 1, legs: { ...upper.legs, ...hip, count: 1 } }
}
