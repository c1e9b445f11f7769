/** Where something is felt, from the feet up; `sided` where it can be on one side alone. */
export const FELT_REGIONS = [
  { region: 'feltFeet', name: 'Feet', sided: true },
  { region: 'feltKneeFront', name: 'Knee, front', sided: true },
  { region: 'feltKneeSide', name: 'Knee, side', sided: true },
  { region: 'feltKneeBack', name: 'Knee, back', sided: true },
  { region: 'feltThighs', name: 'Thighs', sided: true },
  { region: 'feltHips', name: 'Hips', sided: true },
  { region: 'feltSaddle', name: 'Saddle', sided: true },
  { region: 'feltLowBack', name: 'Low back', sided: true },
  { region: 'feltNeck', name: 'Neck, shoulders', sided: true },
  { region: 'feltHands', name: 'Hands, wrists', sided: true },
] as const
export type FeltRegion = (typeof FELT_REGIONS)[number]['region']

export const feltNamed = (region: string): (typeof FELT_REGIONS)[number] | undefined =>
  FELT_REGIONS.find((one) => one.region === region)

/** The sign of something felt among the notes of a class. */
export const FELT = 'felt'
/** The sign of a red flag. */
export const RED_FLAG = 'redFlag'

/** How strong, 0 nothing to 10 as bad as can be. */
export const SCORES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const
/** From this strength on, something felt is pressing after class. Assumption. */
export const STRONG_FROM = 6

/**
 * What stops a ride and is never answered by a change of the bike: the rider is handed on (common practice, no source;
 * local rules and licensed practice outrank it).
 */
export const RED_FLAGS = [
  { flag: 'chest', name: 'Chest pain or fainting' },
  { flag: 'sharp', name: 'Sharp pain' },
  { flag: 'numbLasts', name: 'Numbness that stays' },
  { flag: 'swelling', name: 'Swelling, locking, giving way' },
  { flag: 'growing', name: 'One-sided pain that grows' },
  { flag: 'calf', name: 'Calf pain with swelling' },
  { flag: 'pregnancy', name: 'Complaint in pregnancy' },
  { flag: 'operation', name: 'Near a recent operation' },
] as const
export type RedFlag = (typeof RED_FLAGS)[number]['flag']
export const redFlagNamed = (flag: string): (typeof RED_FLAGS)[number] | undefined =>
  RED_FLAGS.find((one) => one.flag === flag)

/** The words to the rider, also in writing. */
export const REFERRAL =
  'Stop riding for today and sit down. This is nothing to be settled on a bike: please have it looked at by a doctor ' +
  'or physiotherapist before you ride again. With chest pain, fainting or trouble breathing, call the emergency number.'
