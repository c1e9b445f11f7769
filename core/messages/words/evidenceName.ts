import { KINDS, type EvidenceKind } from '../../riders/evidence/registry'

/** What was seen or done, by name; a row of another version of this product may be of a kind this one does not know. */
export const evidenceName = (kind: EvidenceKind): string => KINDS[kind]?.name ?? 'something seen'
