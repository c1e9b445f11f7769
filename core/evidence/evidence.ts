import type { Marks } from '../conventions'

/** Body landmarks a saddle can be levelled with, and that a tape can find. */
export type Landmark = 'hipCrest' | 'frontHipBone' | 'between' | 'trochanter'

/**
 * What was seen or done, in time order. `at` names the marks it was seen at; axes left out stand where they last stood.
 * These kinds are built; others of the wire format are refused by name (see `UNBUILT_KINDS`).
 */
export type Evidence = Readonly<{ at?: Marks; side?: 'left' | 'right' }> &
  (
    | Readonly<{ kind: 'stature'; mm: number }>
    | Readonly<{ kind: 'inseam'; mm: number; shod: boolean }>
    | Readonly<{ kind: 'landmarkHeight'; landmark: Landmark; mm: number; shod: boolean }>
    | Readonly<{ kind: 'landmarkAtMark'; landmark: Landmark }>
    | Readonly<{ kind: 'set' }>
    | Readonly<{ kind: 'kneeAngle'; deg: number; by: 'goniometer' | 'photo' | 'gauge' }>
    | Readonly<{ kind: 'kneeByEye'; seen: 'locked' | 'slightBend' | 'deepBend' }>
    | Readonly<{ kind: 'heelCheck'; seen: 'justStraight' | 'stillBent' | 'cannotReach' }>
    | Readonly<{ kind: 'plumb'; mm: number; from?: 'front' | 'middle' }>
    | Readonly<{
        kind: 'rider'
        experience: 'new' | 'regular' | 'experienced'
        backSore?: boolean
        pregnant?: boolean
        soleMm?: number
        pedal?: 'cage' | 'cleat'
      }>
  )

export type EvidenceKind = Evidence['kind']
export type EvidenceOf<K extends EvidenceKind> = Extract<Evidence, { kind: K }>

/** Kinds of the wire format that this version refuses by name, so that nothing is ignored silently. */
export const UNBUILT_KINDS: readonly string[] = Object.freeze([
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
export const SADDLE_CHECKS: readonly EvidenceKind[] = Object.freeze(['kneeAngle', 'kneeByEye', 'heelCheck', 'plumb'])

export const isSaddleCheck = (row: Evidence): boolean => SADDLE_CHECKS.includes(row.kind)

/** Kinds that need to know where the bike stood. */
export const needsMarks = (row: Evidence): boolean => isSaddleCheck(row) || row.kind === 'landmarkAtMark'

/** The latest item of a kind, or undefined. */
export function latest<K extends EvidenceKind>(evidence: readonly Evidence[], kind: K): EvidenceOf<K> | undefined {
  return evidence.findLast((row): row is EvidenceOf<K> => row.kind === kind)
}
