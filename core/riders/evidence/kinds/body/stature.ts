import { gaussian } from '../../../inference/likelihood'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** No adult is shorter or taller, mm. */
export const STATURE_RANGE_MM = [1000, 2500] as const

/** Standing height without shoes. */
export const stature = defineKind({
  kind: 'stature',
  fields: { mm: between(...STATURE_RANGE_MM) },
  name: 'stature',
  about: 'body',
  step: 'beside',
  likelihood: ({ mm }) => gaussian(mm, MEASUREMENT_SD.statureMm, ({ body }) => body.statureMm),
})
