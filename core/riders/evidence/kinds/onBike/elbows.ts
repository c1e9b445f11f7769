import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachUpperBody, reachExcessMm } from '../../../kinematics/upperBody'
import { ELBOW_CUTS_MM as CUTS, MEASUREMENT_SD, SD_BY_RIDER } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'

const EXCESS_MM: Readonly<Record<'locked' | 'soft' | 'cramped', Interval>> = {
  locked: { from: CUTS.locked, to: Infinity },
  soft: { from: CUTS.cramped, to: CUTS.locked },
  cramped: { from: -Infinity, to: CUTS.cramped },
}

/** Elbows in the riding position. */
export const elbows = defineKind({
  kind: 'elbows',
  fields: { seen: oneOf(['locked', 'soft', 'cramped']), readBy: readBySchema },
  name: 'elbows',
  about: 'bars',
  step: 'bars',
  likelihood: ({ seen, readBy }, { contact }) =>
    orderedProbit(EXCESS_MM[seen], (readBy === 'rider' ? SD_BY_RIDER : MEASUREMENT_SD).elbowsMm, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.seat, contact.grip, reachExcessMm),
    ),
})
