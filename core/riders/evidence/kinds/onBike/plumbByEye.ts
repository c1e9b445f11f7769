import { orderedProbit, type Interval } from '../../../inference/likelihood'
import { eachLeg, kneeOverPedalMm } from '../../../kinematics/leg'
import { MEASUREMENT_SD, SD_BY_RIDER, PLUMB_BY_EYE_CUTS_MM as CUTS } from '../../../../base/measurementNoise'
import { oneOf } from '../../../../base/schema'
import { defineKind, readBySchema } from '../../definition/defineKind'

/** Plumb offset as seen, for each word; mm, plus = knee ahead. */
export const PLUMB_BY_EYE_MM: Readonly<
  Record<'behindAnkle' | 'midFoot' | 'overAxle' | 'aheadOfAxle' | 'pastToes', Interval>
> = {
  behindAnkle: { from: -Infinity, to: CUTS[0] },
  midFoot: { from: CUTS[0], to: CUTS[1] },
  overAxle: { from: CUTS[1], to: CUTS[2] },
  aheadOfAxle: { from: CUTS[2], to: CUTS[3] },
  pastToes: { from: CUTS[3], to: Infinity },
}

/**
 * Where the front of the knee hangs with the cranks level: judged from the side, or by the rider looking down along the
 * knee (the ball of the foot hidden = about over the axle).
 */
export const plumbByEye = defineKind({
  kind: 'plumbByEye',
  fields: {
    seen: oneOf(['behindAnkle', 'midFoot', 'overAxle', 'aheadOfAxle', 'pastToes']),
    readBy: readBySchema,
  },
  name: 'plumb line by eye',
  about: 'saddle',
  step: 'cranks',
  likelihood: ({ seen, readBy }, { contact, footing, observer }) => {
    const { from, to } = PLUMB_BY_EYE_MM[seen]
    if (readBy === 'rider')
      return orderedProbit({ from, to }, SD_BY_RIDER.plumbByEyeMm, (particles) =>
        eachLeg(particles.legsOn(footing), contact.seat, kneeOverPedalMm),
      )
    const biasMm = observer?.eye?.plumbBiasMm ?? 0
    return orderedProbit(
      { from: from - biasMm, to: to - biasMm },
      observer?.eye?.plumbSdMm ?? MEASUREMENT_SD.plumbByEyeMm,
      (particles) => eachLeg(particles.legsOn(footing), contact.seat, kneeOverPedalMm),
    )
  },
})
