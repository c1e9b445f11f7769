import type { PlainType } from '../bikes/bike/standing'
import { radians } from '../base/geometry'
import type { Rider } from '../riders/kinematics/pose'
import { FOREARM_TO_GRIP_FRACTION, FRACTION_OF_STATURE as F } from '../riders/rider/anthropometry'

/** The mean rider of the proportions' table, foot pitched by `pitchDeg` throughout; for tests. */
export function meanRider(statureMm: number, pitchDeg = 15): Rider {
  return {
    thighMm: F.thigh * statureMm,
    shankMm: F.shank * statureMm,
    ankleHeightMm: F.ankleHeight * statureMm,
    ankleToBallMm: F.ankleToBall * statureMm,
    soleMm: 10,
    hipAboveSeatMm: (F.trochanterHeight - F.inseam) * statureMm - 25,
    patellaAheadMm: 50,
    footPitchDeg: pitchDeg,
    trunkMm: F.trunk * statureMm,
    upperArmMm: F.upperArm * statureMm,
    forearmToGripMm: FOREARM_TO_GRIP_FRACTION * statureMm,
    elbowFlexionDeg: 20,
  }
}

/** Contact points for a saddle height along a post at `postDeg` through the crank axle. */
export function contactAt(saddleHeightMm: number, reachMm = 660, gripAboveMm = 0, postDeg = 73) {
  const seat = { xMm: -saddleHeightMm * Math.cos(radians(postDeg)), yMm: saddleHeightMm * Math.sin(radians(postDeg)) }
  return { seat, grip: { xMm: seat.xMm + reachMm, yMm: seat.yMm + gripAboveMm } }
}

export const CRANK = { crankMm: 170, pedalSurfaceMm: 14 }

/** A bike of numbered holes 20 mm apart on a 73° post through the crank axle, slide in letters; for tests. */
export const HOLES_BIKE: PlainType = {
  name: 'Testwort',
  ...CRANK,
  axleHeightMm: 300,
  saddle: { noseAheadMm: 150, lengthMm: 275, shape: 'flat' },
  seatOrigin: { xMm: -560 * Math.cos(radians(73)), yMm: 560 * Math.sin(radians(73)) },
  gripOrigin: { xMm: 400, yMm: 600 },
  axes: {
    seatHeight: {
      directionDeg: 107,
      scale: { marks: Array.from({ length: 15 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
    },
    seatSlide: {
      directionDeg: 0,
      scale: { marks: [...'ABCDEFG'].map((label, i) => ({ label, mm: 10 * (i - 3) })), halfMarks: false },
    },
    barHeight: {
      directionDeg: 90,
      scale: { marks: Array.from({ length: 12 }, (_, i) => ({ label: String(i + 1), mm: 20 * i })), halfMarks: false },
    },
    barSlide: { directionDeg: 0, scale: { ruler: { min: -4, max: 4, resolution: 0.5, mmPerUnit: 10, mmAtZero: 0 } } },
  },
  forearmGaugeValid: true,
}
