import type { Marks } from '../base/conventions'
import {
  ELBOW_CUTS_MM,
  HEEL_JUST_STRAIGHT_MM,
  HEEL_SHORT_LITTLE_MM,
  KNEE_BY_EYE_CUTS_DEG,
  PLUMB_BY_EYE_CUTS_MM,
  SD_BY_RIDER,
} from '../base/measurementNoise'
import { axisPositions, contactPoints } from '../bikes/bike/contactPoints'
import { nearestPosition } from '../bikes/scale/scale'
import type { Evidence } from '../riders/evidence/registry'
import { eachUpperBody, forearmGapMm, prepareUpperBodies } from '../riders/kinematics/upperBody'
import { heelReachDeficitMm } from '../riders/kinematics/leg'
import { DEFAULT_SOLE_MM } from '../riders/rider/anthropometry'
import { columnsOf } from '../riders/rider/prior'
import { alone, type AloneRequest, type OwnCheck } from '../setups/alone/alone'
import { trueBars } from './simulatedBars'
import { trueFlexionDeg, truePlumbMm, type SimulatedRider } from './simulatedRider'

/** What a simulated rider reads of themselves, with the error of one alone. */
function readOwn(rider: SimulatedRider, check: OwnCheck, at: Marks): Evidence {
  const { bikeType, body, leg, random } = rider
  const own = { readBy: 'rider', at } as const
  const contact = contactPoints(bikeType, undefined, axisPositions(bikeType, at))
  switch (check) {
    case 'heel': {
      const gap = heelReachDeficitMm(leg, contact.seat, 0) + SD_BY_RIDER.heelMm * random.normal()
      const seen =
        gap < -HEEL_JUST_STRAIGHT_MM ? 'stillBent' : gap > HEEL_JUST_STRAIGHT_MM ? 'cannotReach' : 'justStraight'
      const short = gap > HEEL_SHORT_LITTLE_MM ? 'much' : 'little'
      return { kind: 'heelCheck', seen, ...(seen === 'cannotReach' && { short }), ...own }
    }
    case 'knee': {
      const deg = trueFlexionDeg(rider, at) + SD_BY_RIDER.kneeDeg * random.normal()
      const seen =
        deg < KNEE_BY_EYE_CUTS_DEG.locked ? 'locked' : deg > KNEE_BY_EYE_CUTS_DEG.deepBend ? 'deepBend' : 'slightBend'
      return { kind: 'kneeByEye', seen, ...own }
    }
    case 'lookDown': {
      const mm = truePlumbMm(rider, at) + SD_BY_RIDER.plumbByEyeMm * random.normal()
      const seen = mm > PLUMB_BY_EYE_CUTS_MM[2] ? 'aheadOfAxle' : mm < PLUMB_BY_EYE_CUTS_MM[1] ? 'midFoot' : 'overAxle'
      return { kind: 'plumbByEye', seen, ...own }
    }
    case 'elbows': {
      const mm = trueBars(rider, at).excessMm + SD_BY_RIDER.elbowsMm * random.normal()
      const seen = mm > ELBOW_CUTS_MM.locked ? 'locked' : mm < ELBOW_CUTS_MM.cramped ? 'cramped' : 'soft'
      return { kind: 'elbows', seen, ...own }
    }
    case 'forearm': {
      const upper = prepareUpperBodies(columnsOf(body), leg)
      const mm =
        eachUpperBody(upper, contact.nose, contact.grip, forearmGapMm)[0] + SD_BY_RIDER.forearmGapMm * random.normal()
      return { kind: 'forearmGauge', gapMm: mm > 25 ? 50 : mm < -25 ? -50 : 0, ...own }
    }
  }
}

/** The mark at which a rider alone sees the saddle level with their hip crest. */
function ownCrest({ body, bikeType, random }: SimulatedRider): Evidence {
  const { seatHeight } = bikeType.axes
  const y = body.hipCrestHeightMm + DEFAULT_SOLE_MM + SD_BY_RIDER.landmarkMm * random.normal() - bikeType.axleHeightMm
  const rise = (y - bikeType.seatOrigin.yMm) / Math.sin((seatHeight.directionDeg * Math.PI) / 180)
  const at = { seatHeight: nearestPosition(seatHeight.scale, rise).label }
  return { kind: 'landmarkAtMark', landmark: 'hipCrest', at, readBy: 'rider' }
}

/** A simulated rider follows `alone` from the code to the end: their rows, and the marks the machine is left at. */
export function simulateAlone(
  rider: SimulatedRider,
  request: Omit<AloneRequest, 'evidence' | 'bikeType'>,
): Readonly<{ evidence: readonly Evidence[]; marks: Marks; taps: number }> {
  const evidence: Evidence[] = []
  for (let taps = 1; ; taps++) {
    const { step } = alone({ ...request, bikeType: rider.bikeType, evidence })
    if (step.kind === 'end') return { evidence, marks: step.marks, taps: taps - 1 }
    const stands = evidence.findLast(({ kind }) => kind === 'set')?.at ?? {}
    if (step.kind === 'talk') evidence.push({ kind: 'rider', experience: 'new' })
    else if (step.kind === 'landmark') evidence.push(ownCrest(rider))
    else if (step.kind === 'set') evidence.push({ kind: 'set', at: step.marks })
    else evidence.push(readOwn(rider, step.kind, stands))
  }
}
