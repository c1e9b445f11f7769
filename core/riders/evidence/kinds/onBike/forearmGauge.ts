import { gaussian } from '../../../inference/likelihood'
import { eachUpperBody, forearmGapMm } from '../../../kinematics/upperBody'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** Elbow at the saddle's nose, fingers toward the bar: how far the fingertips stay short, mm; minus = over it. */
export const forearmGauge = defineKind({
  kind: 'forearmGauge',
  fields: { gapMm: between(-300, 400) },
  name: 'forearm gauge',
  about: 'bars',
  step: 'bars',
  likelihood: ({ gapMm }, { contact }) =>
    gaussian(gapMm, MEASUREMENT_SD.forearmGapMm, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.nose, contact.grip, forearmGapMm),
    ),
})
