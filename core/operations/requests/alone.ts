import { alone as nextAlone, type AloneRequest, type AloneStep } from '../../setups/alone/alone'
import type { Issue } from '../../messages/words/issues'
import type { Moments } from '../../riders/inference/moments'
import type { PosteriorMeanRider } from '../../setups/recommend/recommend'
import { canonicalMarks } from './bikeIssues'
import { schoolIssues } from './studioSettings'
import { setupIssues } from './recommend'

/** `alone`'s answer: the next step, and what is believed of the rider; `belief` is null before anything was read. */
export type AloneResponse = Readonly<{
  step: AloneStep
  belief: Readonly<{ rider: PosteriorMeanRider; kneeFlexionDeg: Moments }> | null
}>

/** `alone`: the next step of a rider who sets a machine up without an instructor. */
export function alone(request: AloneRequest): AloneResponse {
  const { bikeType } = request
  const evidence = request.evidence.map((row) => (row.at ? { ...row, at: canonicalMarks(bikeType, row.at) } : row))
  const { step, advice } = nextAlone({ ...request, evidence })
  return {
    step,
    belief: advice && { rider: advice.belief.rider, kneeFlexionDeg: advice.belief.kneeFlexionDeg },
  }
}

export function aloneIssues({ bikeType, bike, school, evidence }: AloneRequest): Issue[] {
  return [...setupIssues({ bikeType, bike, evidence }, ''), ...schoolIssues(school ?? {}, '/school')]
}
