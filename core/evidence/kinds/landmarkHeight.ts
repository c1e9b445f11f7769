import { Type } from '@sinclair/typebox'
import { gaussian } from '../../inference/likelihood'
import { MEASUREMENT_SD } from '../../measurementNoise'
import { between, oneOf } from '../../schema'
import { defineKind } from '../defineKind'
import { landmarkHeightMm, LANDMARKS } from '../landmarks'

/** A landmark's height above the floor by tape; taken in shoes it holds their sole. */
export const landmarkHeight = defineKind({
  kind: 'landmarkHeight',
  fields: { landmark: oneOf(LANDMARKS), mm: between(450, 1600), shod: Type.Boolean() },
  name: 'landmark height',
  about: 'body',
  askedAt: null,
  likelihood: ({ landmark, mm, shod }, { soleMm }) =>
    gaussian(mm - (shod ? soleMm : 0), MEASUREMENT_SD.landmarkMm, ({ body }) => landmarkHeightMm(body, landmark)),
})
