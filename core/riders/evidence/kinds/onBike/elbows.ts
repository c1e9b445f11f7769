import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachUpperBody, reachExcessMm } from '../../../kinematics/upperBody'
import { ELBOW_CUTS_MM as CUTS, MEASUREMENT_SD } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

const EXCESS_MM: Readonly<Record<'locked' | 'soft' | 'cramped', Interval>> = {
  locked: { from: CUTS.locked, to: Infinity },
  soft: { from: CUTS.cramped, to: CUTS.locked },
  cramped: { from: -Infinity, to: CUTS.cramped },
}

/** Elbows in the riding position. */
export const elbows = defineKind({
  kind: 'elbows',
  fields: { seen: oneOf(['locked', 'soft', 'cramped']) },
  name: 'elbows',
  about: 'bars',
  step: 'bars',
  likelihood: ({ seen }, { contact }) =>
    orderedProbit(EXCESS_MM[seen], MEASUREMENT_SD.elbowsMm, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.seat, contact.grip, reachExcessMm),
    ),
})
