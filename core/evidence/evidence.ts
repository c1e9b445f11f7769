import { EVIDENCE_KINDS, KINDS, type Evidence, type EvidenceKind, type EvidenceOf } from './registry'

/** Kinds of the wire format that this version refuses by name, so that nothing is ignored silently. */
export const UNSUPPORTED_KINDS: readonly string[] = Object.freeze([
  'segment',
  'rocking',
  'footPitch',
  'build',
  'trunkAngle',
  'plumbByEye',
  'forearmGauge',
  'elbows',
  'reachFeel',
  'clearance',
  'wish',
])

/** Checks made with the rider in the saddle. */
export const SADDLE_CHECKS: readonly EvidenceKind[] = EVIDENCE_KINDS.filter((kind) => KINDS[kind].about === 'saddle')

export const isSaddleCheck = ({ kind }: Evidence): boolean => KINDS[kind].about === 'saddle'

/** Whether a row was taken at the bike, so that it needs the seat height it was taken at. */
export const needsMarks = ({ kind }: Evidence): boolean =>
  KINDS[kind].about === 'saddle' || KINDS[kind].about === 'landmark'

/** Whether a row says something of the rider's size from beside the bike, so that a start is more than a guess. */
export const isBodyEvidence = ({ kind }: Evidence): boolean =>
  KINDS[kind].about === 'body' || KINDS[kind].about === 'landmark'

/** The latest item of a kind, or undefined. */
export function latest<K extends EvidenceKind>(evidence: readonly Evidence[], kind: K): EvidenceOf<K> | undefined {
  return evidence.findLast((row): row is Evidence & EvidenceOf<K> => row.kind === kind)
}
