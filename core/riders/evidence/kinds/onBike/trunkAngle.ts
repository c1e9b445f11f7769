import { gaussian } from '../../../inference/likelihood'
import { eachUpperBody, trunkAngleDeg } from '../../../kinematics/upperBody'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** Hip to shoulder above level in the riding position, degrees, from the side. */
export const trunkAngle = defineKind({
  kind: 'trunkAngle',
  fields: { deg: between(0, 100) },
  name: 'trunk angle',
  about: 'bars',
  step: 'bars',
  likelihood: ({ deg }, { contact }) =>
    gaussian(deg, MEASUREMENT_SD.trunkDeg, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.seat, contact.grip, trunkAngleDeg),
    ),
})
