import { Type } from '@sinclair/typebox'
import { PEDAL_SIDES } from '../../../../bikes/bike/bike'
import { between, oneOf } from '../../../../base/schema'
import { defineKind } from '../../definition/defineKind'

/** What the rider answered: experience, back, pregnancy, sole and pedal side. */
export const rider = defineKind({
  kind: 'rider',
  fields: {
    experience: oneOf(['new', 'regular', 'experienced']),
    backSore: Type.Optional(Type.Boolean()),
    pregnant: Type.Optional(Type.Boolean()),
    soleMm: Type.Optional(between(0, 80)),
    pedal: Type.Optional(oneOf(PEDAL_SIDES)),
  },
  name: 'rider’s answers',
  about: 'reported',
  step: 'talk',
  likelihood: () => null,
})
