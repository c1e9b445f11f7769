import { Type } from '@sinclair/typebox'
import { between, closed, type Plain } from '../../../base/schema'

/** All next questions by name: what is read, and how. */
export const QUESTIONS = [
  'hipCrestAtMark',
  'frontHipBoneAtMark',
  'stature',
  'inseam',
  'trochanterHeight',
  'thigh',
  'shank',
  'footPitch',
  'goniometer',
  'plumb',
  'kneeByEye',
  'heelCheck',
  'rocking',
  'plumbByEye',
] as const
export type Question = (typeof QUESTIONS)[number]

/**
 * What each takes, seconds: two people, a tape, no hurry; and one dismount with its change. Ours, the studio may edit.
 */
export const DEFAULT_COSTS_S: Readonly<Record<Question | 'dismount', number>> = Object.freeze({
  hipCrestAtMark: 15,
  frontHipBoneAtMark: 15,
  stature: 5,
  inseam: 20,
  trochanterHeight: 15,
  thigh: 20,
  shank: 15,
  footPitch: 10,
  goniometer: 20,
  plumb: 20,
  kneeByEye: 3,
  heelCheck: 8,
  rocking: 5,
  plumbByEye: 3,
  dismount: 180,
})

export const costsSchema = Type.Partial(
  closed(
    Object.fromEntries([...QUESTIONS, 'dismount' as const].map((name) => [name, between(0, 3600)])) as Record<
      Question | 'dismount',
      ReturnType<typeof between>
    >,
  ),
  { additionalProperties: false },
)
export type Costs = Plain<typeof costsSchema>
