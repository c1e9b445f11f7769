import type { Random } from '../belief/random'
import { bottomCrankDeg, type BikeType } from '../bike/bike'
import { placeAt } from '../bike/place'
import type { Marks, Point } from '../conventions'
import type { Evidence, EvidenceOf } from '../evidence/evidence'
import { HEEL_JUST_STRAIGHT_MM, KNEE_BY_EYE_CUTS_DEG, READING_SD } from '../evidence/readingSpreads'
import { bottomFlexionDeg, heelGapMm, legOn, levelPlumbMm, type Legs } from '../linkage/leg'
import { positions } from '../recommend/standing'
import { DEFAULT_SOLE_MM } from '../rider/anthropometry'
import { bodyAt, PRIOR_PARTS, priorFor, tableOf, type Body, type Prior } from '../rider/prior'
import { nearestStop } from '../scale/scale'

/** A rider whose true body is known, and whose readings stray from it as real ones do. */
export type SimulatedRider = Readonly<{ body: Body; leg: Legs; bikeType: BikeType; random: Random }>

/** The two populations of the bench: the model's own spreads, and a wider one than the model believes. */
export const POPULATIONS: Readonly<Record<string, Prior>> = {
  own: priorFor('natural'),
  wider: priorFor('natural', {
    legFactor: { mean: 1, sd: 0.05 },
    bottomPitchDeg: { mean: 15, sd: 8 },
    pressMm: { mean: 25, sd: 9 },
  }),
}

export function drawRider(population: Prior, bikeType: BikeType, random: Random): SimulatedRider {
  const body = bodyAt(
    tableOf(population),
    PRIOR_PARTS.map(() => random.normal()),
  )
  return { body, bikeType, random, leg: legOn(body, DEFAULT_SOLE_MM, bikeType, bottomCrankDeg(bikeType)) }
}

const seatAt = ({ bikeType }: SimulatedRider, marks: Marks): Point =>
  placeAt(bikeType, undefined, positions(bikeType, marks)).seat

/** True knee flexion at the bottom with the bike at these marks, degrees. */
export const trueFlexionDeg = (rider: SimulatedRider, marks: Marks): number =>
  bottomFlexionDeg(rider.leg, seatAt(rider, marks))

/** Hip crest levelled with the saddle: the mark nearest to where the landmark seems to be. */
export function crestAtMark(rider: SimulatedRider): Evidence {
  const { bikeType, body, random } = rider
  const wantedY =
    body.hipCrestHeightMm + DEFAULT_SOLE_MM + READING_SD.landmarkMm * random.normal() - bikeType.axleHeightMm
  const rise = (wantedY - bikeType.seatOrigin.yMm) / Math.sin((bikeType.axes.seatHeight.directionDeg * Math.PI) / 180)
  return {
    kind: 'landmarkAtMark',
    landmark: 'hipCrest',
    at: { seatHeight: nearestStop(bikeType.axes.seatHeight.scale, rise).label },
  }
}

export function statureAndInseam({ body, random }: SimulatedRider): Evidence[] {
  return [
    { kind: 'stature', mm: body.statureMm + READING_SD.statureMm * random.normal() },
    { kind: 'inseam', mm: body.inseamMm + READING_SD.inseamMm * random.normal(), shod: false },
  ]
}

export function goniometer(rider: SimulatedRider, at: Marks): EvidenceOf<'kneeAngle'> {
  return {
    kind: 'kneeAngle',
    by: 'goniometer',
    deg: trueFlexionDeg(rider, at) + READING_SD.goniometerDeg * rider.random.normal(),
    at,
  }
}

/** True plumb offset with the cranks level and the bike at these marks, mm. */
export const truePlumbMm = (rider: SimulatedRider, marks: Marks): number =>
  levelPlumbMm(rider.leg, seatAt(rider, marks))

export function plumbLine(rider: SimulatedRider, at: Marks): EvidenceOf<'plumb'> {
  return { kind: 'plumb', mm: truePlumbMm(rider, at) + READING_SD.plumbMm * rider.random.normal(), from: 'front', at }
}

export function eye(rider: SimulatedRider, at: Marks): EvidenceOf<'kneeByEye'> {
  const looks = trueFlexionDeg(rider, at) + READING_SD.kneeByEyeDeg * rider.random.normal()
  const seen =
    looks < KNEE_BY_EYE_CUTS_DEG.locked ? 'locked' : looks > KNEE_BY_EYE_CUTS_DEG.deepBend ? 'deepBend' : 'slightBend'
  return { kind: 'kneeByEye', seen, at }
}

export function heel(rider: SimulatedRider, at: Marks): Evidence {
  const gap = heelGapMm(rider.leg, seatAt(rider, at)) + READING_SD.heelMm * rider.random.normal()
  const seen = gap < -HEEL_JUST_STRAIGHT_MM ? 'stillBent' : gap > HEEL_JUST_STRAIGHT_MM ? 'cannotReach' : 'justStraight'
  return { kind: 'heelCheck', seen, at }
}
