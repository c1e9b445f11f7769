import { Type } from '@sinclair/typebox'
import { gaussian } from '../../../inference/likelihood'
import { MEASUREMENT_SD, MOVING_MORE_DEG, MOVING_MORE_SD_DEG } from '../../../../base/measurementNoise'
import { between, oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'
import { flexionOf } from '../../definition/flexion'

/** Standard deviation of a knee angle by instrument, degrees. */
export const KNEE_READING_SD_DEG = {
  goniometer: MEASUREMENT_SD.goniometerDeg,
  photo: MEASUREMENT_SD.photoDeg,
  gauge: MEASUREMENT_SD.gaugeDeg,
} as const

const MIN_DEG = -20
const MAX_DEG = 90

/**
 * What a typed knee angle means, degrees: the bend, or the angle between the bones (180 is straight) where no knee
 * bends so far; the bend is then what is left to 180.
 */
export function interpretKneeAngle(
  typed: number,
): Readonly<{ outcome: 'bend' | 'includedAngle'; deg: number } | { outcome: 'impossible' }> {
  if (typed >= MIN_DEG && typed < MAX_DEG) return { outcome: 'bend', deg: typed }
  const bend = 180 - typed
  return bend >= MIN_DEG && bend <= MAX_DEG ? { outcome: 'includedAngle', deg: bend } : { outcome: 'impossible' }
}

/**
 * Knee flexion at the bottom of the stroke, degrees: 0 is a straight leg. A still leg with the ball of the foot on the
 * pedal, unless the row has `foot` on its heel, or `moving`, read from a turning leg.
 */
export const kneeAngle = defineKind({
  kind: 'kneeAngle',
  fields: {
    deg: between(MIN_DEG, MAX_DEG),
    by: oneOf(['goniometer', 'photo', 'gauge']),
    foot: Type.Optional(oneOf(['ball', 'heel'])),
    moving: Type.Optional(Type.Boolean()),
  },
  name: 'knee angle',
  about: 'saddle',
  step: 'knee',
  likelihood: ({ deg, by, side, foot, moving }, seen) =>
    gaussian(
      deg - (moving ? MOVING_MORE_DEG : 0),
      Math.hypot(KNEE_READING_SD_DEG[by], moving ? MOVING_MORE_SD_DEG : 0),
      flexionOf(side, seen, foot),
    ),
})
