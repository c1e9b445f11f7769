import { gaussian } from '../../inference/likelihood'
import { MEASUREMENT_SD } from '../../measurementNoise'
import { between, oneOf } from '../../schema'
import { defineKind } from '../defineKind'
import { flexionOf } from '../flexion'

const SD_DEG = {
  goniometer: MEASUREMENT_SD.goniometerDeg,
  photo: MEASUREMENT_SD.photoDeg,
  gauge: MEASUREMENT_SD.gaugeDeg,
} as const

/** Knee flexion at the bottom of the stroke, degrees: 0 is a straight leg. */
export const kneeAngle = defineKind({
  kind: 'kneeAngle',
  fields: { deg: between(-20, 150), by: oneOf(['goniometer', 'photo', 'gauge']) },
  name: 'knee angle',
  about: 'saddle',
  askedAt: 'knee',
  likelihood: ({ deg, by, side }, seen) => gaussian(deg, SD_DEG[by], flexionOf(side, seen)),
})
