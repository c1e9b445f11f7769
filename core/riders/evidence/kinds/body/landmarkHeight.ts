import { Type } from '@sinclair/typebox'
import { gaussian } from '../../../inference/likelihood'
import { between, oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'
import { landmarkHeightMm, landmarkSdMm, LANDMARK_HEIGHTS } from '../../definition/landmarks'

/** A landmark's height above the floor by tape; taken in shoes it includes their sole. */
export const landmarkHeight = defineKind({
  kind: 'landmarkHeight',
  fields: { landmark: oneOf(LANDMARK_HEIGHTS), mm: between(450, 1600), shod: Type.Boolean() },
  name: 'landmark height',
  about: 'body',
  step: null,
  likelihood: ({ landmark, mm, shod }, { footing }) =>
    gaussian(mm - (shod ? footing.soleMm : 0), landmarkSdMm(landmark), ({ body }) => landmarkHeightMm(body, landmark)),
})
