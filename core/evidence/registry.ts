import { Type, type Static } from '@sinclair/typebox'
import type { SingleLikelihood } from '../inference/likelihood'
import type { Plain } from '../schema'
import type { ReadingContext } from './defineKind'
import { build } from './kinds/build'
import { clearance } from './kinds/clearance'
import { elbows } from './kinds/elbows'
import { footPitch } from './kinds/footPitch'
import { forearmGauge } from './kinds/forearmGauge'
import { heelCheck } from './kinds/heelCheck'
import { inseam } from './kinds/inseam'
import { kneeAngle } from './kinds/kneeAngle'
import { kneeByEye } from './kinds/kneeByEye'
import { landmarkAtMark } from './kinds/landmarkAtMark'
import { landmarkHeight } from './kinds/landmarkHeight'
import { plumb } from './kinds/plumb'
import { plumbByEye } from './kinds/plumbByEye'
import { reachFeel } from './kinds/reachFeel'
import { rider } from './kinds/rider'
import { rocking } from './kinds/rocking'
import { segment } from './kinds/segment'
import { set } from './kinds/set'
import { stature } from './kinds/stature'
import { trunkAngle } from './kinds/trunkAngle'
import { wish } from './kinds/wish'

/** Every kind of evidence this version takes. A new one is a file in `kinds/` and its name here. */
export const KINDS = {
  rider,
  build,
  wish,
  stature,
  inseam,
  segment,
  landmarkHeight,
  landmarkAtMark,
  set,
  kneeAngle,
  kneeByEye,
  heelCheck,
  rocking,
  footPitch,
  plumb,
  plumbByEye,
  forearmGauge,
  trunkAngle,
  elbows,
  reachFeel,
  clearance,
} as const

export type EvidenceKind = keyof typeof KINDS
export type EvidenceOf<K extends EvidenceKind> = Plain<(typeof KINDS)[K]['schema']>

/** What was seen or done, in time order. */
export type Evidence = { [K in EvidenceKind]: EvidenceOf<K> }[EvidenceKind]

export const EVIDENCE_KINDS = Object.keys(KINDS) as readonly EvidenceKind[]

/** Any kind's row: which schema it is held to depends on its kind. */
export const evidenceSchema = Type.Unsafe<Static<(typeof KINDS)[EvidenceKind]['schema']>>({
  type: 'object',
  required: ['kind'],
  properties: { kind: { enum: EVIDENCE_KINDS } },
  allOf: EVIDENCE_KINDS.map((kind) => ({
    if: { properties: { kind: { const: kind } }, required: ['kind'] },
    then: { $ref: kind },
  })),
})

/** The likelihood of a row, or null where it says nothing of the body (what was done, an unused heel check). */
export function likelihoodOf(row: Evidence, seen: ReadingContext): SingleLikelihood | null {
  return (KINDS[row.kind].likelihood as (row: Evidence, seen: ReadingContext) => SingleLikelihood | null)(row, seen)
}
