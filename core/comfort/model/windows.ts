import { assessTilt } from '../../bikes/bike/tilt'
import { barPostureFor, barWindowMm } from '../../base/school/barPosture'
import { PLUMB_WINDOW_MM, type School } from '../../base/school/school'
import type { ExplainRequest, Finding } from './request'

/** What the windows of a rider's checks depend on. */
export type WindowContext = Pick<ExplainRequest, 'experience' | 'health'> & Readonly<{ school: School }>

/** How far a value lies beyond a window: plus above it, minus below, 0 within. */
export const offWindow = (value: number, [low, high]: readonly [number, number]): number =>
  value > high ? value - high : value < low ? value - low : 0

/**
 * Where the plumb line should fall, mm; a school without a plumb line guards against gross errors only, as the balance
 * school does.
 */
export const plumbWindowMm = ({ foreAft }: Pick<School, 'foreAft'>): readonly [number, number] =>
  PLUMB_WINDOW_MM[foreAft === 'unused' ? 'balance' : foreAft]

/** Window of the bars against the saddle, mm, by school, health and experience; level by default. */
export function barsWindowMm({
  school,
  experience = 'regular',
  health = [],
}: WindowContext): readonly [number, number] {
  const rider = { experience, pregnant: health.includes('pregnant') }
  return barWindowMm(school, barPostureFor(school, rider, undefined).posture)
}

/** A saddle's tilt, judged by its shape, how the board lay and the studio's school. */
export const tiltOutcome = (reading: Extract<Finding, { kind: 'tilt' }>, school: School) =>
  tiltAssessment(reading, school).outcome
export const tiltAssessment = (
  { deg, shape = 'flat', across = 'highestPoints' }: Extract<Finding, { kind: 'tilt' }>,
  school: Pick<School, 'tilt'>,
) => assessTilt({ deg, floorDeg: 0, across }, shape, school.tilt)
