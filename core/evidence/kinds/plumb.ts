import { Type } from '@sinclair/typebox'
import { gaussian } from '../../inference/likelihood'
import { eachLeg, kneeOverPedalMm } from '../../kinematics/leg'
import { MEASUREMENT_SD, PATELLA_MIDDLE_BEHIND_FRONT_MM } from '../../measurementNoise'
import { between, oneOf } from '../../schema'
import { defineKind } from '../defineKind'

/** Plumb offset of the knee's front, mm, whichever part the string hung from. */
export const plumbFromFrontMm = ({ mm, from }: Readonly<{ mm: number; from?: 'front' | 'middle' }>): number =>
  mm + (from === 'middle' ? PATELLA_MIDDLE_BEHIND_FRONT_MM : 0)

/** A string from the kneecap with the cranks level: mm ahead of the pedal axle, minus behind it. */
export const plumb = defineKind({
  kind: 'plumb',
  fields: { mm: between(-400, 400), from: Type.Optional(oneOf(['front', 'middle'])) },
  name: 'plumb line',
  about: 'saddle',
  askedAt: 'cranks',
  likelihood: (row, { seat, soleMm }) =>
    gaussian(plumbFromFrontMm(row), MEASUREMENT_SD.plumbMm, (particles) =>
      eachLeg(particles.legsIn(soleMm), seat, kneeOverPedalMm),
    ),
})
