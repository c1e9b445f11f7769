import jstat from 'jstat'
import type { Bike, BikeType } from '../../bikes/bike/bike'
import { axisPositions, contactPoints } from '../../bikes/bike/contactPoints'
import type { Marks } from '../../base/conventions'
import type { Evidence, EvidenceOf } from '../../riders/evidence/registry'
import { KNEE_READING_SD_DEG } from '../../riders/evidence/kinds/onBike/kneeAngle'
import { KNEE_BY_EYE_DEG } from '../../riders/evidence/kinds/onBike/kneeByEye'
import { MEASUREMENT_SD, MOVING_MORE_SD_DEG } from '../../base/measurementNoise'
import { staticFlexionDeg } from '../recommend/history/lastReadings'
import { DEFAULT_SOLE_MM } from '../../riders/rider/anthropometry'
import { farthestPedalMm } from '../translate/contactGeometry'

/** One rider's looks at one machine, with the estimated bike. */
export type MachineLooks = Readonly<{ bikeType: BikeType; bike?: Bike; evidence: readonly Evidence[] }>

/**
 * Estimate of the leg from these looks, by this machine's marks: the distance from seat point to farthest pedal, less
 * the sole, at which the knee would bend by 30°, mm; its standard deviation; and whether it rests on eyes alone.
 */
export type HeightByKnee = Readonly<{ heightMm: number; sdMm: number; byEye: boolean }>

/** What heights are compared at; any one serves, since a rider's own is taken out. */
const COMPARED_AT_DEG = 30
/** Prior of riders' knees at saddles as set, before a look, degrees. Assumption. */
const USUAL_KNEE_SD_DEG = 8

type KneeRow = EvidenceOf<'kneeAngle'> | EvidenceOf<'kneeByEye'>

/**
 * The height by the knee from all looks of one set-up, weighed by how sure each is; looks by eye count where no
 * instrument was used. Null where no knee was looked at with the ball of the foot on the pedal. From hip to ankle are
 * two equal bones, 2·a·cos(bend/2): as far as from the seat to the pedal, less what foot and sole take more than the
 * hip.
 */
export function heightByKnee({ bikeType, bike, evidence }: MachineLooks): HeightByKnee | null {
  let currentMarks: Marks = {}
  let soleMm = DEFAULT_SOLE_MM
  const looks: Readonly<{ row: KneeRow; reachMm: number }>[] = []
  for (const row of evidence) {
    currentMarks = { ...currentMarks, ...row.at }
    if (row.kind === 'rider') soleMm = row.soleMm ?? soleMm
    if ((row.kind === 'kneeAngle' && row.foot !== 'heel') || row.kind === 'kneeByEye') {
      if (currentMarks.seatHeight === undefined) continue
      const { seat } = contactPoints(bikeType, bike, axisPositions(bikeType, currentMarks))
      looks.push({ row, reachMm: farthestPedalMm(seat, bikeType) })
    }
  }
  const measured = looks.filter(({ row }) => row.kind === 'kneeAngle')
  const counted = measured.length > 0 ? measured : looks
  if (counted.length === 0) return null
  let [weight, sum] = [0, 0]
  for (const { row, reachMm } of counted) {
    const { deg, sdDeg } = kneeOf(row)
    const bonesMm = (reachMm - FOOT_MORE_THAN_HIP_MM) / Math.cos(inRad(deg) / 2)
    const expectedMm = bonesMm * Math.cos(inRad(COMPARED_AT_DEG) / 2) + FOOT_MORE_THAN_HIP_MM
    const sdMm = 0.5 * bonesMm * Math.tan(inRad(Math.max(deg, MIN_SLOPE_DEG)) / 2) * inRad(sdDeg)
    weight += 1 / sdMm ** 2
    sum += expectedMm / sdMm ** 2
  }
  return { heightMm: sum / weight - soleMm, sdMm: Math.sqrt(1 / weight), byEye: measured.length === 0 }
}
/** Ankle above the pedal, less hip joint above the seat point, along the leg, mm: of the mean body, roughly. */
const FOOT_MORE_THAN_HIP_MM = 60
/** A leg nearly straight hardly bends with the height: below this bend it is no surer than here. */
const MIN_SLOPE_DEG = 15

const inRad = (deg: number): number => (deg * Math.PI) / 180

const kneeOf = (row: KneeRow): Readonly<{ deg: number; sdDeg: number }> =>
  row.kind === 'kneeAngle'
    ? {
        deg: staticFlexionDeg(row),
        sdDeg: Math.hypot(KNEE_READING_SD_DEG[row.by], row.moving ? MOVING_MORE_SD_DEG : 0),
      }
    : kneeByWord(row.seen)

/**
 * The likelihood of a word for the bend as a normal distribution: the posterior of a knee that was
 * somewhere about 30°, with that belief taken out again.
 */
export function kneeByWord(seen: EvidenceOf<'kneeByEye'>['seen']): Readonly<{ deg: number; sdDeg: number }> {
  const { from, to } = KNEE_BY_EYE_DEG[seen]
  const [before, eye] = [USUAL_KNEE_SD_DEG ** 2, MEASUREMENT_SD.kneeByEyeDeg ** 2]
  const sd = Math.sqrt(before + eye)
  const [a, b] = [(from - COMPARED_AT_DEG) / sd, (to - COMPARED_AT_DEG) / sd]
  const density = (z: number) => (Number.isFinite(z) ? jstat.jStat.normal.pdf(z, 0, 1) : 0)
  const below = (z: number) => (Number.isFinite(z) ? jstat.jStat.normal.cdf(z, 0, 1) : z > 0 ? 1 : 0)
  const times = (z: number) => (Number.isFinite(z) ? z * density(z) : 0)
  // Mean and variance of what the eye saw, cut to the word's ends (the usual formulas of a truncated normal).
  const share = below(b) - below(a)
  const mean = (density(a) - density(b)) / share
  const variance = 1 + (times(a) - times(b)) / share - mean ** 2
  const gain = before / (before + eye)
  const after = before * (1 - gain) + gain ** 2 * variance * sd ** 2
  const precision = 1 / after - 1 / before
  return {
    deg: COMPARED_AT_DEG + (gain * mean * sd) / after / precision,
    sdDeg: Math.sqrt(1 / precision),
  }
}
