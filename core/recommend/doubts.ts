import { summary, type Belief } from '../belief/belief'
import { logLikelihood, type Statement } from '../belief/statement'
import { latest, type Evidence } from '../evidence/evidence'

/** A reading this many of its own spreads away from what all the evidence together says contradicts it. */
const CONTRADICTS_SPREADS = 3
/** A category with less chance than this under the whole belief contradicts it. */
const CONTRADICTS_CHANCE = 0.02
/** Inseam as a share of stature outside of which one asks again: mean 0.482, some three spreads. */
export const USUAL_INSEAM_SHARE = Object.freeze([0.42, 0.545] as const)

/** An item of evidence that does not go with the rest, or is rare enough to be read again. `evidence` counts from 0. */
export type Doubt = Readonly<{ evidence: number; code: 'contradicts' | 'unusualInseam' }>

/** Every doubt about the rows. `statements[i]` belongs to row i, null where the row says nothing of the body. */
export function doubtsAbout(evidence: readonly Evidence[], statements: readonly (Statement | null)[], belief: Belief): Doubt[] {
  const doubts: Doubt[] = []
  statements.forEach((statement, i) => {
    if (statement && contradicts(statement, belief)) doubts.push({ evidence: i, code: 'contradicts' })
  })
  const stature = latest(evidence, 'stature')
  evidence.forEach((row, i) => {
    if (row.kind !== 'inseam' || !stature) return
    const share = row.mm / stature.mm
    if (share < USUAL_INSEAM_SHARE[0] || share > USUAL_INSEAM_SHARE[1]) doubts.push({ evidence: i, code: 'unusualInseam' })
  })
  return doubts
}

function contradicts(statement: Statement, belief: Belief): boolean {
  if (statement.form === 'reading') {
    const { mean } = summary(belief, statement.of)
    return Math.abs(statement.read - mean) > CONTRADICTS_SPREADS * statement.sd
  }
  return summary(belief, (sample) => Math.exp(logLikelihood(statement, sample))).mean < CONTRADICTS_CHANCE
}
