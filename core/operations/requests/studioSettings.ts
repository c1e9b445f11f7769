import { Type } from '@sinclair/typebox'
import { REASON, type Issue } from '../../messages/words/issues'
import { costsSchema } from '../../setups/recommend/request/questionCosts'
import { closed, type Plain } from '../../base/schema'
import { schoolSchema, type School } from '../../base/school/school'

/** How a studio sets riders up: its school, what its checks cost in seconds, and whether its set-ups move the prior. */
export const studioSettingsSchema = closed({ school: schoolSchema, costs: costsSchema, learns: Type.Boolean() })
export type StudioSettings = Plain<typeof studioSettingsSchema>

/** A knee window narrower than this no rider can be put into, degrees. */
export const MIN_WINDOW_DEG = 4

/** Rules of a school that a schema cannot express: a window that runs backward, or that nobody can be put into. */
export function schoolIssues(school: Partial<School>, at: string): Issue[] {
  const window = school.kneeWindowDeg
  if (!window) return []
  const pointer = `${at}/kneeWindowDeg`
  if (window[0] > window[1]) return [{ pointer, reason: REASON.windowReversed() }]
  return window[1] - window[0] < MIN_WINDOW_DEG ? [{ pointer, reason: REASON.windowNarrow(MIN_WINDOW_DEG) }] : []
}
