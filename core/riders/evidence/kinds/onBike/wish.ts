import { Type } from '@sinclair/typebox'
import { gaussian } from '../../../inference/likelihood'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { TRUNK_WINDOW_DEG } from '../../../../base/school/school'
import { defineKind } from '../../definition/defineKind'

/** The posture a rider wants, and the hand position they ride in most, by the type's own name for it. */
export const wish = defineKind({
  kind: 'wish',
  fields: {
    posture: oneOf(['upright', 'level', 'low']),
    grip: Type.Optional(Type.String({ minLength: 1, maxLength: 40 })),
  },
  name: 'wish',
  about: 'reported',
  step: 'bars',
  likelihood: ({ posture }) => {
    const [low, high] = TRUNK_WINDOW_DEG[posture]
    return gaussian((low + high) / 2, MEASUREMENT_SD.wishDeg, ({ body }) => body.trunkComfortDeg)
  },
})
