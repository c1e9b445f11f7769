import { axisOf, type BikeType } from '../bike/bike'
import { findPosition, positionsOf } from '../scale/scale'
import type { Lengths } from '../bike/contactPoints'
import type { AxisName, Label } from '../../base/conventions'
import { axisSdMm, maxPredictionSds, type AxisSds } from './predictionError'
import { fitRobust, fitTape, robustSdMm, type TapeFit } from './fitTape'
import { farFromPrior, typeWith, type PriorOutlier } from './parameters'
import {
  LENGTHS,
  measuredAxesOf,
  observationsOf,
  type LengthName,
  type Observation,
  type TapeReading,
} from './readings'
import { inseparableAxes } from './inseparable'
import { slipsThatExplain, type TapeSlip } from './slips'
import { outlierReason, type OutlierReason } from './outliers'

/** A number left over: `reading` counts from 0, mm = read − fitted. */
export type Residual = Readonly<{ reading: number; length: LengthName; mm: number }>
/** `orReading`: another reading of this length that may be the wrong one instead. */
export type Outlier = Residual & Readonly<{ reason: OutlierReason; orReading?: number }>

export type Fitted = Readonly<{
  outcome: 'fitted'
  /** The guess's labels with the tape's millimetres, directions and origins. */
  bikeType: BikeType
  /** Root mean square of the residues that count. */
  rmsMm: number
  /** Standard error along each axis. */
  sdMm: AxisSds
  /** Largest standard error of each length over the whole range, mm. */
  expectedErrorMm: Lengths
  residues: readonly Residual[]
  suspects: readonly Outlier[]
  /** What came out farther from the guess than a careful guess strays. */
  strays: readonly PriorOutlier[]
  /** Where something strayed: what all readings may have in common, if that explains it. */
  slips: readonly TapeSlip[]
}>

/** Part of a fit that is stored with its version. */
export type TypeCalibration = Readonly<{
  rmsMm: number
  readings: number
  sdMm: AxisSds
  expectedErrorMm: Lengths
}>

export type Refused = Readonly<
  {
    outcome: 'refused'
    /** What all readings may have in common, if that explains it. */ slips?: readonly TapeSlip[]
  } & (
    | { reason: 'noReadings' }
    | { reason: 'tooFewMarks'; axis: AxisName; label: Label }
    /** These two were always moved alike, or by lengths that see only both together. */
    | { reason: 'cannotTellApart'; axes: readonly [AxisName, AxisName] }
    | { reason: 'tooManySuspects'; count: number }
    /** Of one length at least half do not belong. */
    | { reason: 'halfSuspect'; length: LengthName; count: number; of: number }
  )
>

/** In a robust fit a reading this far off does not belong (trade rule of the wire format). */
export const OUTLIER_MM = 6

/** Where the whole tape is rougher than a careful one, a reading must lie this many of its own spreads off. */
const OUTLIER_SDS = 4.5
/** Rougher than this no tape is: what strays farther does not belong, however much of it there is. */
const MAX_TAPE_SD_MM = 4

/**
 * A type's geometry from tape readings: per axis its direction and one factor on the guess's mm, and both origins.
 * Readings more than 6 mm off in a robust fit (more where the whole tape is rough) are named and left out of the final
 * one. Refused where an axis was read at one mark only, where two adjustments cannot be told apart, where nothing was
 * read, or where more than a third of the numbers, or half of one length, do not belong. Where a part strays far from
 * the guess, or the fit is refused for its suspects, the slips that explain it are named.
 */
export function calibrate(bikeType: BikeType, readings: readonly TapeReading[]): Fitted | Refused {
  const observed = observationsOf(readings)
  if (observed.length === 0) return { outcome: 'refused', reason: 'noReadings' }
  const single = axisAtOneMark(bikeType, readings)
  if (single) return { outcome: 'refused', reason: 'tooFewMarks', ...single }
  const alike = inseparableAxes(bikeType, observed)
  if (alike) return { outcome: 'refused', reason: 'cannotTellApart', axes: alike }
  const fit = fitReadings(bikeType, observed)
  const odd = fit.outcome === 'refused' || fit.strays.length > 0
  return odd ? { ...fit, slips: slipsThatExplain(bikeType, observed) } : fit
}

/**
 * The fit so far, also while an axis was read at one mark only: it then stays as guessed, and unsure. Looks for no
 * slips.
 */
