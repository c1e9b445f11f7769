import { Type } from '@sinclair/typebox'
import { between, closed, oneOf, type Plain } from '../../base/schema'
import { EFFORTS, HAND_POSITIONS, POSTURES, SPINES, type HandPosition } from './blockWords'

/**
 * One block of a class. Music sets the legs: one pedal stroke of one foot a beat, so turns a minute are beats ÷ 2. Of
 * the two only `rpm` is stored.
 */
export const blockSchema = closed({
  id: Type.String({ minLength: 1, maxLength: 40 }),
  name: Type.String({ maxLength: 60 }),
  minutes: between(0.5, 90),
  rpm: between(30, 150),
  posture: oneOf(POSTURES),
  hands: Type.Unsafe<HandPosition>({ enum: HAND_POSITIONS }),
  effort: oneOf(EFFORTS),
  spine: oneOf(SPINES),
  move: Type.Optional(Type.String({ maxLength: 40 })),
})
export const blocksSchema = Type.Array(blockSchema, { maxItems: 60 })
export type Block = Plain<typeof blockSchema>
