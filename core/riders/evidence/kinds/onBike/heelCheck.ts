import { Type } from '@sinclair/typebox'
import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachLeg, heelReachDeficitMm } from '../../../kinematics/leg'
import {
  HEEL_JUST_STRAIGHT_MM,
  HEEL_SHORT_LITTLE_MM,
  MEASUREMENT_SD,
  SD_BY_RIDER,
} from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'

const DEFICIT_MM: Readonly<Record<'justStraight' | 'stillBent' | 'cannotReach', Interval>> = {
  justStraight: { from: -HEEL_JUST_STRAIGHT_MM, to: HEEL_JUST_STRAIGHT_MM },
  stillBent: { from: -Infinity, to: -HEEL_JUST_STRAIGHT_MM },
  cannotReach: { from: HEEL_JUST_STRAIGHT_MM, to: Infinity },
}

/** A heel that does not reach, by how far. */
const SHORT_MM: Readonly<Record<'little' | 'much', Interval>> = {
  little: { from: HEEL_JUST_STRAIGHT_MM, to: HEEL_SHORT_LITTLE_MM },
  much: { from: HEEL_SHORT_LITTLE_MM, to: Infinity },
}

/** Heel on the pedal at its farthest, pelvis level: whether the leg is just straight. */
export const heelCheck = defineKind({
  kind: 'heelCheck',
  fields: {
    seen: oneOf(['justStraight', 'stillBent', 'cannotReach']),
    short: Type.Optional(oneOf(['little', 'much'])),
    readBy: readBySchema,
  },
  name: 'heel check',
  about: 'saddle',
  step: 'knee',
  likelihood: ({ seen, short, readBy }, { contact, footing, school }) =>
    school.heelCheck === 'unused'
      ? null
      : orderedProbit(
          seen === 'cannotReach' && short ? SHORT_MM[short] : DEFICIT_MM[seen],
          (readBy === 'rider' ? SD_BY_RIDER : MEASUREMENT_SD).heelMm,
          (particles) => eachLeg(particles.legsOn(footing), contact.seat, heelReachDeficitMm),
        ),
})
