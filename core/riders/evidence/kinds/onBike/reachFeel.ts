import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachUpperBody, reachExcessMm } from '../../../kinematics/upperBody'
import { MEASUREMENT_SD, REACH_FEEL_CUTS_MM as CUTS } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

const EXCESS_MM: Readonly<Record<'stretched' | 'right' | 'cramped', Interval>> = {
  stretched: { from: CUTS.stretched, to: Infinity },
  right: { from: CUTS.cramped, to: CUTS.stretched },
  cramped: { from: -Infinity, to: CUTS.cramped },
}

/** How the reach feels to the rider. */
export const reachFeel = defineKind({
  kind: 'reachFeel',
  fields: { seen: oneOf(['stretched', 'right', 'cramped']) },
  name: 'feel of the reach',
  about: 'bars',
  step: 'bars',
  likelihood: ({ seen }, { contact }) =>
    orderedProbit(EXCESS_MM[seen], MEASUREMENT_SD.reachFeelMm, (particles) =>
      eachUpperBody(particles.upperBodies(), contact.seat, contact.grip, reachExcessMm),
    ),
})
