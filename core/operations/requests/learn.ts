import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import type { evidenceSchema } from '../../riders/evidence/registry'
import { riderScores, studioPrior, type StudioPrior } from '../../setups/learning/studioPrior'
import type { Issue } from '../../messages/words/issues'
import { closed, refTo, type Plain } from '../../base/schema'
import { schoolOf, schoolSchema } from '../../base/school/school'
import { setupIssues } from './recommend'
import { schoolIssues } from './studioSettings'

/** Request of `learn`: finished set-ups of a studio, one a rider. */
export const learnSchema = closed({
  school: Type.Optional(schoolSchema),
  setups: Type.Array(
    closed({
      bikeType: bikeTypeRef,
      bike: Type.Optional(bikeRef),
      evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 200 }),
    }),
    { maxItems: 200 },
  ),
})
export type LearnRequest = Plain<typeof learnSchema>

/** `learn`: how far the riders of these set-ups lie from the published proportions, and the prior that follows. */
export function learn({ school, setups }: LearnRequest): StudioPrior {
  const chosen = schoolOf(school)
  return studioPrior(
    setups.map((setup, i) => riderScores(setup, chosen, i + 1)),
    chosen,
  )
}

export function learnIssues({ school, setups }: LearnRequest): Issue[] {
  return [...schoolIssues(school ?? {}, '/school'), ...setups.flatMap((setup, i) => setupIssues(setup, `/setups/${i}`))]
}
