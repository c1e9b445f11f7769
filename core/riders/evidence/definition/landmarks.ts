import { columnOf } from '../../../base/columns'
import { FRACTION_OF_STATURE } from '../../rider/anthropometry'
import type { Bodies } from '../../rider/prior'
import { MEASUREMENT_SD } from '../../../base/measurementNoise'

/** Body landmarks a saddle can be levelled with beside the bike. */
export const LANDMARKS_AT_MARK = ['hipCrest', 'frontHipBone', 'between', 'raisedThigh', 'halfThigh'] as const
export type LandmarkAtMark = (typeof LANDMARKS_AT_MARK)[number]
/** Body landmarks whose height a tape can find. */
export const LANDMARK_HEIGHTS = ['hipCrest', 'frontHipBone', 'trochanter', 'raisedThigh', 'halfThigh'] as const
export type Landmark = LandmarkAtMark | (typeof LANDMARK_HEIGHTS)[number]

/**
 * Height of a landmark above the floor, barefoot, mm. "Between" lies half-way from trochanter to hip crest; a lifted
 * thigh is level: its upper side, or half-way up it, at the hip joint's own height.
 */
export function landmarkHeightMm(body: Bodies, landmark: Landmark): Float64Array {
  switch (landmark) {
    case 'hipCrest':
      return body.hipCrestHeightMm
    case 'frontHipBone':
      return body.frontHipBoneHeightMm
    case 'trochanter':
    case 'halfThigh':
      return body.trochanterHeightMm
    case 'between':
      return columnOf(body.count, (i) => (body.trochanterHeightMm[i] + body.hipCrestHeightMm[i]) / 2)
    case 'raisedThigh':
      return columnOf(
        body.count,
        (i) => body.trochanterHeightMm[i] + FRACTION_OF_STATURE.thighTopAboveHip * body.statureMm[i],
      )
  }
}

/** Standard deviation of a landmark, found by hand or by a tape, mm. */
export function landmarkSdMm(landmark: Landmark): number {
  if (landmark === 'raisedThigh') return MEASUREMENT_SD.raisedThighMm
  return landmark === 'halfThigh' ? MEASUREMENT_SD.halfThighMm : MEASUREMENT_SD.landmarkMm
}
