import { gaussian } from '../../../inference/likelihood'
import { eachUpperBody, forearmGapMm } from '../../../kinematics/upperBody'
import { MEASUREMENT_SD, SD_BY_RIDER } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'

/** Elbow at the saddle's nose, fingers toward the bar: how far the fingertips stay short, mm; minus = over it. */
export const forearmGauge = defineKind({
  kind: 'forearmGauge',
  fields: { gapMm: between(-300, 400), readBy: readBySchema },
  name: 'forearm gauge',
  about: 'bars',
  step: 'bars',
  likelihood: ({ gapMm, readBy }, { contact }) =>
    gaussian(gapMm, (readBy === 'rider' ? SD_BY_RIDER : MEASUREMENT_SD).forearmGapMm, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.nose, contact.grip, forearmGapMm),
    ),
})
