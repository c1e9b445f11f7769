import { columnOf } from '../../../../base/columns'
import { gaussian } from '../../../inference/likelihood'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'
import { landmarkHeightMm, landmarkSdMm, LANDMARKS_AT_MARK } from '../../definition/landmarks'

/**
 * The saddle's top brought level with a landmark, rider beside the bike in shoes: landmark + sole = seat y + axle
 * height. A mark represents all positions nearer to it than to its neighbours (uniform: spacing / √12).
 */
export const landmarkAtMark = defineKind({
  kind: 'landmarkAtMark',
  fields: { landmark: oneOf(LANDMARKS_AT_MARK) },
  name: 'landmark beside the bike',
  about: 'landmark',
  step: 'beside',
  likelihood: ({ landmark }, { contact, bikeType, footing, spacingMm }) =>
    gaussian(
      bikeType.axleHeightMm - footing.soleMm,
      Math.hypot(landmarkSdMm(landmark), spacingMm / Math.sqrt(12)),
      ({ count, body, shift }) => {
        const heightMm = landmarkHeightMm(body, landmark)
        return columnOf(count, (i) => heightMm[i] - contact.seat.yMm - shift.yMm[i])
      },
    ),
})
