import { pedalSurfaceMm, type Bike, type BikeType, type PedalSide } from '../bike/bike'
import { axisPositions, contactPoints } from '../bike/contactPoints'
import type { Marks } from '../conventions'
import { needsMarks } from '../evidence/evidence'
import type { Observer } from '../evidence/defineKind'
import { likelihoodOf, type Evidence } from '../evidence/registry'
import type { SingleLikelihood } from '../inference/likelihood'
import type { Footing } from '../inference/particles'
import { combineRepeats, type CombinedLikelihoods } from '../inference/repeatedReadings'
import { DEFAULT_SOLE_MM } from '../rider/anthropometry'
import { spacingMm } from '../scale/scale'
import type { School } from '../school/school'
import { marksHistory } from './marksHistory'

/** The rows of one set-up on one bike, in time order. */
export type SetupRows = Readonly<{ bikeType: BikeType; bike?: Bike; evidence: readonly Evidence[] }>

/** What the rows of one set-up say of its rider, each at the marks and on the footing it was read at. */
export type SetupReadings = Readonly<{
  /** Where the axes stood at each row, and the marks named up to the last. */
  at: readonly Marks[]
  now: Marks
  footing: Footing
  soleTold: boolean
  /** Of each row; null where it says nothing of the body. */
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
  const footings = footingsOf(bikeType, evidence)
  const stepMm = spacingMm(bikeType.axes.seatHeight.scale)
  const likelihoodAt: SetupReadings['likelihoodOf'] = (row, i, where) =>
    likelihoodOf(row, {
      bikeType,
      contact: contactPoints(bikeType, bike, axisPositions(bikeType, where)),
      spacingMm: stepMm,
      footing: footings[i],
      school,
      observer,
    })
  const likelihoods = evidence.map((row, i) => likelihoodAt(row, i, at[i]))
  const keys = evidence.map((row, i) => repeatKey(row, at[i]))
  return {
    at,
    now,
    footing: footings.at(-1) ?? { soleMm: DEFAULT_SOLE_MM, pedalSurfaceMm: bikeType.pedalSurfaceMm },
    soleTold: evidence.some((row) => row.kind === 'rider' && row.soleMm !== undefined),
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
 * The sole worn and the pedal's side ridden at each row: as told by the latest row so far, since what was read before
 * stays read on the footing of then.
 */
function footingsOf(bikeType: BikeType, evidence: readonly Evidence[]): Footing[] {
  let soleMm = DEFAULT_SOLE_MM
  let side: PedalSide | undefined
  return evidence.map((row) => {
    if (row.kind === 'rider') {
      soleMm = row.soleMm ?? soleMm
      side = row.pedal ?? side
    }
    return { soleMm, pedalSurfaceMm: pedalSurfaceMm(bikeType, side) }
  })
}

/**
 * What a row shares its error with: the same kind, by the same means and with the same meaning, on the same side, with
 * the saddle (or for a check of the bars, saddle and bars) at the same place.
 */
function repeatKey(row: Evidence, at: Marks): string {
  const meaning = MEANINGS.map((field) => (field in row ? (row as Record<string, unknown>)[field] : undefined))
  const means = [row.kind, ...meaning, row.side]
  return JSON.stringify(needsMarks(row) ? [...means, at.seatHeight, at.seatSlide, at.barHeight, at.barSlide] : means)
}

const MEANINGS = ['by', 'landmark', 'segment', 'shod', 'from', 'readBy', 'foot', 'moving'] as const
