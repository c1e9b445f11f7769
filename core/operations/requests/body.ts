import { Type } from '@sinclair/typebox'
import { bodyBelief, type BodyBelief } from '../../riders/inference/bodyBelief'
import { priorFor, priorSchema, priorVectorOf } from '../../riders/rider/prior'
import { closed, type Plain } from '../../base/schema'
import { schoolOf, schoolSchema } from '../../base/school/school'
import { setupIssues } from './recommend'
import { schoolIssues } from './studioSettings'
import type { Issue } from '../../messages/words/issues'
import { carriedBodySchema, earlierSetupSchema, priorFromHistory } from '../../setups/recommend/history/riderHistory'

/** Request of `body`: what earlier set-ups tell of a rider's body, and another studio's belief before them. */
export const bodySchema = closed({
  history: Type.Array(earlierSetupSchema, { maxItems: 20 }),
  body: Type.Optional(carriedBodySchema),
  school: Type.Optional(schoolSchema),
  prior: Type.Optional(priorSchema),
  seed: Type.Optional(Type.Integer({ minimum: -2147483648, maximum: 2147483647 })),
})
export type BodyRequest = Plain<typeof bodySchema>
/** Null where nothing is known. */
export type BodyResponse = Readonly<{ belief: BodyBelief | null }>

/** `body`: a rider's body as believed, to be carried to another studio. Same request, same seed: same bytes. */
export function body({ history, body: carried, school, prior, seed = 1 }: BodyRequest): BodyResponse {
  const ownSchool = schoolOf(school)
  const vector = priorVectorOf(priorFor(ownSchool.foot, prior))
  const scores = priorFromHistory({ history, body: carried, school: ownSchool, prior: vector, seed })
  return { belief: scores ? bodyBelief(scores, vector, ownSchool.foot) : null }
}

export const bodyIssues = ({ school, history }: BodyRequest): Issue[] => [
  ...schoolIssues(school ?? {}, '/school'),
  ...history.flatMap((setup, i) => setupIssues(setup, `/history/${i}`)),
]
