import type { BikeType } from '../bike/bike'
import { placeAt } from '../bike/place'
import { calibrate, fitOf, type Fitted, type Refused } from './calibrate'
import { nextReading, type NextReading } from './nextReading'
import { positionsOn } from './parameters'
import { LENGTHS, observationsOf, type LengthName, type TapeReading } from './readings'

/** Every length this well known over the whole range is enough, one spread, mm. */
export const DONE_MM = 3
/** Fewer settings than this leave nothing over to find a blunder with. */
const LEAST_READINGS = 6

/** How far a calibration has come: the fit so far, where to measure next, and whether it is enough. */
export type Bench = Readonly<{
  fit: Fitted | Refused
  next: NextReading
  done: boolean
  /** Why it cannot be put in force yet, or null. */ blocked: Refused | null
}>

/** The bench after these readings. The fit is shown from the first reading on, also where an axis was read at one mark only. */
export function bench(bikeType: BikeType, readings: readonly TapeReading[]): Bench {
  const observed = observationsOf(readings)
  const whole = calibrate(bikeType, readings)
  const fit = whole.outcome === 'refused' && whole.reason === 'tooFewMarks' ? fitOf(bikeType, observed) : whole
  const next = nextReading(bikeType, readings)
  const sure = whole.outcome === 'fitted' && LENGTHS.every((length) => whole.expectedErrorMm[length] < DONE_MM)
  const done = sure && readings.length >= LEAST_READINGS && whole.suspects.length === 0 && whole.strays.length === 0
  return { fit, next, done, blocked: whole.outcome === 'refused' ? whole : null }
}

/** Something odd about a reading before it is kept. */
export type TapeDoubt = Readonly<{
  length: LengthName
  mm: number
  expectedMm: number
  code: 'tenfold' | 'inches' | 'far'
}>

/** Beyond this from what the bike should read, a number is asked about, mm: a rough guess is never that far off. */
const FAR_MM = 90

/** The first number of a reading that looks like a slip (wrong unit, or far from what is expected), or null. */
export function doubtAbout(
  bikeType: BikeType,
  readings: readonly TapeReading[],
  { marks, lengths }: TapeReading,
): TapeDoubt | null {
  const observed = observationsOf(readings)
  const fit = observed.length === 0 ? null : fitOf(bikeType, observed)
  const known = fit?.outcome === 'fitted' ? fit.bikeType : bikeType
  const expected = placeAt(known, undefined, positionsOn(known, marks)).lengths
  for (const length of LENGTHS) {
    const mm = lengths[length]
    if (mm === undefined || Math.abs(mm - expected[length]) <= FAR_MM) continue
    const doubt = { length, mm, expectedMm: expected[length] }
    if (Math.abs(10 * mm - expected[length]) <= FAR_MM) return { ...doubt, code: 'tenfold' }
    return { ...doubt, code: Math.abs(25.4 * mm - expected[length]) <= FAR_MM ? 'inches' : 'far' }
  }
  return null
}
