import { Type } from '@sinclair/typebox'
import { bikeRef, bikeTypeRef } from '../../bikes/bike/bike'
import { marksRef } from '../../base/conventions'
import type { Issue } from '../../messages/words/issues'
import { formatTranslation } from '../../messages/setups/translation'
import { CHANGES } from '../../setups/register/entry'
import { between, closed, oneOf, type Plain } from '../../base/schema'
import { afterChange as marksAfterChange } from '../../setups/translate/afterChange'
import { UNIT_SYSTEMS } from '../../base/length'
import { bikeIssues, bikeTypeIssues, marksIssues } from './bikeIssues'
import type { TranslateResponse } from './translate'

/** Request of `afterChange`: numbers of a type, what changed since, and by how many mm (signs: `afterChange`). */
export const afterChangeSchema = closed({
  bikeType: bikeTypeRef,
  bike: Type.Optional(bikeRef),
  marks: marksRef,
  what: oneOf(CHANGES),
  mm: between(-60, 60),
  /** How lengths are written in the sentences; the figures beside them stay millimetres. */
  lengths: Type.Optional(oneOf(UNIT_SYSTEMS)),
})
export type AfterChangeRequest = Plain<typeof afterChangeSchema>

/** `afterChange`: the marks that leave knee and plumb line as they were once something has changed. */
export function afterChange({ lengths, what, mm, ...numbers }: AfterChangeRequest): TranslateResponse {
  const translation = marksAfterChange(numbers, what, mm)
  return { ...translation, ...formatTranslation(numbers.bikeType, translation, lengths) }
}

export function afterChangeIssues({ bikeType, bike, marks }: AfterChangeRequest): Issue[] {
  const ofType = bikeTypeIssues(bikeType, '/bikeType')
  return ofType.length > 0
    ? ofType
    : [...bikeIssues(bikeType, bike, '/bike'), ...marksIssues(bikeType, marks, '/marks')]
}
