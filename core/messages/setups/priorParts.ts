import type { PriorPart } from '../../riders/rider/prior'

/** Parts of the prior, by name. */
export const PRIOR_PART_NAME: Readonly<Record<PriorPart, string>> = Object.freeze({
  statureMm: 'Stature',
  legFactor: 'Leg for the stature',
  thighShareFactor: 'Thigh against shank',
  ankleHeightFactor: 'Ankle height',
  ankleToBallFactor: 'Ankle to ball',
  trochanterAboveInseamFactor: 'Hip knob over crotch',
  crestAboveTrochanterFactor: 'Hip crest over knob',
  frontBoneAboveTrochanterFactor: 'Front bone over knob',
  trunkFactor: 'Trunk',
  armFactor: 'Arms',
  tissueCompressionMm: 'Sinking into the saddle',
  patellaAheadMm: 'Kneecap ahead of joint',
  bottomPitchDeg: 'Heel up at the bottom',
  forwardPitchDeg: 'Heel up, cranks level',
  elbowFlexionDeg: 'Elbow bend',
  trunkComfortDeg: 'Trunk at ease',
})
