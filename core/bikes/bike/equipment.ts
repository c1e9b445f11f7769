import { Type } from '@sinclair/typebox'
import { perAxis } from '../../base/conventions'
import { between, closed, oneOf, type Plain } from '../../base/schema'
import { PEDAL_SIDES } from './bike'
import { START_LANDMARKS } from '../../base/school/school'

/** How a part is closed; every one is closed and shaken after a change. */
export const CLAMP_TYPES = ['pin', 'knob', 'lever'] as const
export type ClampType = (typeof CLAMP_TYPES)[number]
export const BRAKE_TYPES = ['push', 'lever', 'none'] as const

/** How a type is equipped, beside its geometry. Nothing here enters the arithmetic. */
export const equipmentSchema = closed({
  closing: closed(perAxis(Type.Optional(oneOf(CLAMP_TYPES)))),
  /** What the sides take, in the studio's words: "two-bolt cleat", "cage with strap". */
  pedalSystems: Type.Optional(
    closed({
      cage: Type.Optional(Type.String({ minLength: 1, maxLength: 40 })),
      cleat: Type.Optional(Type.String({ minLength: 1, maxLength: 40 })),
    }),
  ),
  pedalSides: Type.Array(oneOf(PEDAL_SIDES), { minItems: 1, maxItems: 2, uniqueItems: true }),
  /** Between the outer faces of the cranks, mm. */
  pedalSpacingMm: between(100, 400),
  /** How the flywheel is stopped: pushing the resistance knob, a lever, or nothing but the legs. */
  stop: oneOf(BRAKE_TYPES),
  /** Start landmarks that are valid on this type. */
  landmarks: Type.Array(oneOf(START_LANDMARKS), { maxItems: 8, uniqueItems: true }),
})
export type BikeEquipment = Plain<typeof equipmentSchema>

export const DEFAULT_EQUIPMENT: BikeEquipment = Object.freeze({
  closing: { seatHeight: 'pin', seatSlide: 'knob', barHeight: 'pin', barSlide: 'knob' },
  pedalSides: ['cage', 'cleat'],
  pedalSpacingMm: 165,
  stop: 'push',
  landmarks: ['hipCrest', 'frontHipBone', 'between'],
} as const)

/** Name of the file format in which types are handed on. */
export const TYPE_FILE_FORMAT = 'yielding-saddle/bike-types'
