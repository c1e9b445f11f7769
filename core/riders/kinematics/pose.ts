import type { Point } from '../../base/conventions'
import { angleAtDeg, degrees, unitVector, intersectCircles, radians, offsetPoint, spanMm } from '../../base/geometry'
import { between, closed, positiveMm, type Plain } from '../../base/schema'
import { footPitchSchema, pitchAtDeg } from './footPitch'

/** A rider as the linkage sees one: segment lengths in mm, angles in degrees. */
export const riderSchema = closed({
  thighMm: positiveMm,
  shankMm: positiveMm,
  /** Ankle joint above the sole of the bare foot. */
  ankleHeightMm: between(0, 500),
  /** Ankle joint behind the ball of the foot, horizontally, foot flat. */
  ankleToBallMm: between(0, 500),
  soleMm: between(0, 200),
  /** Hip joint above the seat point. */
  hipAboveSeatMm: between(-500, 500),
  /** Front of the knee ahead of the joint's centre. */
  patellaAheadMm: between(-200, 200),
  footPitchDeg: footPitchSchema,
  trunkMm: positiveMm,
  upperArmMm: positiveMm,
  forearmToGripMm: positiveMm,
  elbowFlexionDeg: between(0, 170),
})
export type Rider = Plain<typeof riderSchema>

export type Contact = Readonly<{ seat: Point; grip: Point }>
export type Crank = Readonly<{ crankMm: number; pedalSurfaceMm: number }>

export type Posed = Readonly<{
  crankDeg: number
  outcome: 'posed'
  hip: Point
  knee: Point
  ankle: Point
  pedal: Point
  shoulder: Point
  /** 180° − angle(hip, knee, ankle); 0 is straight. */
  kneeFlexionDeg: number
  /** angle(shoulder, hip, knee). */
  hipAngleDeg: number
  /** hip → shoulder above level. */
  trunkAngleDeg: number
  /** angle(hip, shoulder, grip). */
  shoulderAngleDeg: number
  /** knee x + patella − pedal x; plus = knee ahead. */
  plumbOffsetMm: number
}>

export type UnreachablePose = Readonly<{
  crankDeg: number
  outcome: 'unreachable'
  limb: 'leg' | 'arm'
  missingMm: number
}>
export type Pose = Posed | UnreachablePose

/** Centre of the pedal axle at a crank angle. `pedalAt(170, 90)` → 170 mm ahead, level. */
export function pedalAt(crankMm: number, crankDeg: number): Point {
  return { xMm: crankMm * Math.sin(radians(crankDeg)), yMm: crankMm * Math.cos(radians(crankDeg)) }
}

/** Pedal axle → ankle joint with the foot pitched heel-up by `pitchDeg`, mm. Flat: `behindMm` back and `aboveMm` up. */
export function pedalToAnkle(behindMm: number, aboveMm: number, pitchDeg: number): Point {
  const u = unitVector(pitchDeg)
  return { xMm: -behindMm * u.x + aboveMm * u.y, yMm: aboveMm * u.x + behindMm * u.y }
}

/**
 * The rider on the bike at one crank angle. The leg is looked at first; where leg or arm cannot reach
 * (or cannot fold enough), the outcome is `unreachable` with the millimetres that are missing.
 */
export function poseAt(rider: Rider, contact: Contact, crank: Crank, crankDeg: number): Pose {
  const hip = offsetPoint(contact.seat, 0, rider.hipAboveSeatMm)
  const pedal = pedalAt(crank.crankMm, crankDeg)
  const foot = pedalToAnkle(
    rider.ankleToBallMm,
    rider.ankleHeightMm + rider.soleMm + crank.pedalSurfaceMm,
    pitchAtDeg(rider.footPitchDeg, crankDeg),
  )
  const ankle = offsetPoint(pedal, foot.xMm, foot.yMm)
  const knee = intersectCircles(hip, rider.thighMm, ankle, rider.shankMm, 'forward')
  if (knee.outcome === 'unreachable')
    return { crankDeg, outcome: 'unreachable', limb: 'leg', missingMm: knee.missingMm }
  const armMm = spanMm(rider.upperArmMm, rider.forearmToGripMm, rider.elbowFlexionDeg)
  const shoulder = intersectCircles(hip, rider.trunkMm, contact.grip, armMm, 'upper')
  if (shoulder.outcome === 'unreachable')
    return { crankDeg, outcome: 'unreachable', limb: 'arm', missingMm: shoulder.missingMm }
  return {
    crankDeg,
    outcome: 'posed',
    hip,
    knee: knee.point,
    ankle,
    pedal,
    shoulder: shoulder.point,
    kneeFlexionDeg: 180 - angleAtDeg(hip, knee.point, ankle),
    hipAngleDeg: angleAtDeg(shoulder.point, hip, knee.point),
    trunkAngleDeg: degrees(Math.atan2(shoulder.point.yMm - hip.yMm, shoulder.point.xMm - hip.xMm)),
    shoulderAngleDeg: angleAtDeg(hip, shoulder.point, contact.grip),
    plumbOffsetMm: knee.point.xMm + rider.patellaAheadMm - pedal.xMm,
  }
}
