import { complaintRow, type ComplaintName } from '../../comfort/model/causeTable'
import type { Moment } from '../../comfort/model/complaint'
import { NEVER_OF_THE_BIKE } from '../../comfort/model/redFlags'
import type { OneSidedBike, SignificantCue } from '../../comfort/studioPicture'
import type { TrialOutcome, TrialStage, TrialVerdict } from '../../comfort/changes/trial'
import type { Count } from '../../classes/watch/proportions'
import { wilson } from '../../classes/watch/proportions'
import { signNamed, formatSign } from '../../classes/watch/signs'
import { capitalized } from '../words/phrases'

export const MOMENT_NAME: Readonly<Record<Moment, string>> = Object.freeze({
  seated: 'Seated',
  standing: 'Standing',
  late: 'Late in the ride',
  after: 'Afterwards',
  hardEfforts: 'On hard efforts',
})

export const QUALITY_NAME = Object.freeze({
  sharp: 'Sharp',
  growing: 'Growing from ride to ride',
  night: 'At night too',
  locking: 'The joint locks',
  givingWay: 'The joint gives way',
  swelling: 'Swelling',
})

export const HEALTH_NAME = Object.freeze({
  pregnant: 'Pregnant',
  recentOperation: 'Operated on lately',
  heart: 'Something with the heart',
})

/** What is felt, in a rider's own words, to choose from. */
export const FELT_NAME: Readonly<Record<ComplaintName, string>> = Object.freeze({
  frontKnee: 'Front of the knee',
  topOfKnee: 'Top of the knee',
  outerKnee: 'Side of the knee',
  backOfKnee: 'Back of the knee',
  hipPinch: 'Pinching at the hip',
  lowBack: 'Low back',
  neck: 'Neck',
  shoulders: 'Shoulders',
  hands: 'Hands, numb fingers',
  wrist: 'Wrist',
  saddlePressure: 'Saddle, pressure',
  chafing: 'Saddle, chafing',
  oneSidedSoreness: 'Sore on one side',
  slidingForward: 'Sliding forward',
  frontThighs: 'Front thighs',
  keepsMovingBack: 'Sliding back',
  cramped: 'Cramped',
  stretched: 'Stretched',
  feet: 'Feet, toes',
  kneesMeetBars: 'Knees meet bars',
  chest: 'Chest pain',
  breath: 'Trouble breathing',
  faint: 'Faintness',
  calfSwelling: 'Swollen calf',
  abdomen: 'Belly pain',
})

/** As the rider's own page names what is felt of the bike. */
export const OWN_FELT_NAME: Readonly<Record<ComplaintName, string>> = Object.freeze({
  ...FELT_NAME,
  slidingForward: 'I keep sliding forward',
  keepsMovingBack: 'I keep sliding back',
  cramped: 'I feel cramped',
  stretched: 'I feel stretched',
  kneesMeetBars: 'My knees meet the bars',
})

/** "The front of the knee, left, 6 of 10"; without the score for what never is a matter for a bike. */
export function formatComplaint({
  what,
  side,
  strength,
}: Readonly<{ what: ComplaintName; side: 'left' | 'right' | 'both' | null; strength: number }>): string {
  const where = side === null ? '' : side === 'both' ? ', both sides' : `, ${side}`
  const name = `${capitalized(complaintRow(what).name)}${where}`
  return (NEVER_OF_THE_BIKE as readonly ComplaintName[]).includes(what) ? name : `${name}, ${strength} of 10`
}

/** When it comes and whether it lasts, in one line; empty where neither was given. */
export function formatWhen({ moment, lasts }: Readonly<{ moment: Moment | null; lasts: boolean | null }>): string {
  const parts = [
    moment && MOMENT_NAME[moment].toLowerCase(),
    lasts === true ? 'outlasts the ride' : lasts === false ? 'gone after the ride' : null,
  ].filter(Boolean)
  return capitalized(parts.join(', '))
}

