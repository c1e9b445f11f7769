import { orderedProbit, type Interval } from '../../inference/likelihood'
import { KNEE_BY_EYE_CUTS_DEG, MEASUREMENT_SD } from '../../measurementNoise'
import { oneOf } from '../../schema'
import { defineKind } from '../defineKind'
import { flexionOf } from '../flexion'

const { locked, deepBend } = KNEE_BY_EYE_CUTS_DEG
const FLEXION_DEG: Readonly<Record<'locked' | 'slightBend' | 'deepBend', Interval>> = {
  locked: { from: -Infinity, to: locked },
  slightBend: { from: locked, to: deepBend },
  deepBend: { from: deepBend, to: Infinity },
}

/** How the knee looks at the bottom of the stroke. */
export const kneeByEye = defineKind({
  kind: 'kneeByEye',
  fields: { seen: oneOf(['locked', 'slightBend', 'deepBend']) },
  name: 'knee by eye',
  about: 'saddle',
  askedAt: 'knee',
  likelihood: ({ seen, side }, context) =>
    orderedProbit(FLEXION_DEG[seen], MEASUREMENT_SD.kneeByEyeDeg, flexionOf(side, context)),
})
