import { gaussian } from '../../../inference/likelihood'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** The foot at the bottom of the stroke against level, degrees; heel up is plus. */
export const footPitch = defineKind({
  kind: 'footPitch',
  fields: { deg: between(-40, 70) },
  name: 'foot angle',
  about: 'saddle',
  step: 'knee',
  likelihood: ({ deg }) => gaussian(deg, MEASUREMENT_SD.footPitchDeg, ({ body }) => body.bottomPitchDeg),
})
