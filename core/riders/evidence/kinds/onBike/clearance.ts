import { columnOf } from '../../../../base/columns'
import { orderedProbit } from '../../../inference/likelihood'
import { standingClearanceMm } from '../../../kinematics/upperBody'
import { MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** Standing, hips over the saddle's front third: whether the knees clear the bars. */
export const clearance = defineKind({
  kind: 'clearance',
  fields: { seen: oneOf(['clear', 'touches']) },
  name: 'standing clearance',
  about: 'bars',
  step: 'bars',
  likelihood: ({ seen }, { contact, bikeType, noseDeltaMm = 0 }) =>
    orderedProbit(
      seen === 'clear' ? { from: 0, to: Infinity } : { from: -Infinity, to: 0 },
      MEASUREMENT_SD.clearanceMm,
      (particles) => {
        const upper = particles.upperBodies()
        return columnOf(particles.count, (i) =>
          standingClearanceMm(upper, contact.seat, contact.grip, bikeType.saddle.noseAheadMm + noseDeltaMm, i),
        )
      },
    ),
})
