import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import type { evidenceSchema } from '../../riders/evidence/registry'
import { firstSuggestion, suggestionRecord, type SuggestionRecord } from '../../setups/learning/firstSuggestions'
import type { Issue } from '../../messages/words/issues'
import { earlierSetupSchema } from '../../setups/recommend/history/riderHistory'
import { priorSchema } from '../../riders/rider/prior'
import { closed, refTo, type Plain } from '../../base/schema'
import { schoolSchema } from '../../base/school/school'
import { setupIssues } from './recommend'
import { schoolIssues } from './studioSettings'

/** Request of `suggestions`: finished set-ups, each with the rider's earlier ones. */
export const suggestionsSchema = closed({
  school: Type.Optional(schoolSchema),
  prior: Type.Optional(priorSchema),
  setups: Type.Array(
    closed({
      bikeType: bikeTypeRef,
      bike: Type.Optional(bikeRef),
      evidence: Type.Array(refTo<typeof evidenceSchema>('evidence'), { maxItems: 200 }),
      history: Type.Optional(Type.Array(earlierSetupSchema, { maxItems: 4 })),
    }),
    { maxItems: 200 },
  ),
})
export type SuggestionsRequest = Plain<typeof suggestionsSchema>

/** `suggestions`: whether the first saddle suggested in these set-ups was right as often as predicted. */
export const suggestions = ({ school, prior, setups }: SuggestionsRequest): SuggestionRecord =>
  suggestionRecord(setups.map((setup, i) => firstSuggestion(setup, { school, prior }, 2 * i + 1)))

export const suggestionsIssues = ({ school, setups }: SuggestionsRequest): Issue[] => [
  ...schoolIssues(school ?? {}, '/school'),
  ...setups.flatMap((setup, i) => [
    ...setupIssues(setup, `/setups/${i}`),
    ...(setup.history ?? []).flatMap((earlier, k) => setupIssues(earlier, `/setups/${i}/history/${k}`)),
  ]),
]