/** How far a trial is: "day 5 of 14, 1 ride"; once its time is over "16 days, 3 rides". */
export function formatTrialAge({
  days,
  weeks,
  rides,
}: Readonly<{ days: number; weeks: number; rides: number }>): string {
  const age = days < 7 * weeks ? `day ${Math.floor(days) + 1} of ${7 * weeks}` : `${Math.floor(days)} days`
  return `${age}, ${rides} ${rides === 1 ? 'ride' : 'rides'}`
}

/** What to do about a trial now. */
export function formatTrialStage(stage: TrialStage, proposed: TrialOutcome | null, verdict: TrialVerdict): string {
  if (verdict === 'worse') return 'It is worse than before: going back is proposed.'
  if (stage === 'early')
    return 'Leave it so: the first week or two may feel odd, because the body learned the old place.'
  if (verdict === 'unknown') return 'The time is there: ask how it is, 0 to 10.'
  if (proposed === null) return 'Hardly ridden since: give it two rides.'
  if (proposed === 'keep') return 'It helped: keeping it is proposed.'
  return 'It changed little: going back and trying the next cause is proposed.'
}

export const OUTCOME_TEXT: Readonly<Record<TrialOutcome, string>> = Object.freeze({
  keep: 'kept',
  undo: 'undone',
  next: 'undone, the next cause tried',
})

/** "6 → 4 → 2 of 10": before the change and since; `isCut` where the first of those since are left out. */
export const formatRatings = (before: number, ratings: readonly number[], isCut = false): string =>
  `${[before, ...(isCut ? ['…'] : []), ...ratings].join(' → ')} of 10`

const percent = (share: number): string => `${Math.round(100 * share)} %`

/** A share with its interval: "12 of 40, somewhere from 18 to 45 %". */
export function formatShare(count: Count): string {
  const { low, high } = wilson(count)
  return `${count.changed} of ${count.of}, somewhere from ${percent(low).replace(' %', '')} to ${percent(high)}`
}

/** That a bike's saddle is to be looked at, with the figures and the doubt. */
export function formatOneSidedBike({ side, here, elsewhere, pValue }: OneSidedBike, bikeNumber: number): string {
  const chance = pValue < 0.0001 ? 'less than 1 in 10,000' : `1 in ${Math.round(1 / pValue).toLocaleString('en')}`
  return (
    `Bike ${bikeNumber}: ${here.changed} of ${here.of} riders felt the ${side} side alone, elsewhere ` +
    `${elsewhere.changed} of ${elsewhere.of}. Were it a bike like the others, so many would come about with a chance ` +
    `of ${chance}. Look along its saddle: is the nose on the frame’s line?`
  )
}

/** That a cue works more, or less, often than the others. */
export function formatTellingCue({ sign, holds: direction, own, others, low, high }: SignificantCue): string {
  const named = signNamed(sign)
  const name = named ? formatSign(named) : sign
  const [from, to] = direction === 'more' ? [low, high] : [-high, -low]
  return (
    `${capitalized(name)}: its cue held for ${own.changed} of ${own.of}, the others for ${others.changed} of ` +
    `${others.of}: ${percent(from)} to ${percent(to)} ${direction === 'more' ? 'more often' : 'less often'}.`
  )
}

/** A trial in a few words, for a tile: "trial, day 5", "trial: ask now". */
export function formatTrialOnFloor({ stage, verdict }: Readonly<{ stage: TrialStage; verdict: TrialVerdict }>): string {
  if (verdict === 'worse') return 'trial: worse'
  return stage === 'early' ? 'on trial' : 'trial: ask now'
}

/** "2 more complaints". */
export const formatMoreComplaints = (count: number): string => `${count} more complaint${count === 1 ? '' : 's'}`

/** On the tile of a rider whose bike has its saddle on trial for another. */
export const SADDLE_ON_TRIAL = 'saddle tilted on trial'
