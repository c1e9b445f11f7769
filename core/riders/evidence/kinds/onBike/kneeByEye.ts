import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { KNEE_BY_EYE_CUTS_DEG, MEASUREMENT_SD, SD_BY_RIDER } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'
import { flexionOf } from '../../definition/flexion'

const { locked, deepBend } = KNEE_BY_EYE_CUTS_DEG
/** Flexion as seen, for each word; degrees. */
export const KNEE_BY_EYE_DEG: Readonly<Record<'locked' | 'slightBend' | 'deepBend', Interval>> = {
  locked: { from: -Infinity, to: locked },
  slightBend: { from: locked, to: deepBend },
  deepBend: { from: deepBend, to: Infinity },
}

/**
 * How the knee looks at the bottom of the stroke, to an eye whose error is estimated where pairs exist; or how riders
 * feel and see their own.
 */
export const kneeByEye = defineKind({
  kind: 'kneeByEye',
  fields: { seen: oneOf(['locked', 'slightBend', 'deepBend']), readBy: readBySchema },
  name: 'knee by eye',
  about: 'saddle',
  step: 'knee',
  likelihood: ({ seen, side, readBy }, context) => {
    const { from, to } = KNEE_BY_EYE_DEG[seen]
    if (readBy === 'rider') return orderedProbit({ from, to }, SD_BY_RIDER.kneeDeg, flexionOf(side, context))
    const { kneeBiasDeg, kneeSdDeg } = context.observer?.eye ?? {
      kneeBiasDeg: 0,
      kneeSdDeg: MEASUREMENT_SD.kneeByEyeDeg,
    }
    return orderedProbit({ from: from - kneeBiasDeg, to: to - kneeBiasDeg }, kneeSdDeg, flexionOf(side, context))
  },
})
