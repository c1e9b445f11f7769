/** Standard deviations of readings (model notes; assumptions from prototypes and memory). */
export const MEASUREMENT_SD = Object.freeze({
  statureMm: 10,
  inseamMm: 8,
  /** A landmark compared with the saddle or measured by tape, before rounding to a mark. */
  landmarkMm: 12,
  goniometerDeg: 2,
  photoDeg: 4,
  gaugeDeg: 1.5,
  plumbMm: 6,
  /** The rider looking down along the own knee, without a string. */
  plumbByRiderMm: 20,
  plumbByEyeMm: 12,
  kneeByEyeDeg: 6,
  heelMm: 8,
  /**
   * A pelvis that rocks, seen from behind: with the ball of the foot by the knee, with the heel by the heel's reach.
   */
  rockingDeg: 5,
  rockingOnHeelMm: 12,
  /** A limb by tape between landmarks found by hand; ours. */
  segmentMm: 10,
  /** The foot's angle compared with level; assumption. */
  footPitchDeg: 3,
  /** A thigh lifted level, or half-way up it: nobody lifts it to a degree; ours. */
  raisedThighMm: 25,
  halfThighMm: 30,
  /** Upper body: trunk angle from the side, fingertips to the bar, elbows, comfort and knees; assumptions. */
  trunkDeg: 4,
  forearmGapMm: 8,
  elbowsMm: 12,
  reachFeelMm: 25,
  clearanceMm: 20,
  /** What somebody wishes of the trunk's angle, beside what they then ride; ours. */
  wishDeg: 4,
  /** Torso against legs, judged by a look; in shares of the mean's. Ours. */
  buildShare: 0.03,
})

/**
 * The same, read by riders on themselves, alone at the bike: nobody levels the eye, sees a hip drop or an arm bend.
 * Ours; wider than the instructor's by half to three quarters.
 */
export const SD_BY_RIDER = Object.freeze({
  landmarkMm: 20,
  heelMm: 14,
  /** The own knee at the bottom, felt and seen from above. */
  kneeDeg: 9,
  plumbByEyeMm: 20,
  elbowsMm: 20,
  forearmGapMm: 14,
})

/** Knee flexion below which an eye calls the knee locked, and above which deeply bent, degrees. */
export const KNEE_BY_EYE_CUTS_DEG = Object.freeze({ locked: 22, deepBend: 38 })

/** A plumb line judged by eye: ends of "behind the ankle", "mid-foot", "over the axle", "ahead of it", mm. */
export const PLUMB_BY_EYE_CUTS_MM = Object.freeze([-90, -20, 20, 60] as const)

/** Below this much knee flexion a pelvis rocks both ways, degrees. */
export const ROCKING_BELOW_DEG = 18

/** Knee flexion while riding minus static, degrees (5–10; Fonda, Sarabon & Li 2014, from memory). */
export const MOVING_MORE_DEG = 7.5
/** Standard deviation of that difference, degrees; 5 to 10 as plus and minus two standard deviations. */
export const MOVING_MORE_SD_DEG = 1.5

/** Grip farther than the soft arm reaches by this much: elbows lock; nearer by this much: they cramp. mm, ours. */
export const ELBOW_CUTS_MM = Object.freeze({ locked: 8, cramped: -40 })
/** The same for what a rider feels, who bends at the back before speaking. mm, ours. */
export const REACH_FEEL_CUTS_MM = Object.freeze({ stretched: 20, cramped: -45 })
/** Torso longer or shorter than usual for the legs by this share is called so. Ours. */
export const BUILD_CUT_SHARE = 0.03

/** A heel that does not reach by less than this is short by a little: a finger or two. mm, ours. */
export const HEEL_SHORT_LITTLE_MM = 35

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

/** Half the difference of left and right knee of one rider, degrees, standard deviation; assumption. */
export const SIDE_HALF_DIFFERENCE_SD_DEG = 2.5
