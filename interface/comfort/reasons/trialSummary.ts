import { causeRow } from '@/core/comfort/model/causeTable'
import { formatRatings, formatTrialAge, formatTrialStage, OUTCOME_TEXT } from '@/core/messages/comfort/comfort'
import { capitalized } from '@/core/messages/words/phrases'
import type { Trial } from '@/server/comfort/trials'
import { formatDate } from '@/core/messages/words/dates'

/** A trial in words. */
export type TrialSummary = Readonly<{
  id: string
  text: string
  cause: string
  /** What puts its cause right, in words. */
  remedy: string
  because: readonly string[]
  expects: readonly string[]
  reason: string | null
  large: boolean
  since: string
  by: string
  age: string
  ratings: string
  rated: boolean
  stage: Trial['stage']
  advice: string
  proposed: Trial['proposed']
  /** Null while it runs. */
  ended: string | null
  /** The machine whose saddle it is; null where numbers were changed. */
  bikeNumber: number | null
}>

export function trialSummary(trial: Trial, timeZone: string): TrialSummary {
  const { stage, proposed, verdict, endedAt, outcome } = trial
  return {
    id: trial.id,
    text: trial.said,
    cause: capitalized(causeRow(trial.cause).name),
    remedy: causeRow(trial.cause).remedy,
    because: trial.because,
    expects: trial.expects,
    reason: trial.reason,
    large: trial.large,
    since: formatDate(trial.startedAt, timeZone),
    by: trial.startedBy,
    age: formatTrialAge(trial),
    ratings: formatRatings(
      trial.ratingBefore,
      trial.ratings.map(({ rating }) => rating),
    ),
    rated: trial.ratings.length > 0,
    stage,
    advice: formatTrialStage(stage, proposed, verdict),
    proposed,
    ended: endedAt && outcome ? `${formatDate(endedAt, timeZone)}: ${OUTCOME_TEXT[outcome]}` : null,
    bikeNumber: trial.bikeNumber,
  }
}
