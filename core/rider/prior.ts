import { FOREARM_TO_GRIP_FRACTION, FRACTION_OF_STATURE as F } from './anthropometry'

/** A normal spread. Relative quantities have mean 1. */
export type Spread = Readonly<{ mean: number; sd: number }>

/**
 * What is believed of riders before one of them is looked at. All parts are independent.
 * Names ending in `Factor` multiply the mean proportion, `…Mm` and `…Deg` are absolute.
 */
export type Prior = Readonly<Record<PriorPart, Spread>>

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
  'pressMm',
  'patellaAheadMm',
  'bottomPitchDeg',
  'forwardPitchDeg',
] as const
export type PriorPart = (typeof PRIOR_PARTS)[number]

const factor = (sd: number): Spread => Object.freeze({ mean: 1, sd })

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
  pressMm: { mean: 25, sd: 6 },
  patellaAheadMm: { mean: 50, sd: 6 },
  bottomPitchDeg: { mean: 15, sd: 7 },
  forwardPitchDeg: { mean: 5, sd: 5 },
})

/** The prior for a school's foot: each rider's own ankle, or coached level (5° ± 5° at the bottom). */
export function priorFor(foot: 'natural' | 'level', changes: Partial<Prior> = {}): Prior {
  const level = foot === 'level' ? { bottomPitchDeg: { mean: 5, sd: 5 } } : {}
  return { ...NATURAL, ...level, ...changes }
}

/** A rider's body as the belief holds it; all mm and degrees, heights above the floor barefoot. */
export type Body = Readonly<{
  statureMm: number
  thighMm: number
  shankMm: number
  ankleHeightMm: number
  ankleToBallMm: number
  trochanterHeightMm: number
  inseamMm: number
  hipCrestHeightMm: number
  frontHipBoneHeightMm: number
  hipAboveSeatMm: number
  patellaAheadMm: number
  bottomPitchDeg: number
  forwardPitchDeg: number
  trunkMm: number
  upperArmMm: number
  forearmToGripMm: number
}>

/** A prior's means and spreads in the order of `PRIOR_PARTS`, for the many bodies drawn from it. */
export type PriorTable = Readonly<{ means: readonly number[]; sds: readonly number[] }>

export function tableOf(prior: Prior): PriorTable {
  return { means: PRIOR_PARTS.map((part) => prior[part].mean), sds: PRIOR_PARTS.map((part) => prior[part].sd) }
}

/** A body from standard scores, one per part in the order of `PRIOR_PARTS`, read from `from` on; all zeros give the mean rider. */
export function bodyAt({ means, sds }: PriorTable, scores: ArrayLike<number>, from = 0): Body {
  const part = (i: number): number => means[i] + sds[i] * scores[from + i]
  const statureMm = part(0)
  const legMm = statureMm * part(1)
  const thighMm = F.thigh * legMm * part(2)
  const shankMm = F.shank * legMm * (2 - part(2))
  const ankleHeightMm = F.ankleHeight * statureMm * part(3)
  const trochanterHeightMm = thighMm + shankMm + ankleHeightMm
  const trochanterAboveInseamMm = (F.trochanterHeight - F.inseam) * statureMm * part(5)
  return {
    statureMm,
    thighMm,
    shankMm,
    ankleHeightMm,
    ankleToBallMm: F.ankleToBall * statureMm * part(4),
    trochanterHeightMm,
    inseamMm: trochanterHeightMm - trochanterAboveInseamMm,
    hipCrestHeightMm: trochanterHeightMm + (F.hipCrestHeight - F.trochanterHeight) * statureMm * part(6),
    frontHipBoneHeightMm: trochanterHeightMm + (F.frontHipBoneHeight - F.trochanterHeight) * statureMm * part(7),
    hipAboveSeatMm: trochanterAboveInseamMm - part(10),
    trunkMm: F.trunk * statureMm * part(8),
    upperArmMm: F.upperArm * statureMm * part(9),
    forearmToGripMm: FOREARM_TO_GRIP_FRACTION * statureMm * part(9),

    patellaAheadMm: part(11),
    bottomPitchDeg: part(12),
    forwardPitchDeg: part(13),
  }
}
