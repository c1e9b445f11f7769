import { Type } from '@sinclair/typebox'
import { oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** Why numbers that look extreme, or that the checks would change, are right for this rider. */
export const MEANT_REASONS = ['longLegs', 'shortLegs', 'trunk', 'roadPosition', 'starter', 'clinician', 'wish'] as const
export type MeantReason = (typeof MEANT_REASONS)[number]

/** The bike was set here (`at`): as advised, or not; `meant`: on purpose, so that nobody corrects it. */
export const set = defineKind({
  kind: 'set',
  fields: { meant: Type.Optional(oneOf(MEANT_REASONS)) },
  name: 'setting',
  about: 'reported',
  step: null,
  likelihood: () => null,
})
