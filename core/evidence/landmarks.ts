import { columnOf } from '../columns'
import type { Bodies } from '../rider/prior'

/** Body landmarks a saddle can be levelled with, and that a tape can find. */
export const LANDMARKS = ['hipCrest', 'frontHipBone', 'between', 'trochanter'] as const
export type Landmark = (typeof LANDMARKS)[number]

/** Height of a landmark above the floor, barefoot, mm; "between" lies half-way from trochanter to hip crest. */
export function landmarkHeightMm(body: Bodies, landmark: Landmark): Float64Array {
  switch (landmark) {
    case 'hipCrest':
      return body.hipCrestHeightMm
    case 'frontHipBone':
      return body.frontHipBoneHeightMm
    case 'trochanter':
      return body.trochanterHeightMm
    case 'between':
      return columnOf(body.count, (i) => (body.trochanterHeightMm[i] + body.hipCrestHeightMm[i]) / 2)
  }
}
