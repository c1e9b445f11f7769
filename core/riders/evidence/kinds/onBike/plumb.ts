import { Type } from '@sinclair/typebox'
import { gaussian } from '../../../inference/likelihood'
import { eachLeg, kneeOverPedalMm } from '../../../kinematics/leg'
import { MEASUREMENT_SD, PATELLA_MIDDLE_BEHIND_FRONT_MM } from '../../../../base/measurementNoise'
import { between, oneOf } from '../../../../base/schema'
import type { School } from '../../../../base/school/school'
import { defineKind, readBySchema } from '../../definition/defineKind'

type Hung = Readonly<{ mm: number; from?: 'front' | 'middle' }>

/** Plumb offset of the knee's front, mm, whichever part the string hung from; unsaid, the part this school uses. */
export const plumbFromFrontMm = ({ mm, from }: Hung, { plumbFrom }: Pick<School, 'plumbFrom'>): number =>
  mm + ((from ?? plumbFrom) === 'middle' ? PATELLA_MIDDLE_BEHIND_FRONT_MM : 0)

/** A string from the kneecap with the cranks level: mm ahead of the pedal axle, minus behind it. */
export const plumb = defineKind({
  kind: 'plumb',
  fields: {
    mm: between(-400, 400),
    from: Type.Optional(oneOf(['front', 'middle'])),
    readBy: readBySchema,
  },
  name: 'plumb line',
  about: 'saddle',
  step: 'cranks',
  likelihood: (row, { contact, footing, school }) =>
    gaussian(
      plumbFromFrontMm(row, school),
      row.readBy === 'rider' ? MEASUREMENT_SD.plumbByRiderMm : MEASUREMENT_SD.plumbMm,
      (particles) => eachLeg(particles.legsOn(footing), contact.seat, kneeOverPedalMm),
    ),
})
