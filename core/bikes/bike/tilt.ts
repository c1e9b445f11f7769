import { degrees } from '../../base/geometry'
import type { School } from '../../base/school/school'
import type { Bike, BikeType, TILT_ACROSS } from './bike'

/** How the saddle's angle was read: over its two highest points, or over its front half (kicked or split saddles). */
export type TiltAcross = (typeof TILT_ACROSS)[number]
export type TiltReading = Readonly<{ deg: number; floorDeg: number; across: TiltAcross }>

/**
 * Windows of tilt, degrees, minus is nose down: by shape, level, and how far relief goes. Common practice, no source.
 */
const BY_SHAPE = Object.freeze({ flat: [-2, 0], tailKick: [-4, -2], curved: [-6, -3] } as const)
const LEVEL = Object.freeze([-2, 0] as const)
const RELIEF = Object.freeze([-4, 1] as const)
/** A board over the front half alone is judged against level; relief goes as far as over the high points. */
const FRONT_HALF = Object.freeze({ level: [-1, 0], byShape: [-1, 0], relief: [-3, 1] } as const)
/** Beyond the window by this much it is an alarm, degrees (the level school alarms beyond 3–4°). */
const ALARM_DEG = 2
/** A reading this close to the window's edge may be the instrument's own error. */
const INSTRUMENT_DEG = 0.2

export type TiltAssessment = Readonly<{
  /** Saddle against the bike's own level: measured minus the floor's angle there, minus is nose down. */
  deg: number
  windowDeg: readonly [number, number]
  outcome: 'good' | 'noseUp' | 'noseDown'
  alarm: boolean
}>

/** The saddle's tilt with the floor taken off, judged by how the board lay, its shape and the studio's school. */
export function assessTilt(
  { deg, floorDeg, across }: TiltReading,
  shape: BikeType['saddle']['shape'],
  school: School['tilt'],
): TiltAssessment {
  const own = deg - floorDeg
  const windowDeg = across === 'frontHalf' ? FRONT_HALF[school] : overHighPoints(shape, school)
  const [low, high] = windowDeg
  const outside = own > high ? own - high : own < low ? low - own : 0
  const outcome = outside <= INSTRUMENT_DEG ? 'good' : own > high ? 'noseUp' : 'noseDown'
  return { deg: own, windowDeg, outcome, alarm: outside > ALARM_DEG }
}

/** Assesses a machine's stored tilt by how the board lay and the saddle it carries; null without a reading. */
export const assessMachineTilt = (
  { tiltDeg, tiltAcross = 'highestPoints', saddle }: Pick<Bike, 'tiltDeg' | 'tiltAcross' | 'saddle'>,
  shape: BikeType['saddle']['shape'],
  school: School['tilt'],
): TiltAssessment | null =>
  tiltDeg === undefined
    ? null
    : assessTilt({ deg: tiltDeg, floorDeg: 0, across: tiltAcross }, saddle?.shape ?? shape, school)

const overHighPoints = (shape: BikeType['saddle']['shape'], school: School['tilt']) =>
  school === 'level' ? LEVEL : school === 'relief' ? RELIEF : BY_SHAPE[shape]

/**
 * What a wedge under the front feet, or an uneven foot, does: degrees nose up for a lift in mm over the base of the
 * bike, front foot to rear foot, mm. `wedgeTiltDeg(100, 900)` → 6.3 (common practice names 6–7°).
 */
export const wedgeTiltDeg = (liftMm: number, baseMm: number): number => degrees(Math.atan2(liftMm, baseMm))

/**
 * Saddle line: mm the nose points off the frame's line, plus to the right; good within this. Common practice, no
 * source.
 */
export const SADDLE_LINE_GOOD_MM = 2
export const isSaddleStraight = (noseOffMm: number): boolean => Math.abs(noseOffMm) <= SADDLE_LINE_GOOD_MM
