import { momentsOf } from '../../../riders/inference/moments'
import type { Posterior } from '../../../riders/inference/posterior'
import { logLikelihoods, quantityOf, type SingleLikelihood } from '../../../riders/inference/likelihood'
import { LEG_AXES } from '../../../base/adjustments'
import { agreeOn, type Marks } from '../../../base/conventions'
import { latest } from '../../../riders/evidence/evidence'
import type { Evidence } from '../../../riders/evidence/registry'
import { MEASUREMENT_SD } from '../../../base/measurementNoise'

/** A reading this many of its standard deviations off the posterior of all the evidence contradicts it. */
const CONTRADICTS_SDS = 3
/** A category with less chance than this under the whole posterior contradicts it. */
const CONTRADICTS_CHANCE = 0.02
/**
 * Inseam as a share of stature outside of which it needs a confirmation: mean 0.482, about three standard deviations.
 */
export const USUAL_INSEAM_SHARE = Object.freeze([0.42, 0.545] as const)

/** The usual slips of a reading that does not go with the rest, each as the reading it would then have been. */
export type ReadingSlip =
  | 'betweenTheBones'
  | 'heelForBall'
  | 'otherLeg'
  | 'moving'
  | 'inShoes'
  | 'otherLandmark'
  | 'neighbouringMark'
  | 'middleOfKneecap'
  | 'signTurned'

/** An item of evidence that does not go with the rest, or is rare enough to be read again. `evidence` counts from 0. */
export type Anomaly =
  | Readonly<{ evidence: number; code: 'contradicts'; slip?: ReadingSlip }>
  | Readonly<{ evidence: number; code: 'unusualInseam' }>
  /** Repeats at one place that no error explains: it is read again. */
  | Readonly<{ evidence: number; code: 'readAgain' }>
  /** A word seen on one side and another on the other; a pelvis that rocks one way. */
  | Readonly<{ evidence: number; code: 'sidesDiffer' | 'rocksOneWay' }>
  /** Left minus right, degrees, beyond what the readings' own error explains. */
  | Readonly<{ evidence: number; code: 'asymmetry'; deg: number }>

/** Sides that differ by more than this many standard deviations of a reading are reported, never averaged silently. */
const ASYMMETRY_SDS = 3

/** Doubts that come from rows beside each other: repeats that contradict, and sides that differ. */
export function repeatAnomalies(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  contradicting: readonly boolean[],
  /** Left minus right knee flexion that a measured leg difference explains, degrees. */
  expectedDeg = 0,
): Anomaly[] {
  const again: Anomaly[] = [...readAgainAnomalies(contradicting), ...sideAnomalies(evidence, at, expectedDeg !== 0)]
  const last = evidence.findLastIndex((row) => row.kind === 'kneeAngle' && row.side !== undefined)
  if (last < 0) return again
  const here = (i: number, side: 'left' | 'right') => (row: Evidence, k: number) =>
    row.kind === 'kneeAngle' && row.side === side && sameSaddle(at[k], at[i])
  const [left, right] = (['left', 'right'] as const).map((side) => evidence.findLast(here(last, side)))
  if (left?.kind !== 'kneeAngle' || right?.kind !== 'kneeAngle') return again
  const deg = left.deg - right.deg
  return Math.abs(deg - expectedDeg) > ASYMMETRY_SDS * MEASUREMENT_SD.goniometerDeg
    ? [...again, { evidence: last, code: 'asymmetry', deg }]
    : again
}

const readAgainAnomalies = (contradicting: readonly boolean[]): Anomaly[] =>
  contradicting.flatMap((does, i): Anomaly[] => (does ? [{ evidence: i, code: 'readAgain' }] : []))

const sameSaddle = (a: Marks, b: Marks): boolean => agreeOn(LEG_AXES, a, b)

/** Words that differ from left to right with the saddle at one place, and a pelvis that rocks one way. */
function sideAnomalies(evidence: readonly Evidence[], at: readonly Marks[], isExpected: boolean): Anomaly[] {
  const lastRock = evidence.findLastIndex((row) => row.kind === 'rocking')
  const rock = lastRock < 0 ? undefined : evidence[lastRock]
  const oneWay = rock?.kind === 'rocking' && (rock.seen === 'left' || rock.seen === 'right')
  const differing = (isExpected ? [] : (['kneeByEye', 'heelCheck'] as const)).flatMap((kind): Anomaly[] => {
    const last = evidence.findLastIndex((row) => row.kind === kind && row.side !== undefined)
    if (last < 0) return []
    const seen = (['left', 'right'] as const).map((side) => {
      const row = evidence.findLast((r, k) => r.kind === kind && r.side === side && sameSaddle(at[k], at[last]))
      return row?.kind === kind ? row.seen : undefined
    })
    return seen[0] && seen[1] && seen[0] !== seen[1] ? [{ evidence: last, code: 'sidesDiffer' }] : []
  })
  return [...(oneWay ? [{ evidence: lastRock, code: 'rocksOneWay' as const }] : []), ...differing]
}

/** Every doubt about the rows. `statements[i]` belongs to row i, null where the row is no evidence of the body. */
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
    const { mean } = momentsOf(posterior, (samples) => quantityOf(likelihood, samples))
    return Math.abs(likelihood.value - mean) > CONTRADICTS_SDS * likelihood.sd
  }
  return momentsOf(posterior, (samples) => logLikelihoods(likelihood, samples).map(Math.exp)).mean < CONTRADICTS_CHANCE
}
