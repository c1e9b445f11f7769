import type { Rng } from '../base/rng'
import { bottomCrankDeg, type BikeType } from '../bikes/bike/bike'
import { crankMmAt } from '../bikes/bike/standing'
import { axisPositions, contactPoints } from '../bikes/bike/contactPoints'
import type { Marks, Point } from '../base/conventions'
import type { Evidence, EvidenceOf } from '../riders/evidence/registry'
import { HEEL_JUST_STRAIGHT_MM, KNEE_BY_EYE_CUTS_DEG, MEASUREMENT_SD } from '../base/measurementNoise'
import {
  bottomFlexionDeg,
  heelReachDeficitMm,
  prepareLeg,
  prepareLegs,
  kneeOverPedalMm,
  type Legs,
} from '../riders/kinematics/leg'
import { DEFAULT_SOLE_MM } from '../riders/rider/anthropometry'
import { unitVector } from '../base/geometry'
import { DRIFT_MM_A_YEAR, SETUP_HABIT_SD_MM } from '../setups/recommend/history/riderHistory'
import {
  bodyFromScores,
  columnsOf,
  PRIOR_PARTS,
  priorFor,
  priorVectorOf,
  type Body,
  type Prior,
} from '../riders/rider/prior'
import type { Question } from '../setups/recommend/request/questionCosts'
import { nearestPosition } from '../bikes/scale/scale'

/** A rider with a given true body, and readings with realistic errors. */
export type SimulatedRider = Readonly<{ body: Body; leg: Legs; bikeType: BikeType; random: Rng }>

/** The two populations of the bench: the model's own spreads, and a wider one than the model believes. */
export const POPULATIONS: Readonly<Record<string, Prior>> = {
  own: priorFor('natural'),
  wider: priorFor('natural', {
    legFactor: { mean: 1, sd: 0.05 },
    bottomPitchDeg: { mean: 15, sd: 8 },
    tissueCompressionMm: { mean: 25, sd: 9 },
  }),
}

export function drawRider(population: Prior, bikeType: BikeType, random: Rng): SimulatedRider {
  const body = bodyFromScores(
    priorVectorOf(population),
    PRIOR_PARTS.map(() => random.normal()),
  )
  return { body, bikeType, random, leg: prepareLeg(body, DEFAULT_SOLE_MM, bikeType, bottomCrankDeg(bikeType)) }
}

/**
 * The same body in another set-up, on any type: it sits and places its feet a little differently each time, and has
 * drifted for so many days. `standsMm`: offset of the machine's seat along its post and its slide, from its marks.
 */
export function inAnotherSetup(
  { body, random }: SimulatedRider,
  bikeType: BikeType,
  driftDays = 0,
  scaleErrorMm: Readonly<{ seatHeight: number; seatSlide: number }> = { seatHeight: 0, seatSlide: 0 },
): SimulatedRider {
  const driftMm = DRIFT_MM_A_YEAR * Math.sqrt(driftDays / 365)
  const [up, along] = [
    unitVector(bikeType.axes.seatHeight.directionDeg),
    unitVector(bikeType.axes.seatSlide?.directionDeg ?? 0),
  ]
  const [height, slide] = [
    Math.hypot(SETUP_HABIT_SD_MM.seatHeight, driftMm) * random.normal() + scaleErrorMm.seatHeight,
    Math.hypot(SETUP_HABIT_SD_MM.seatSlide, driftMm) * random.normal() + scaleErrorMm.seatSlide,
  ]
  const shift = {
    xMm: Float64Array.of(up.x * height + along.x * slide),
    yMm: Float64Array.of(up.y * height + along.y * slide),
  }
  const leg = prepareLegs(columnsOf(body), DEFAULT_SOLE_MM, bikeType, bottomCrankDeg(bikeType), shift)
  return { body, bikeType, random, leg }
}

/** Error of an eye, read minus true: bias and standard deviation, degrees. */
export type SimulatedEye = Readonly<{ biasDeg: number; sdDeg: number }>
const USUAL_EYE: SimulatedEye = { biasDeg: 0, sdDeg: MEASUREMENT_SD.kneeByEyeDeg }

const seatAt = ({ bikeType }: SimulatedRider, marks: Marks): Point =>
  contactPoints(bikeType, undefined, axisPositions(bikeType, marks)).seat

/** True knee flexion at the bottom with the bike at these marks, degrees. */
export const trueFlexionDeg = (rider: SimulatedRider, marks: Marks): number =>
  bottomFlexionDeg(legAt(rider, marks), seatAt(rider, marks))

