/** How a member agreed that health notes about them are stored. */
export const CONSENT_WAYS = ['spoken', 'written', 'ownPage'] as const
export type ConsentWay = (typeof CONSENT_WAYS)[number]
/** Version of the wording every studio begins with; a studio's own count on from it. */
export const FIRST_WORDING = 1
export const MAX_WORDING_LENGTH = 1000
