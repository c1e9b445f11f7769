import { Type } from '@sinclair/typebox'
import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachLeg, heelReachDeficitMm } from '../../../kinematics/leg'
import { MEASUREMENT_SD, ROCKING_BELOW_DEG } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'
import { flexionOf } from '../../definition/flexion'

const ROCKS: Interval = { from: -Infinity, to: ROCKING_BELOW_DEG }
const LEVEL: Interval = { from: ROCKING_BELOW_DEG, to: Infinity }

/**
 * The pelvis from behind. With the ball of the foot it rocks both ways where the knee is nearly straight; with the heel
 * on the pedal where the heel does not reach, which it does not at many a right height. Rocking one way may as well be
 * a leg, an off-centre seat or a twisted saddle: of the height it shows only that the other side is no higher.
 */
export const rocking = defineKind({
  kind: 'rocking',
  fields: {
    seen: oneOf(['level', 'both', 'left', 'right']),
    foot: Type.Optional(oneOf(['ball', 'heel'])),
  },
  name: 'rocking',
  about: 'saddle',
  step: 'knee',
  likelihood: ({ seen, foot }, context) => {
    if (seen === 'left' || seen === 'right') return null
    if (foot === 'heel')
      return orderedProbit(
        seen === 'both' ? { from: 0, to: Infinity } : { from: -Infinity, to: 0 },
        MEASUREMENT_SD.rockingOnHeelMm,
        (particles) => eachLeg(particles.legsOn(context.footing), context.contact.seat, heelReachDeficitMm),
      )
    return orderedProbit(seen === 'both' ? ROCKS : LEVEL, MEASUREMENT_SD.rockingDeg, flexionOf(undefined, context))
  },
})
