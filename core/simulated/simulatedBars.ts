import type { BikeType } from '../bikes/bike/bike'
import { axisPositions, contactPoints } from '../bikes/bike/contactPoints'
import type { Marks } from '../base/conventions'
import type { EvidenceOf } from '../riders/evidence/registry'
import { prepareUpperBodies, reachExcessMm, standingClearanceMm } from '../riders/kinematics/upperBody'
import { ELBOW_CUTS_MM, MEASUREMENT_SD, REACH_FEEL_CUTS_MM } from '../base/measurementNoise'
import type { Rng } from '../base/rng'
import { columnsOf } from '../riders/rider/prior'
import { positionsOf } from '../bikes/scale/scale'
import { inWindow, PLUMB_WINDOW_MM } from '../base/school/school'
import { trueFlexionDeg, truePlumbMm, type SimulatedRider } from './simulatedRider'

/** One look at the bars: elbows, the rider's word on the reach, and the knees when standing. */
export type BarLook = Readonly<{
  elbows: EvidenceOf<'elbows'>['seen']
  reachFeel: EvidenceOf<'reachFeel'>['seen']
  clearance: EvidenceOf<'clearance'>['seen']
}>

/** The true reach excess and standing clearance of a simulated rider at four marks, mm (see `kinematics/upperBody`). */
export function trueBars({ body, leg, bikeType }: SimulatedRider, marks: Marks) {
  const upper = prepareUpperBodies(columnsOf(body), leg)
  const { seat, grip } = contactPoints(bikeType, undefined, axisPositions(bikeType, marks))
  return {
    excessMm: reachExcessMm(upper, seat, grip, 0),
    clearanceMm: standingClearanceMm(upper, seat, grip, bikeType.saddle.noseAheadMm, 0),
  }
}

/**
 * How a rider's looks stray from the truth, mm, drawn once: one pair of eyes on one rider repeats its error, so a
 * second look at the same marks shows the same.
 */
export type BarLookErrors = Readonly<{ elbowsMm: number; feelMm: number; clearanceMm: number }>

export const drawBarLookErrors = (random: Rng): BarLookErrors => ({
  elbowsMm: MEASUREMENT_SD.elbowsMm * random.normal(),
  feelMm: MEASUREMENT_SD.reachFeelMm * random.normal(),
  clearanceMm: MEASUREMENT_SD.clearanceMm * random.normal(),
})

export function lookAtBars(rider: SimulatedRider, marks: Marks, errors: BarLookErrors): BarLook {
  const { excessMm, clearanceMm } = trueBars(rider, marks)
  const elbowsMm = excessMm + errors.elbowsMm
  const feelMm = excessMm + errors.feelMm
  return {
    elbows: elbowsMm > ELBOW_CUTS_MM.locked ? 'locked' : elbowsMm < ELBOW_CUTS_MM.cramped ? 'cramped' : 'soft',
    reachFeel:
      feelMm > REACH_FEEL_CUTS_MM.stretched ? 'stretched' : feelMm < REACH_FEEL_CUTS_MM.cramped ? 'cramped' : 'right',
    clearance: clearanceMm + errors.clearanceMm > 0 ? 'clear' : 'touches',
  }
}

/** The saddle marks whose true knee and plumb line lie nearest to the middle; null where the type has none that fit. */
export function fittingSaddle(rider: SimulatedRider): Marks | null {
  const { seatHeight, seatSlide } = (rider.bikeType as BikeType).axes
  const pairs = positionsOf(seatHeight.scale).flatMap((height) =>
    positionsOf(seatSlide!.scale).map((slide) => ({ seatHeight: height.label, seatSlide: slide.label })),
  )
  const fits = pairs
    .map((marks) => ({ marks, deg: trueFlexionDeg(rider, marks), mm: truePlumbMm(rider, marks) }))
    .filter(({ deg, mm }) => inWindow(deg, [26, 34]) && inWindow(mm, PLUMB_WINDOW_MM.plumb))
  const off = ({ deg, mm }: (typeof fits)[number]) => Math.abs(deg - 30) + Math.abs(mm) / 3
  return fits.length === 0 ? null : fits.reduce((a, b) => (off(b) < off(a) ? b : a)).marks
}
