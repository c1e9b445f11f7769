import type { Complaint, ExplainRequest } from './request'

/** Why a complaint is no matter for a bike: what stops fit advice for it (common practice, no source). */
export type RedFlagReason =
  | 'chest'
  | 'breath'
  | 'faint'
  | 'calfSwelling'
  | 'abdomen'
  | 'leftOnEffort'
  | 'sharp'
  | 'growing'
  | 'night'
  | 'locking'
  | 'givingWay'
  | 'swelling'
  | 'severe'
  | 'numbLasts'
  | 'backWithNumbFoot'
  | 'oneSideLasts'
  | 'sideUnknown'
  | 'pregnancy'
  | 'recentOperation'
  | 'heart'

/** Never answered by a change of the bike, however it feels. */
export const NEVER_OF_THE_BIKE = ['chest', 'breath', 'faint', 'calfSwelling', 'abdomen'] as const
type What = Complaint['what']
/** Where a complaint is, or can be, numbness. */
const NUMB: readonly What[] = ['hands', 'wrist', 'saddlePressure', 'feet']
/** In pregnancy a clinician's: low back, hips and pelvis; calf, belly and breath never are of the bike. */
const PREGNANCY: readonly What[] = ['lowBack', 'hipPinch', 'saddlePressure', 'oneSidedSoreness']
/** What one feels of the bike itself: no pain that could last. */
const NO_PAIN: readonly What[] = ['slidingForward', 'keepsMovingBack', 'cramped', 'stretched', 'kneesMeetBars']
/** Felt on the left on hard efforts it may be of the heart: shoulder, arm and neck. */
const OF_THE_ARM: readonly What[] = ['shoulders', 'neck', 'hands', 'wrist']
/** From this strength on pain stops fit advice, of 10. */
export const SEVERE_FROM = 8

type Context = Readonly<{ health?: ExplainRequest['health']; others?: readonly Complaint[] }>

/**
 * Every red flag of a complaint, the gravest first; none where it may be answered on the bike. `others` are the
 * complaints recorded with it: a lasting low back with a numb foot is a flag.
 */
export function redFlagsOf(complaint: Complaint, { health = [], others = [] }: Context = {}): RedFlagReason[] {
  const { what, side, lasts, strength, when, quality = [] } = complaint
  const isPain = !NO_PAIN.includes(what)
  const isNumb = NUMB.includes(what)
  const canHaveSide = isPain && !isNumb
  const flags: readonly (readonly [RedFlagReason, boolean])[] = [
    ['leftOnEffort', when === 'hardEfforts' && side === 'left' && OF_THE_ARM.includes(what)],
    ...quality.map((one) => [one, true] as const),
    ['severe', isPain && strength >= SEVERE_FROM],
    ['numbLasts', lasts === true && isNumb],
    ['backWithNumbFoot', isBackWithNumbFoot(complaint, others)],
    ['oneSideLasts', lasts === true && canHaveSide && (side === 'left' || side === 'right')],
    // A lasting pain on one side is a flag; an unknown side counts as one until it is recorded.
    ['sideUnknown', lasts === true && canHaveSide && side === undefined],
    ['pregnancy', health.includes('pregnant') && (PREGNANCY.includes(what) || lasts === true)],
    ['recentOperation', health.includes('recentOperation')],
    ['heart', health.includes('heart')],
  ]
  return [
    ...NEVER_OF_THE_BIKE.filter((flag) => flag === what),
    ...flags.flatMap(([flag, isPresent]) => (isPresent ? [flag] : [])),
  ]
}

function isBackWithNumbFoot(complaint: Complaint, others: readonly Complaint[]): boolean {
  const all = [complaint, ...others]
  const hasBack = all.some(({ what, lasts }) => what === 'lowBack' && lasts === true)
  return (
    hasBack && all.some(({ what }) => what === 'feet') && (complaint.what === 'lowBack' || complaint.what === 'feet')
  )
}
