import { isBodyEvidence, isSaddleCheck } from './evidence'
import type { Evidence } from './registry'

/** How sure the numbers are, by what was looked at with the saddle where it was saved. */
export type EvidenceLevel = 'told' | 'landmark' | 'checked' | 'measured'
export function evidenceLevel(evidence: readonly Evidence[]): EvidenceLevel {
  if (evidence.some((row) => row.kind === 'kneeAngle')) return 'measured'
  if (evidence.some(isSaddleCheck)) return 'checked'
  return evidence.some(isBodyEvidence) ? 'landmark' : 'told'
}
