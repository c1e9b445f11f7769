/**
 * Body proportions and their spreads, the one table with sources.
 *
 * Means as fractions of stature: Drillis & Contini 1966, as tabulated by Winter, recalled from memory.
 * Rows marked "memory" have no source at hand; spreads are our own, from prototypes and memory.
 */
export const FRACTION_OF_STATURE = Object.freeze({
  thigh: 0.245,
  shank: 0.246,
  ankleHeight: 0.039,
  footLength: 0.152,
  /** Greater trochanter, taken as the hip joint: thigh + shank + ankle height. */
  trochanterHeight: 0.53,
  shoulderHeight: 0.818,
  trunk: 0.288,
  /** Upper side of a level thigh above the hip joint; memory. */
  thighTopAboveHip: 0.042,
  upperArm: 0.186,
  forearm: 0.146,
  hand: 0.108,
  /** Crotch height; memory. */
  inseam: 0.482,
  /** Top of the hip bone at the side; memory. */
  hipCrestHeight: 0.604,
  /** Bony point at the front of the pelvis; memory. */
  frontHipBoneHeight: 0.565,
  /** 0.47 of the foot's length; memory. */
  ankleToBall: 0.47 * 0.152,
})

/** The grip's centre lies half a hand ahead of the wrist. */
export const FOREARM_TO_GRIP_FRACTION = FRACTION_OF_STATURE.forearm + FRACTION_OF_STATURE.hand / 2

/** Default sole between foot and pedal, mm; common practice, no source. */
export const DEFAULT_SOLE_MM = 10

/** Elbow flexion of a relaxed rider, for the drawing and the bars' rule; common practice, no source. */
export const SOFT_ELBOW_DEG = 20

/** Foot pitch at the top of the stroke, degrees; memory. */
export const TOP_PITCH_DEG = 15
