/** A change on trial, as far as time and ratings go; times in ms, ratings 0 nothing to 10 as bad as can be. */
export type TrialRun = Readonly<{
  startedMs: number
  /** One or two: how long it is meant to be left. */
  weeks: number
  /** Rides since it began. */
  rides: number
  ratingBefore: number
  /** In the order they were given. */
  ratings: readonly number[]
}>

const DAY_MS = 86_400_000
/** Sooner, or after fewer rides, a body has not learned the new place (common practice, no source). */
export const MIN_DAYS = 7
export const MIN_RIDES = 2

/** `early`: leave it; `due`: a rating is due; `over`: its time is over, also without rides. */
export type TrialStage = 'early' | 'due' | 'over'

export function trialStage({ startedMs, weeks, rides }: TrialRun, nowMs: number): TrialStage {
  const days = (nowMs - startedMs) / DAY_MS
  if (days >= 7 * weeks) return 'over'
  return days >= MIN_DAYS && rides >= MIN_RIDES ? 'due' : 'early'
}

/**
 * Two points of ten are the least that people call a change on a scale of this kind (Farrar et al. 2001, Pain 94(2)
 * 149–158, for pain; from memory).
 */
export const TELLING_POINTS = 2

export type TrialVerdict = 'better' | 'worse' | 'same' | 'unknown'

/** The latest rating against the one before the change; unknown without a later rating. */
export function trialVerdict({ ratingBefore, ratings }: Pick<TrialRun, 'ratingBefore' | 'ratings'>): TrialVerdict {
  const latest = ratings.at(-1)
  if (latest === undefined) return 'unknown'
  if (ratingBefore - latest >= TELLING_POINTS || (latest === 0 && ratingBefore > 0)) return 'better'
  return latest - ratingBefore >= TELLING_POINTS ? 'worse' : 'same'
}

/** Whether it is time to see to a trial: its time is there, or it went worse. */
export const needsRating = ({ stage, verdict }: Readonly<{ stage: TrialStage; verdict: TrialVerdict }>): boolean =>
  stage !== 'early' || verdict === 'worse'

/** How a trial ends: the change stays, the numbers of before come back, or the next cause is tried. */
export const TRIAL_OUTCOMES = ['keep', 'undo', 'next'] as const
export type TrialOutcome = (typeof TRIAL_OUTCOMES)[number]

/**
 * The proposal at its end; null while it is early, was hardly ridden or has no rating. A rider who rides it
 * decides.
 */
export function proposedOutcome(run: TrialRun, nowMs: number): TrialOutcome | null {
  const verdict = trialVerdict(run)
  if (verdict === 'unknown') return null
  if (verdict === 'worse') return 'undo'
  if (trialStage(run, nowMs) === 'early' || run.rides < MIN_RIDES) return null
  return verdict === 'better' ? 'keep' : 'next'
}
