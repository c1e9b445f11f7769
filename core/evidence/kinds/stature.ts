import { gaussian } from '../../inference/likelihood'
import { MEASUREMENT_SD } from '../../measurementNoise'
import { between } from '../../schema'
import { defineKind } from '../defineKind'

/** No adult is shorter or taller, mm. */
export const STATURE_RANGE_MM = [1000, 2500] as const

/** Standing height without shoes. */
export const stature = defineKind({
  kind: 'stature',
  fields: { mm: between(...STATURE_RANGE_MM) },
  name: 'stature',
  about: 'body',
  askedAt: 'beside',
  likelihood: ({ mm }) => gaussian(mm, MEASUREMENT_SD.statureMm, ({ body }) => body.statureMm),
})
