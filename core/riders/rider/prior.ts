import { Type } from '@sinclair/typebox'
import type { Columns } from '../../base/columns'
import { closed, defined, type Plain } from '../../base/schema'
import { FOREARM_TO_GRIP_FRACTION, FRACTION_OF_STATURE as F, SOFT_ELBOW_DEG } from './anthropometry'

/** A normal distribution: mean and standard deviation. Relative quantities have mean 1. */
const normalSchema = closed({ mean: Type.Number(), sd: Type.Number({ minimum: 0 }) })
export type Normal = Plain<typeof normalSchema>

/**
 * What is believed of riders before one of them is looked at. All parts are independent.
 * Names ending in `Factor` multiply the mean proportion, `…Mm` and `…Deg` are absolute.
 */
export type Prior = Readonly<Record<PriorPart, Normal>>

export const PRIOR_PARTS = [
  'statureMm',
  'legFactor',
  'thighShareFactor',
  'ankleHeightFactor',
  'ankleToBallFactor',
  'trochanterAboveInseamFactor',
  'crestAboveTrochanterFactor',
  'frontBoneAboveTrochanterFactor',
  'trunkFactor',
  'armFactor',
  'tissueCompressionMm',
  'patellaAheadMm',
  'bottomPitchDeg',
  'forwardPitchDeg',
  'elbowFlexionDeg',
  'trunkComfortDeg',
] as const
export type PriorPart = (typeof PRIOR_PARTS)[number]

/** Parts of a prior that replace the usual ones. */
export const priorSchema = Type.Partial(
  closed(Object.fromEntries(PRIOR_PARTS.map((part) => [part, normalSchema])) as Record<PriorPart, typeof normalSchema>),
  { additionalProperties: false },
)

const factor = (sd: number): Normal => Object.freeze({ mean: 1, sd })

/** Mixed adults riding with their own ankle. Spreads: our own, from prototypes and memory. */
const NATURAL: Prior = Object.freeze({
  statureMm: { mean: 1690, sd: 88 },
  legFactor: factor(0.035),
  thighShareFactor: factor(0.02),
  ankleHeightFactor: factor(0.05),
  ankleToBallFactor: factor(0.05),
  trochanterAboveInseamFactor: factor(0.12),
  crestAboveTrochanterFactor: factor(0.1),
  frontBoneAboveTrochanterFactor: factor(0.15),
  trunkFactor: factor(0.03),
  armFactor: factor(0.03),
  tissueCompressionMm: { mean: 25, sd: 6 },
  patellaAheadMm: { mean: 50, sd: 6 },
  bottomPitchDeg: { mean: 15, sd: 7 },
  forwardPitchDeg: { mean: 5, sd: 5 },
  elbowFlexionDeg: { mean: SOFT_ELBOW_DEG, sd: 8 },
  trunkComfortDeg: { mean: 60, sd: 7 },
})

/** The prior for a school's foot: each rider's own ankle, or coached level (5° ± 5° at the bottom). */
export function priorFor(foot: 'natural' | 'level', changes: Partial<Prior> = {}): Prior {
  const level = foot === 'level' ? { bottomPitchDeg: { mean: 5, sd: 5 } } : {}
  return { ...NATURAL, ...level, ...defined(changes) }
}

const BODY_PARTS = [
  'statureMm',
  'thighMm',
  'shankMm',
  'ankleHeightMm',
  'ankleToBallMm',
  'trochanterHeightMm',
  'inseamMm',
  'hipCrestHeightMm',
  'frontHipBoneHeightMm',
  'hipAboveSeatMm',
  'patellaAheadMm',
  'bottomPitchDeg',
  'forwardPitchDeg',
  'trunkMm',
  'upperArmMm',
  'forearmToGripMm',
  /** Elbow flexion of a relaxed arm, and the trunk's angle this rider is easy with: habits. */
  'elbowFlexionDeg',
  'trunkComfortDeg',
] as const
type BodyPart = (typeof BODY_PARTS)[number]

