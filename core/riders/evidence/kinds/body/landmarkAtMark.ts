import { columnOf } from '../../../../base/columns'
import { gaussian } from '../../../inference/likelihood'
import { SD_BY_RIDER } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'
import { landmarkHeightMm, landmarkSdMm, LANDMARKS_AT_MARK, type LandmarkAtMark } from '../../definition/landmarks'

/** A rider's own hand is no better than the landmark itself allows. */
const readSdMm = (landmark: LandmarkAtMark, readBy: 'instructor' | 'rider' | undefined): number =>
  readBy === 'rider' ? Math.max(SD_BY_RIDER.landmarkMm, landmarkSdMm(landmark)) : landmarkSdMm(landmark)

/**
 * The saddle's top brought level with a landmark, rider beside the bike in shoes: landmark + sole = seat y + axle
 * height. A mark represents all positions nearer to it than to its neighbours (uniform: spacing / √12).
 */
export const landmarkAtMark = defineKind({
  kind: 'landmarkAtMark',
  fields: { landmark: oneOf(LANDMARKS_AT_MARK), readBy: readBySchema },
  name: 'landmark beside the bike',
  about: 'landmark',
  step: 'beside',
  likelihood: ({ landmark, readBy }, { contact, bikeType, footing, spacingMm }) =>
    gaussian(
      bikeType.axleHeightMm - footing.soleMm,
      Math.hypot(readSdMm(landmark, readBy), spacingMm / Math.sqrt(12)),
      ({ count, body, shift }) => {
        const heightMm = landmarkHeightMm(body, landmark)
        return columnOf(count, (i) => heightMm[i] - contact.seat.yMm - shift.yMm[i])
      },
    ),
})
