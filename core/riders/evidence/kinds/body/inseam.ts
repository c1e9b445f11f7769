import { Type } from '@sinclair/typebox'
import { gaussian } from '../../../inference/likelihood'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { between } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** No adult's inseam is shorter or longer, mm. */
export const INSEAM_RANGE_MM = [400, 1300] as const

/** Crotch to floor, a stick pressed up firmly; taken in shoes it includes their sole. */
export const inseam = defineKind({
  kind: 'inseam',
  fields: { mm: between(...INSEAM_RANGE_MM), shod: Type.Boolean() },
  name: 'inseam',
  about: 'body',
  step: 'beside',
  likelihood: ({ mm, shod }, { footing }) =>
    gaussian(mm - (shod ? footing.soleMm : 0), MEASUREMENT_SD.inseamMm, ({ body }) => body.inseamMm),
})
