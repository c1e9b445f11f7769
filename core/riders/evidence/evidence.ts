import { EVIDENCE_KINDS, KINDS, type Evidence, type EvidenceKind, type EvidenceOf } from './registry'

/** Checks made with the rider in the saddle. */
export const SADDLE_CHECKS: readonly EvidenceKind[] = EVIDENCE_KINDS.filter((kind) => KINDS[kind].about === 'saddle')

export const isSaddleCheck = ({ kind }: Evidence): boolean => KINDS[kind].about === 'saddle'

/** Whether a row was taken at the bike, so that it needs the seat height it was taken at. */
export const needsMarks = ({ kind }: Evidence): boolean => AT_THE_BIKE.has(KINDS[kind].about)

const AT_THE_BIKE: ReadonlySet<string> = new Set(['landmark', 'saddle', 'bars'])

/** Whether a row is a check of the bars with the rider on the bike. */
export const isBarCheck = ({ kind }: Evidence): boolean => KINDS[kind].about === 'bars'

/** Whether a row is evidence of the rider's size from beside the bike, so that a start is more than a guess. */
export const isBodyEvidence = ({ kind }: Evidence): boolean =>
  KINDS[kind].about === 'body' || KINDS[kind].about === 'landmark'

/** The latest item of a kind, or undefined. */
export function latest<K extends EvidenceKind>(evidence: readonly Evidence[], kind: K): EvidenceOf<K> | undefined {
  return evidence.findLast((row): row is Evidence & EvidenceOf<K> => row.kind === kind)
}