export function fitReadings(bikeType: BikeType, observed: readonly Observation[]): Fitted | Refused {
  const robust = fitRobust(bikeType, observed)
  const cutMm = Math.max(
    OUTLIER_MM,
    OUTLIER_SDS * Math.min(MAX_TAPE_SD_MM, robustSdMm(robust.residuals, robust.parameters.length)),
  )
  const belongs = robust.residuals.map((mm) => Math.abs(mm) <= cutMm)
  const count = belongs.filter((b) => !b).length
  const half = halfOutlierLength(observed, belongs)
  if (half) return { outcome: 'refused', reason: 'halfSuspect', ...half }
  if (3 * count > observed.length) return { outcome: 'refused', reason: 'tooManySuspects', count }
  const fit = fitTape(bikeType, observed, belongs.map(Number), robust.parameters)
  const fitted = typeWith(bikeType, fit.parameters)
  const residuals = observed.map(({ reading, length }, k) => ({ reading, length, mm: fit.residuals[k] }))
  const strays = farFromPrior(bikeType, fit.parameters)
  const counted = fit.residuals.filter((_, k) => belongs[k])
  return {
    outcome: 'fitted',
    bikeType: fitted,
    rmsMm: Math.sqrt(counted.reduce((sum, mm) => sum + mm * mm, 0) / counted.length),
    sdMm: axisSdMm(bikeType, fit.parameters, fit.covariance),
    expectedErrorMm: maxPredictionSds(bikeType, fit.parameters, fit.covariance),
    residues: residuals,
    suspects: residuals.flatMap((residual, k): Outlier[] => {
      if (belongs[k]) return []
      const orReading = rivalOf(bikeType, observed, belongs, k, cutMm, fit.parameters)
      const reason = outlierReason(fitted, observed[k], residual.mm)
      return [{ ...residual, reason, ...(orReading !== null && { orReading }) }]
    }),
    strays,
    slips: [],
  }
}

/** With more readings of a length the rest outvotes one that is wrong; ours. */
const MAX_AMBIGUOUS = 4

/**
 * Another reading of the same length that could be the outlier instead of `k`: without it and with `k` the remaining
 * readings fit. Null where there is none, or where the readings suffice to decide.
 */
function rivalOf(
  bikeType: BikeType,
  observed: readonly Observation[],
  belongs: readonly boolean[],
  k: number,
  cutMm: number,
  start: TapeFit['parameters'],
): number | null {
  const same = observed.flatMap(({ length }, j) => (length === observed[k].length ? [j] : []))
  if (same.length > MAX_AMBIGUOUS) return null
  for (const j of same) {
    if (j === k || !belongs[j]) continue
    const counts = belongs.map((one, i) => (i === k ? true : i === j ? false : one))
    const { residuals } = fitTape(bikeType, observed, counts.map(Number), start)
    if (residuals.every((mm, i) => !counts[i] || Math.abs(mm) <= cutMm)) return observed[j].reading
  }
  return null
}

/** Of two readings, the residual of one does not test the other. */
const MIN_OUTLIERS = 2

/** The length of which half the numbers or more do not belong, or null. */
function halfOutlierLength(
  observed: readonly Observation[],
  belongs: readonly boolean[],
): { length: LengthName; count: number; of: number } | null {
  for (const length of LENGTHS) {
    const own = belongs.filter((_, k) => observed[k].length === length)
    const count = own.filter((b) => !b).length
    if (count >= MIN_OUTLIERS && 2 * count >= own.length) return { length, count, of: own.length }
  }
  return null
}

/** An axis that readings name at one single mark though it has more, or null. */
function axisAtOneMark(bikeType: BikeType, readings: readonly TapeReading[]): { axis: AxisName; label: Label } | null {
  for (const axis of measuredAxesOf(bikeType)) {
    const { scale } = axisOf(bikeType, axis)!
    if (positionsOf(scale).length < 2) continue
    const labels = readings.flatMap(({ marks }) => (marks[axis] === undefined ? [] : [marks[axis]]))
    const places = new Set(
      labels.map((label) => {
        const found = findPosition(scale, label)
        return found.outcome === 'found' ? found.stop.label : label
      }),
    )
    if (places.size === 1) return { axis, label: labels[0] }
  }
  return null
}
