import { summary, type Belief } from '../belief/belief'
import { logLikelihoods, type SingleStatement } from '../belief/statement'
import type { Marks } from '../conventions'
import { latest, type Evidence } from '../evidence/evidence'
import { READING_SD } from '../evidence/readingSpreads'

/** A reading this many of its own spreads away from what all the evidence together says contradicts it. */
const CONTRADICTS_SPREADS = 3
/** A category with less chance than this under the whole belief contradicts it. */
const CONTRADICTS_CHANCE = 0.02
/** Inseam as a share of stature outside of which one asks again: mean 0.482, some three spreads. */
export const USUAL_INSEAM_SHARE = Object.freeze([0.42, 0.545] as const)

/** An item of evidence that does not go with the rest, or is rare enough to be read again. `evidence` counts from 0. */
export type Doubt =
  | Readonly<{ evidence: number; code: 'contradicts' | 'unusualInseam' }>
  /** Repeats at one place that no error explains: it is read again. */
  | Readonly<{ evidence: number; code: 'readAgain' }>
  /** Left minus right, degrees, beyond what the readings' own error explains. */
  | Readonly<{ evidence: number; code: 'asymmetry'; deg: number }>

/** Sides that differ by more than this many of a reading's spreads are told, never averaged silently. */
const ASYMMETRY_SPREADS = 3

/** Doubts that come from rows beside each other: repeats that contradict, and sides that differ. */
export function repeatDoubts(
  evidence: readonly Evidence[],
  at: readonly Marks[],
  contradicting: readonly boolean[],
): Doubt[] {
  const again = contradicting.flatMap((does, i): Doubt[] => (does ? [{ evidence: i, code: 'readAgain' }] : []))
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
  return Math.abs(deg) > ASYMMETRY_SPREADS * READING_SD.goniometerDeg
    ? [...again, { evidence: last, code: 'asymmetry', deg }]
    : again
}

/** Every doubt about the rows. `statements[i]` belongs to row i, null where the row says nothing of the body. */
export function doubtsAbout(
  evidence: readonly Evidence[],
  statements: readonly (SingleStatement | null)[],
  belief: Belief,
): Doubt[] {
  const doubts: Doubt[] = []
  statements.forEach((statement, i) => {
    if (statement && contradicts(statement, belief)) doubts.push({ evidence: i, code: 'contradicts' })
  })
  const stature = latest(evidence, 'stature')
  evidence.forEach((row, i) => {
    if (row.kind !== 'inseam' || !stature) return
    const share = row.mm / stature.mm
    if (share < USUAL_INSEAM_SHARE[0] || share > USUAL_INSEAM_SHARE[1])
      doubts.push({ evidence: i, code: 'unusualInseam' })
  })
  return doubts
}

function contradicts(statement: SingleStatement, belief: Belief): boolean {
  if (statement.form === 'reading') {
    const { mean } = summary(belief, statement.of)
    return Math.abs(statement.read - mean) > CONTRADICTS_SPREADS * statement.sd
  }
  return summary(belief, (samples) => logLikelihoods(statement, samples).map(Math.exp)).mean < CONTRADICTS_CHANCE
}
