import { Type } from '@sinclair/typebox'
import { bikeTypeRef } from '../../bikes/bike/bike'
import { calibrate as fitType, type Fitted, type Outlier, type Refused } from '../../bikes/calibration/calibrate'
import { nextDesignPoint, type DesignPoint } from '../../bikes/calibration/nextDesignPoint'
import type { PriorOutlier } from '../../bikes/calibration/parameters'
import { tapeReadingSchema } from '../../bikes/calibration/readings'
import type { TapeSlip } from '../../bikes/calibration/slips'
import {
  formatCalibrationRefusal,
  formatDesignPoint,
  formatOutlier,
  formatSlip,
  formatStray,
} from '../../messages/bikes/calibration'
import type { Issue } from '../../messages/words/issues'
import { closed, type Plain } from '../../base/schema'
import { bikeTypeIssues, marksIssues } from './bikeIssues'

export const calibrateSchema = closed({
  bikeType: bikeTypeRef,
  readings: Type.Array(tapeReadingSchema, { maxItems: 60 }),
})
export type CalibrateRequest = Plain<typeof calibrateSchema>

type WithWhy<T> = readonly (T & Readonly<{ why: string }>)[]

/**
 * `calibrate`'s answer: the fit with a sentence for each suspect and each part that strays from the guess, or why not;
 * what all readings may have in common; either way where to measure next.
 */
export type CalibrateResponse = (
  | (Omit<Fitted, 'suspects' | 'strays' | 'slips'> &
      Readonly<{ suspects: WithWhy<Outlier>; strays: WithWhy<PriorOutlier> }>)
  | (Refused & Readonly<{ say: string }>)
) &
  Readonly<{ slips: WithWhy<TapeSlip>; next: DesignPoint & Readonly<{ sentence: string }> }>

/** `calibrate`: a type's geometry from tape readings, the readings that do not belong, and where to measure next. */
export function calibrate({ bikeType, readings }: CalibrateRequest): CalibrateResponse {
  const fit = fitType(bikeType, readings)
  const proposed = nextDesignPoint(bikeType, readings)
  const next = { ...proposed, sentence: formatDesignPoint(bikeType, proposed.marks) }
  const slips = (fit.slips ?? []).map((slip) => ({ ...slip, why: formatSlip(bikeType, slip) }))
  if (fit.outcome === 'refused') return { ...fit, say: formatCalibrationRefusal(bikeType, fit), slips, next }
  const suspects = fit.suspects.map((outlier) => ({ ...outlier, why: formatOutlier(bikeType, readings, outlier) }))
  const strays = fit.strays.map((stray) => ({ ...stray, why: formatStray(stray) }))
  return { ...fit, suspects, strays, slips, next }
}

export function calibrateIssues({ bikeType, readings }: CalibrateRequest): Issue[] {
  return [
    ...bikeTypeIssues(bikeType, '/bikeType'),
    ...readings.flatMap(({ marks }, i) => marksIssues(bikeType, marks, `/readings/${i}/marks`)),
  ]
}
