export const POSTURES = ['seated', 'standing'] as const
export type Posture = (typeof POSTURES)[number]
export const EFFORTS = ['easy', 'steady', 'hard', 'recovery'] as const
export type Effort = (typeof EFFORTS)[number]
/** Long throughout, or long and tucked by turns on purpose. */
export const SPINES = ['long', 'longAndTucked'] as const
export type Spine = (typeof SPINES)[number]
/** Where the hands lie: 1 the nearest, 3 the farthest. */
export const HAND_POSITIONS = [1, 2, 3] as const
export type HandPosition = (typeof HAND_POSITIONS)[number]
