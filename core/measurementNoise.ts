/** How far a reading strays from the truth, one spread each (model notes; our own, from prototypes and memory). */
export const MEASUREMENT_SD = Object.freeze({
  statureMm: 10,
  inseamMm: 8,
  /** A landmark held against the saddle or read by tape, before a mark's own rounding. */
  landmarkMm: 12,
  goniometerDeg: 2,
  photoDeg: 4,
  gaugeDeg: 1.5,
  plumbMm: 6,
  kneeByEyeDeg: 6,
  heelMm: 8,
})

/** Knee flexion below which an eye calls the knee locked, and above which deeply bent, degrees. */
export const KNEE_BY_EYE_CUTS_DEG = Object.freeze({ locked: 22, deepBend: 38 })

/** A heel check passes as just straight within this of the leg's own length, mm. */
export const HEEL_JUST_STRAIGHT_MM = 10

/** The middle of the kneecap lies this far behind its front, mm; memory. */
export const PATELLA_MIDDLE_BEHIND_FRONT_MM = 10

/**
 * Looks by one pair of eyes, or readings with one instrument on one rider at one position, share part of their error:
 * of the variance 4² of 6² by eye (wire format), and the same share for every other kind (ours). The rest is each
 * look's own.
 */
export const SHARED_VARIANCE = 16 / 36

/** Left against right knee of one rider at one saddle, half the difference, degrees, one spread; ours. */
export const SIDE_HALF_DIFFERENCE_SD_DEG = 2.5
