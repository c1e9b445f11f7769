import type { Complaint, ExplainRequest } from './request'

/** Why a complaint is no matter for a bike: what stops fit advice for it (common practice, no source). */
export type RedFlagReason =
  | 'chest'
  | 'breath'
  | 'faint'
  | 'calfSwelling'
  | 'abdomen'
  | 'sharp'
  | 'growing'
  | 'night'
  | 'locking'
  | 'givingWay'
  | 'swelling'
  | 'numbLasts'
  | 'oneSideLasts'
  | 'pregnancy'
  | 'recentOperation'

/** Never answered by a change of the bike, however it feels. */
export const NEVER_OF_THE_BIKE = ['chest', 'breath', 'faint', 'calfSwelling', 'abdomen'] as const
/** Where a complaint is, or can be, numbness. */
const NUMB: readonly Complaint['what'][] = ['hands', 'wrist', 'saddlePressure', 'feet']
/** Felt in the pelvis: in pregnancy a clinician's. */
const PELVIC: readonly Complaint['what'][] = ['hipPinch', 'saddlePressure', 'oneSidedSoreness']
/** What one feels of the bike itself: no pain that could last. */
const NO_PAIN: readonly Complaint['what'][] = [
  'slidingForward',
  'keepsMovingBack',
  'cramped',
  'stretched',
  'kneesMeetBars',
]

/** Every red flag of a complaint, the gravest first; none where it may be answered on the bike. */
export function redFlagsOf(complaint: Complaint, health: ExplainRequest['health'] = []): RedFlagReason[] {
  const { what, side, lasts, quality = [] } = complaint
  return [
    ...NEVER_OF_THE_BIKE.filter((flag) => flag === what),
    ...quality,
    ...(lasts && NUMB.includes(what) ? (['numbLasts'] as const) : []),
    ...(lasts && (side === 'left' || side === 'right') && !NUMB.includes(what) && !NO_PAIN.includes(what)
      ? (['oneSideLasts'] as const)
      : []),
    ...(health.includes('pregnant') && PELVIC.includes(what) ? (['pregnancy'] as const) : []),
    ...(health.includes('recentOperation') ? (['recentOperation'] as const) : []),
  ]
}
