import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import { marksRef } from '../../base/conventions'
import { observerSchema } from '../../riders/evidence/definition/defineKind'
import type { evidenceSchema } from '../../riders/evidence/registry'
import type { Issue } from '../../messages/words/issues'
import { formatMisSet, formatMisSetCause } from '../../messages/setups/misSet'
import { rankMisSets, type RankedCause } from '../../setups/misSet/misSet'
import { earlierSetupSchema } from '../../setups/recommend/history/riderHistory'
import { priorSchema } from '../../riders/rider/prior'
import { closed, refTo, type Plain } from '../../base/schema'
import { schoolSchema } from '../../base/school/school'
import { marksIssues } from './bikeIssues'
import { setupIssues } from './recommend'
import { schoolIssues } from './studioSettings'

/** Request of `misSet`: the intended numbers, evidence of the rider, and what is seen now. */
export const misSetSchema = closed({
  bikeType: bikeTypeRef,
  bike: Type.Optional(bikeRef),
  marks: marksRef,
  /** The rider's numbers for other types. */
  elsewhere: Type.Optional(
    Type.Array(closed({ type: Type.String({ minLength: 1, maxLength: 80 }), marks: marksRef }), { maxItems: 12 }),
  ),
  history: Type.Array(earlierSetupSchema, { maxItems: 8 }),
  evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 40 }),
  school: Type.Optional(schoolSchema),
  observer: Type.Optional(observerSchema),
  prior: Type.Optional(priorSchema),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
})
export type MisSetRequest = Plain<typeof misSetSchema>
export type MisSetResponse = Readonly<{
  /** The likeliest first; chances add to 1. */
  causes: readonly (RankedCause & Readonly<{ say: string }>)[]
  sentence: string
}>

/** `misSet`: where a bike does not agree with what is seen, what probably happened. */
export function misSet(request: MisSetRequest): MisSetResponse {
  const ranked = rankMisSets(request)
  return {
    causes: ranked.map((cause) => ({ ...cause, say: formatMisSetCause(request.bikeType, cause) })),
    sentence: formatMisSet(request.bikeType, ranked),
  }
}

export function misSetIssues({ bikeType, bike, marks, history, evidence, school }: MisSetRequest): Issue[] {
  const ofSetup = setupIssues({ bikeType, bike, evidence }, '')
  return [
    ...schoolIssues(school ?? {}, '/school'),
    ...ofSetup,
    ...(ofSetup.length > 0 ? [] : marksIssues(bikeType, marks, '/marks')),
    ...history.flatMap((setup, i) => setupIssues(setup, `/history/${i}`)),
  ]
}
