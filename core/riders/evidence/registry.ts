import { Type, type Static } from '@sinclair/typebox'
import type { SingleLikelihood } from '../inference/likelihood'
import type { Plain } from '../../base/schema'
import type { ReadingContext } from './definition/defineKind'
import { build } from './kinds/body/build'
import { clearance } from './kinds/onBike/clearance'
import { elbows } from './kinds/onBike/elbows'
import { footPitch } from './kinds/onBike/footPitch'
import { forearmGauge } from './kinds/onBike/forearmGauge'
import { heelCheck } from './kinds/onBike/heelCheck'
import { inseam } from './kinds/body/inseam'
import { kneeAngle } from './kinds/onBike/kneeAngle'
import { kneeByEye } from './kinds/onBike/kneeByEye'
import { landmarkAtMark } from './kinds/body/landmarkAtMark'
import { landmarkHeight } from './kinds/body/landmarkHeight'
import { plumb } from './kinds/onBike/plumb'
import { plumbByEye } from './kinds/onBike/plumbByEye'
import { reachFeel } from './kinds/onBike/reachFeel'
import { rider } from './kinds/body/rider'
import { rocking } from './kinds/onBike/rocking'
import { segment } from './kinds/body/segment'
import { set } from './kinds/onBike/set'
import { stature } from './kinds/body/stature'
import { trunkAngle } from './kinds/onBike/trunkAngle'
import { wish } from './kinds/onBike/wish'

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

/** Any kind's row: its schema depends on its kind. */
export const evidenceSchema = Type.Unsafe<Static<(typeof KINDS)[EvidenceKind]['schema']>>({
  type: 'object',
  required: ['kind'],
  properties: { kind: { enum: EVIDENCE_KINDS } },
  allOf: EVIDENCE_KINDS.map((kind) => ({
    if: { properties: { kind: { const: kind } }, required: ['kind'] },
    then: { $ref: kind },
  })),
})

/** The likelihood of a row, or null where it is no evidence of the body (what was done, an unused heel check). */
export function likelihoodOf(row: Evidence, seen: ReadingContext): SingleLikelihood | null {
  return (KINDS[row.kind].likelihood as (row: Evidence, seen: ReadingContext) => SingleLikelihood | null)(row, seen)
}