/** The leg on the cranks as they are set; on a type without a choice of them it is the rider's own. */
function legAt({ leg, body, bikeType }: SimulatedRider, marks: Marks): Legs {
  if (!bikeType.axes.crankLength) return leg
  const crank = { crankMm: crankMmAt(bikeType, marks), pedalSurfaceMm: bikeType.pedalSurfaceMm }
  return prepareLeg(body, DEFAULT_SOLE_MM, crank, bottomCrankDeg(bikeType))
}

/** Hip crest levelled with the saddle: the mark nearest to where the landmark seems to be. */
export const crestAtMark = (rider: SimulatedRider): Evidence =>
  landmarkAtMark(rider, 'hipCrest', rider.body.hipCrestHeightMm)

function landmarkAtMark(rider: SimulatedRider, landmark: 'hipCrest' | 'frontHipBone', heightMm: number): Evidence {
  const { bikeType, random } = rider
  const targetY = heightMm + DEFAULT_SOLE_MM + MEASUREMENT_SD.landmarkMm * random.normal() - bikeType.axleHeightMm
  const rise = (targetY - bikeType.seatOrigin.yMm) / Math.sin((bikeType.axes.seatHeight.directionDeg * Math.PI) / 180)
  return {
    kind: 'landmarkAtMark',
    landmark,
    at: { seatHeight: nearestPosition(bikeType.axes.seatHeight.scale, rise).label },
  }
}

export function statureAndInseam({ body, random }: SimulatedRider): Evidence[] {
  return [
    { kind: 'stature', mm: body.statureMm + MEASUREMENT_SD.statureMm * random.normal() },
    { kind: 'inseam', mm: body.inseamMm + MEASUREMENT_SD.inseamMm * random.normal(), shod: false },
  ]
}

export function goniometer(rider: SimulatedRider, at: Marks): EvidenceOf<'kneeAngle'> {
  return {
    kind: 'kneeAngle',
    by: 'goniometer',
    deg: trueFlexionDeg(rider, at) + MEASUREMENT_SD.goniometerDeg * rider.random.normal(),
    at,
  }
}

/** True plumb offset with the cranks level and the bike at these marks, mm. */
export const truePlumbMm = (rider: SimulatedRider, marks: Marks): number =>
  kneeOverPedalMm(legAt(rider, marks), seatAt(rider, marks))

export function plumbLine(rider: SimulatedRider, at: Marks): EvidenceOf<'plumb'> {
  return {
    kind: 'plumb',
    mm: truePlumbMm(rider, at) + MEASUREMENT_SD.plumbMm * rider.random.normal(),
    from: 'front',
    at,
  }
}

export function kneeByEye(rider: SimulatedRider, at: Marks, eye = USUAL_EYE): EvidenceOf<'kneeByEye'> {
  const looks = trueFlexionDeg(rider, at) + eye.biasDeg + eye.sdDeg * rider.random.normal()
  const seen =
    looks < KNEE_BY_EYE_CUTS_DEG.locked ? 'locked' : looks > KNEE_BY_EYE_CUTS_DEG.deepBend ? 'deepBend' : 'slightBend'
  return { kind: 'kneeByEye', seen, at }
}

export function heelCheck(rider: SimulatedRider, at: Marks): Evidence {
  const gap = heelReachDeficitMm(rider.leg, seatAt(rider, at)) + MEASUREMENT_SD.heelMm * rider.random.normal()
  const seen = gap < -HEEL_JUST_STRAIGHT_MM ? 'stillBent' : gap > HEEL_JUST_STRAIGHT_MM ? 'cannotReach' : 'justStraight'
  return { kind: 'heelCheck', seen, at }
}

/** The answer of a rider to a question beside the bike. */
export function answerBeside(rider: SimulatedRider, question: Question): Evidence {
  const { body, random } = rider
  switch (question) {
    case 'hipCrestAtMark':
      return crestAtMark(rider)
    case 'frontHipBoneAtMark':
      return landmarkAtMark(rider, 'frontHipBone', body.frontHipBoneHeightMm)
    case 'stature':
      return { kind: 'stature', mm: body.statureMm + MEASUREMENT_SD.statureMm * random.normal() }
    case 'inseam':
      return { kind: 'inseam', mm: body.inseamMm + MEASUREMENT_SD.inseamMm * random.normal(), shod: false }
    case 'trochanterHeight':
      return {
        kind: 'landmarkHeight',
        landmark: 'trochanter',
        mm: body.trochanterHeightMm + MEASUREMENT_SD.landmarkMm * random.normal(),
        shod: false,
      }
    case 'thigh':
    case 'shank': {
      const mm = question === 'thigh' ? body.thighMm : body.shankMm
      return { kind: 'segment', segment: question, mm: mm + MEASUREMENT_SD.segmentMm * random.normal() }
    }
    default:
      throw new Error(`${question} is not asked beside the bike.`)
  }
}
