import { isSaddleCheck } from './evidence'
import type { Evidence } from './registry'

/** How sure the numbers are, by what was looked at with the saddle where it was saved. */
export type EvidenceLevel = 'landmark' | 'checked' | 'measured'
export function evidenceLevel(evidence: readonly Evidence[]): EvidenceLevel {
  if (evidence.some((row) => row.kind === 'kneeAngle')) return 'measured'
  return evidence.some(isSaddleCheck) ? 'checked' : 'landmark'
}
