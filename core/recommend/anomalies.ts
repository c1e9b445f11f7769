import { momentsOf } from '../inference/moments'
import { type Posterior } from '../inference/posterior'
import { logLikelihoods, type SingleLikelihood } from '../inference/likelihood'
import type { Marks } from '../conventions'
import { latest } from '../evidence/evidence'
import type { Evidence } from '../evidence/registry'
import { MEASUREMENT_SD } from '../measurementNoise'

/** A reading this many of its own spreads away from what all the evidence together says contradicts it. */
const CONTRADICTS_SDS = 3
/** A category with less chance than this under the whole posterior contradicts it. */
const CONTRADICTS_CHANCE = 0.02
/** Inseam as a share of stature outside of which one asks again: mean 0.482, some three spreads. */
export const USUAL_INSEAM_SHARE = Object.freeze([0.42, 0.545] as const)

/** An item of evidence that does not go with the rest, or is rare enough to be read again. `evidence` counts from 0. */
export type Anomaly =
  | Readonly<{ evidence: number; code: 'contradicts' | 'unusualInseam' }>
  /** Repeats at one place that no error explains: it is read again. */
  | Readonly<{ evidence: number; code: 'readAgain' }>
  /** Left minus right, degrees, beyond what the readings' own error explains. */
  | Readonly<{ evidence: number; code: 'asymmetry'; deg: number }>

/** Sides that differ by more than this many of a reading's spreads are told, never averaged silently. */
const ASYMMETRY_SDS = 3

/** Doubts that come from rows beside each other: repeats that contradict, and sides that differ. */
export function repeatAnomalies(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  contradicting: readonly boolean[],
): Anomaly[] {
  const again = contradicting.flatMap((does, i): Anomaly[] => (does ? [{ evidence: i, code: 'readAgain' }] : []))
  const here = (i: number, side: 'left' | 'right') => (row: Evidence, k: number) =>
    row.kind === 'kneeAngle' &&
    row.side === side &&
    at[k].seatHeight === at[i].seatHeight &&
    at[k].seatSlide === at[i].seatSlide
  const last = evidence.findLastIndex((row) => row.kind === 'kneeAngle' && row.side !== undefined)
  if (last < 0) return again
  const [left, right] = (['left', 'right'] as const).map((side) => evidence.findLast(here(last, side)))
  if (left?.kind !== 'kneeAngle' || right?.kind !== 'kneeAngle') return again
  const deg = left.deg - right.deg
  return Math.abs(deg) > ASYMMETRY_SDS * MEASUREMENT_SD.goniometerDeg
    ? [...again, { evidence: last, code: 'asymmetry', deg }]
    : again
}

/** Every doubt about the rows. `statements[i]` belongs to row i, null where the row says nothing of the body. */
export function detectAnomalies(
  evidence: readonly Evidence[],
  likelihoods: readonly (SingleLikelihood | null)[],
  posterior: Posterior,
): Anomaly[] {
  const anomalies: Anomaly[] = []
  likelihoods.forEach((likelihood, i) => {
    if (likelihood && contradicts(likelihood, posterior)) anomalies.push({ evidence: i, code: 'contradicts' })
  })
  const stature = latest(evidence, 'stature')
  evidence.forEach((row, i) => {
    if (row.kind !== 'inseam' || !stature) return
    const share = row.mm / stature.mm
    if (share < USUAL_INSEAM_SHARE[0] || share > USUAL_INSEAM_SHARE[1])
      anomalies.push({ evidence: i, code: 'unusualInseam' })
  })
  return anomalies
}

function contradicts(likelihood: SingleLikelihood, posterior: Posterior): boolean {
  if (likelihood.form === 'gaussian') {
    const { mean } = momentsOf(posterior, likelihood.quantity)
    return Math.abs(likelihood.value - mean) > CONTRADICTS_SDS * likelihood.sd
  }
  return momentsOf(posterior, (samples) => logLikelihoods(likelihood, samples).map(Math.exp)).mean < CONTRADICTS_CHANCE
}
