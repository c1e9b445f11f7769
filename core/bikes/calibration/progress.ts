import type { BikeType } from '../bike/bike'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import { calibrate, fitReadings, type Fitted, type Refused } from './calibrate'
import { nextDesignPoint, type DesignPoint } from './nextDesignPoint'
import { LENGTHS, observationsOf, type LengthName, type TapeReading } from './readings'

/** Sufficient standard deviation of every length over the whole range, mm. */
export const SUFFICIENT_SD_MM = 3
/** Fewer settings than this leave nothing over to find a blunder with. */
const MIN_READINGS = 6

/** How far a calibration has come: the fit so far, where to measure next, and whether it is enough. */
export type CalibrationProgress = Readonly<{
  fit: Fitted | Refused
  next: DesignPoint
  done: boolean
  /** Why it cannot be put in force yet, or null. */ blocked: Refused | null
}>

/**
 * The calibration after these readings. The fit is shown from the first reading on, also where an axis was read at one
 * mark only.
 */
export function calibrationProgress(bikeType: BikeType, readings: readonly TapeReading[]): CalibrationProgress {
  const observed = observationsOf(readings)
  const calibrated = calibrate(bikeType, readings)
  const fit =
    calibrated.outcome === 'refused' && calibrated.reason === 'tooFewMarks'
      ? fitReadings(bikeType, observed)
      : calibrated
  const next = nextDesignPoint(bikeType, readings)
  const sure =
    calibrated.outcome === 'fitted' && LENGTHS.every((length) => calibrated.expectedErrorMm[length] < SUFFICIENT_SD_MM)
  const done =
    sure && readings.length >= MIN_READINGS && calibrated.suspects.length === 0 && calibrated.strays.length === 0
  return { fit, next, done, blocked: calibrated.outcome === 'refused' ? calibrated : null }
}

/** A warning about a reading before it is stored. */
export type InputWarning = Readonly<{
  length: LengthName
  mm: number
  expectedMm: number
  code: 'tenfold' | 'inches' | 'far'
}>

/** A number farther than this from its prediction needs a confirmation, mm: a rough guess is never that far off. */
const IMPLAUSIBLE_MM = 90

/** The first number of a reading that looks like a slip (wrong unit, or far from what is expected), or null. */
export function checkPlausibility(
  bikeType: BikeType,
  readings: readonly TapeReading[],
  { marks, lengths }: TapeReading,
): InputWarning | null {
  const observed = observationsOf(readings)
  const fit = observed.length === 0 ? null : fitReadings(bikeType, observed)
  const fitted = fit?.outcome === 'fitted' ? fit.bikeType : bikeType
  const expected = contactPoints(fitted, undefined, axisPositions(fitted, marks)).lengths
  for (const length of LENGTHS) {
    const mm = lengths[length]
    if (mm === undefined || Math.abs(mm - expected[length]) <= IMPLAUSIBLE_MM) continue
    const anomaly = { length, mm, expectedMm: expected[length] }
    if (Math.abs(10 * mm - expected[length]) <= IMPLAUSIBLE_MM) return { ...anomaly, code: 'tenfold' }
    return { ...anomaly, code: Math.abs(25.4 * mm - expected[length]) <= IMPLAUSIBLE_MM ? 'inches' : 'far' }
  }
  return null
}