/** A rider's body as a sample of the posterior; all mm and degrees, heights above the floor barefoot. */
export type Body = Readonly<Record<BodyPart, number>>

/** Many bodies, a column per part. */
export type Bodies = Columns<BodyPart> & Readonly<{ count: number }>

/** A prior's means and spreads in the order of `PRIOR_PARTS`, for the many bodies drawn from it. */
export type PriorVector = Readonly<{ means: readonly number[]; sds: readonly number[] }>

export function priorVectorOf(prior: Prior): PriorVector {
  return { means: PRIOR_PARTS.map((part) => prior[part].mean), sds: PRIOR_PARTS.map((part) => prior[part].sd) }
}

/**
 * Bodies from columns of standard scores, of which the first belong to the parts in the order of `PRIOR_PARTS`; all
 * zeros give the mean rider.
 */
export function bodiesFromScores(
  { means, sds }: PriorVector,
  scores: readonly ArrayLike<number>[],
  count: number,
): Bodies {
  const columns = Object.fromEntries(BODY_PARTS.map((part) => [part, new Float64Array(count)]))
  const bodies = { count, ...columns } as { count: number } & Record<BodyPart, Float64Array>
  for (let i = 0; i < count; i++) {
    const part = (k: number): number => means[k] + sds[k] * scores[k][i]
    const statureMm = part(0)
    const legMm = statureMm * part(1)
    const share = part(2)
    const thighMm = F.thigh * legMm * share
    const shankMm = F.shank * legMm * (2 - share)
    const ankleHeightMm = F.ankleHeight * statureMm * part(3)
    const trochanterHeightMm = thighMm + shankMm + ankleHeightMm
    const trochanterAboveInseamMm = (F.trochanterHeight - F.inseam) * statureMm * part(5)
    const arm = part(9)
    bodies.statureMm[i] = statureMm
    bodies.thighMm[i] = thighMm
    bodies.shankMm[i] = shankMm
    bodies.ankleHeightMm[i] = ankleHeightMm
    bodies.ankleToBallMm[i] = F.ankleToBall * statureMm * part(4)
    bodies.trochanterHeightMm[i] = trochanterHeightMm
    bodies.inseamMm[i] = trochanterHeightMm - trochanterAboveInseamMm
    bodies.hipCrestHeightMm[i] = trochanterHeightMm + (F.hipCrestHeight - F.trochanterHeight) * statureMm * part(6)
    bodies.frontHipBoneHeightMm[i] =
      trochanterHeightMm + (F.frontHipBoneHeight - F.trochanterHeight) * statureMm * part(7)
    bodies.hipAboveSeatMm[i] = trochanterAboveInseamMm - part(10)
    bodies.trunkMm[i] = F.trunk * statureMm * part(8)
    bodies.upperArmMm[i] = F.upperArm * statureMm * arm
    bodies.forearmToGripMm[i] = FOREARM_TO_GRIP_FRACTION * statureMm * arm
    bodies.patellaAheadMm[i] = part(11)
    bodies.bottomPitchDeg[i] = part(12)
    bodies.forwardPitchDeg[i] = part(13)
    bodies.elbowFlexionDeg[i] = Math.max(0, part(14))
    bodies.trunkComfortDeg[i] = part(15)
  }
  return bodies
}

/** One body from its standard scores, one per part. */
export function bodyFromScores(table: PriorVector, scores: ArrayLike<number>): Body {
  const bodies = bodiesFromScores(
    table,
    Array.from(scores, (score) => [score]),
    1,
  )
  return Object.fromEntries(BODY_PARTS.map((part) => [part, bodies[part][0]])) as Body
}

/** One body as columns of length 1. */
export function columnsOf(body: Body): Bodies {
  const columns = Object.fromEntries(BODY_PARTS.map((part) => [part, Float64Array.of(body[part])]))
  return { count: 1, ...columns } as Bodies
}
