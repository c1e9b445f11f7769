import { pedalSurfaceMm, type Bike, type BikeType, type PedalSide } from '../../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../../bikes/bike/contactPoints'
import { crankMmAt } from '../../../bikes/bike/standing'
import { AXES } from '../../../base/adjustments'
import type { Marks } from '../../../base/conventions'
import { needsMarks } from '../../../riders/evidence/evidence'
import type { Observer } from '../../../riders/evidence/definition/defineKind'
import { likelihoodOf, type Evidence } from '../../../riders/evidence/registry'
import type { SingleLikelihood } from '../../../riders/inference/likelihood'
import type { Footing } from '../../../riders/inference/particles'
import { combineRepeats, type CombinedLikelihoods } from '../../../riders/inference/repeatedReadings'
import { DEFAULT_SOLE_MM } from '../../../riders/rider/anthropometry'
import { spacingMm } from '../../../bikes/scale/scale'
import type { School } from '../../../base/school/school'
import { marksHistory } from './marksHistory'

/** The rows of one set-up on one bike, in time order. */
export type SetupRows = Readonly<{ bikeType: BikeType; bike?: Bike; evidence: readonly Evidence[] }>

/** Readings of one set-up, each with the marks and the footing it was taken at. */
export type SetupReadings = Readonly<{
  /** Positions of the axes at each row, and the marks named up to the last. */
  at: readonly Marks[]
  now: Marks
  footing: Footing
  isSoleGiven: boolean
  /** Of each row; null where it is no evidence of the body. */
  likelihoods: readonly (SingleLikelihood | null)[]
  /** Of row i read otherwise, with the axes standing elsewhere. */
  likelihoodOf: (row: Evidence, i: number, at: Marks) => SingleLikelihood | null
  /** What each row shares its error with. */
  keys: readonly string[]
  /** Those of the first so many rows, repeats combined. */
  combined: (rows: number) => CombinedLikelihoods
}>

export function readSetup(
  { bikeType, bike, evidence }: SetupRows,
  school: School,
  observer: Observer | undefined,
): SetupReadings {
  const { at, now } = marksHistory(bikeType, evidence)
  const footings = footingsOf(bikeType, evidence, at)
  const stepMm = spacingMm(bikeType.axes.seatHeight.scale)
  const likelihoodAt: SetupReadings['likelihoodOf'] = (row, i, where) =>
    likelihoodOf(row, {
      bikeType,
      contact: contactPoints(bikeType, bike, axisPositions(bikeType, where)),
      spacingMm: stepMm,
      ...(bike?.saddle && { noseDeltaMm: bike.saddle.noseDeltaMm }),
      footing: footings[i],
      school,
      observer,
    })
  const likelihoods = evidence.map((row, i) => likelihoodAt(row, i, at[i]))
  const keys = evidence.map((row, i) => repeatKey(row, at[i]))
  return {
    at,
    now,
    footing: footings.at(-1) ?? footingOn(bikeType, DEFAULT_SOLE_MM, undefined, {}),
    isSoleGiven: evidence.some((row) => row.kind === 'rider' && row.soleMm !== undefined),
    likelihoods,
    likelihoodOf: likelihoodAt,
    keys,
    combined: (rows) =>
      combineRepeats(
        likelihoods.slice(0, rows).flatMap((likelihood, i) => (likelihood ? [{ key: keys[i], likelihood }] : [])),
      ),
  }
}

/**
 * The sole worn and the pedal's side ridden at each row: by the latest row so far, since what was read before
 * stays read on the footing of then.
 */
function footingsOf(bikeType: BikeType, evidence: readonly Evidence[], at: readonly Marks[]): Footing[] {
  let soleMm = DEFAULT_SOLE_MM
  let side: PedalSide | undefined
  return evidence.map((row, i) => {
    if (row.kind === 'rider') {
      soleMm = row.soleMm ?? soleMm
      side = row.pedal ?? side
    }
    return footingOn(bikeType, soleMm, side, at[i])
  })
}

const footingOn = (bikeType: BikeType, soleMm: number, side: PedalSide | undefined, marks: Marks): Footing => ({
  soleMm,
  pedalSurfaceMm: pedalSurfaceMm(bikeType, side),
  ...(bikeType.axes.crankLength && { crankMm: crankMmAt(bikeType, marks) }),
})

/**
 * What a row shares its error with: the same kind, by the same means and with the same meaning, on the same side, with
 * the saddle (or for a check of the bars, saddle and bars) at the same place.
 */
function repeatKey(row: Evidence, at: Marks): string {
  const meaning = MEANINGS.map((field) => (field in row ? (row as Record<string, unknown>)[field] : undefined))
  const means = [row.kind, ...meaning, row.side]
  return JSON.stringify(needsMarks(row) ? [...means, ...AXES.map((axis) => at[axis])] : means)
}

const MEANINGS = ['by', 'landmark', 'segment', 'shod', 'from', 'readBy', 'foot', 'moving'] as const
