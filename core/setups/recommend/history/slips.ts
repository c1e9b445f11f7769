import type { Marks } from '../../../base/conventions'
import type { Anomaly, ReadingSlip } from './anomalies'
import type { SetupReadings, SetupRows } from './setupReadings'
import type { Evidence } from '../../../riders/evidence/registry'
import { logLikelihoods, type SingleLikelihood } from '../../../riders/inference/likelihood'
import { momentsOf } from '../../../riders/inference/moments'
import type { ModelInputs } from '../../../riders/inference/particles'
import { samplePosterior, type Posterior } from '../../../riders/inference/posterior'
import { combineRepeats } from '../../../riders/inference/repeatedReadings'
import { positionsOf } from '../../../bikes/scale/scale'

export type AlternativeReading = Readonly<{ slip: ReadingSlip; row: Evidence; at: Marks }>

/**
 * What a row may have meant instead: another foot, leg, landmark, unit, mark or way to count. Which of these explains a
 * reading is compared with the posterior of the other rows.
 */
export function alternativeReadings(
  { bikeType }: Pick<SetupRows, 'bikeType'>,
  row: Evidence,
  at: Marks,
): AlternativeReading[] {
  const meant: AlternativeReading[] = []
  const add = (slip: ReadingSlip, changed: Evidence, where: Marks = at) => meant.push({ slip, row: changed, at: where })
  switch (row.kind) {
    case 'kneeAngle':
      if (row.foot !== 'heel') add('heelForBall', { ...row, foot: 'heel' })
      if (row.deg > 60) add('betweenTheBones', { ...row, deg: 180 - row.deg })
      if (!row.moving) add('moving', { ...row, moving: true })
      if (row.side) add('otherLeg', { ...row, side: row.side === 'left' ? 'right' : 'left' })
      break
    case 'rocking':
      if (row.foot !== 'heel') add('heelForBall', { ...row, foot: 'heel' })
      break
    case 'inseam':
    case 'landmarkHeight':
      if (!row.shod) add('inShoes', { ...row, shod: true })
      break
    case 'plumb':
      if (row.from !== 'middle') add('middleOfKneecap', { ...row, from: 'middle' })
      if (Math.abs(row.mm) > 10) add('signTurned', { ...row, mm: -row.mm })
      break
  }
  if (row.kind === 'landmarkHeight')
    for (const landmark of ['hipCrest', 'frontHipBone', 'trochanter'] as const)
      if (landmark !== row.landmark) add('otherLandmark', { ...row, landmark })
  if (row.kind === 'landmarkAtMark')
    for (const landmark of ['hipCrest', 'frontHipBone'] as const)
      if (landmark !== row.landmark) add('otherLandmark', { ...row, landmark })
  if (row.at?.seatHeight !== undefined)
    for (const seatHeight of neighbours(bikeType, row.at.seatHeight))
      add('neighbouringMark', { ...row, at: { ...row.at, seatHeight } }, { ...at, seatHeight })
  return meant
}

function neighbours(bikeType: SetupRows['bikeType'], label: string): string[] {
  const positions = positionsOf(bikeType.axes.seatHeight.scale)
  const here = positions.findIndex((p) => p.label === label)
  return [positions[here - 1], positions[here + 1]].flatMap((p) => (p ? [p.label] : []))
}

/** A reading explains itself where it lies within so many of its spreads, or its word has at least such a chance. */
const EXPLAINS_SDS = 2
const EXPLAINS_CHANCE = 0.15

/** Maximum number of contradicting readings examined: each needs a posterior of its own. */
const MAX_LOOKED_INTO = 3
const PARTICLES = 1000

type Inputs = Readonly<{ inputs: ModelInputs; readings: SetupReadings; rows: SetupRows; seed: number }>

/**
 * The anomalies, those of a reading that contradicts the rest with the slip that would explain it: the first of its
 * alternative readings that agrees with all the other rows.
 */
export function withSlips(anomalies: readonly Anomaly[], { inputs, readings, rows, seed }: Inputs): Anomaly[] {
  const looked = anomalies.filter(({ code }) => code === 'contradicts').slice(0, MAX_LOOKED_INTO)
  return anomalies.map((anomaly): Anomaly => {
    if (anomaly.code !== 'contradicts' || !looked.includes(anomaly)) return anomaly
    const i = anomaly.evidence
    const others = combineRepeats(
      readings.likelihoods.flatMap((likelihood, k) =>
        likelihood && k !== i ? [{ key: readings.keys[k], likelihood }] : [],
      ),
    )
    const without = samplePosterior(inputs, others.likelihoods, seed, PARTICLES)
    const own = readings.likelihoods[i]
    if (!own || agrees(own, without)) return anomaly
    const slip = alternativeReadings(rows, rows.evidence[i], readings.at[i]).find(({ row, at }) => {
      const likelihood = readings.likelihoodOf(row, i, at)
      return likelihood !== null && agrees(likelihood, without)
    })?.slip
    return slip ? { ...anomaly, slip } : anomaly
  })
}

/** Whether a reading agrees with what is believed without it. */
export function agrees(likelihood: SingleLikelihood, posterior: Posterior): boolean {
  if (likelihood.form === 'gaussian') {
    const { mean, sd } = momentsOf(posterior, likelihood.quantity)
    return Math.abs(likelihood.value - mean) <= EXPLAINS_SDS * Math.hypot(sd, likelihood.sd)
  }
  return momentsOf(posterior, (p) => logLikelihoods(likelihood, p).map(Math.exp)).mean >= EXPLAINS_CHANCE
}
