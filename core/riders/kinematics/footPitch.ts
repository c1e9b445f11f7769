import { Type } from '@sinclair/typebox'
import { radians } from '../../base/geometry'
import { between, closed, type Plain } from '../../base/schema'

/** Heel-up angle of the foot, degrees: one number, or at the top, forward and at the bottom of the stroke. */
const angleDeg = between(-90, 90)
const pitchesSchema = closed({ top: angleDeg, forward: angleDeg, bottom: angleDeg })
export type FootPitch = number | Plain<typeof pitchesSchema>
export const footPitchSchema = Type.Unsafe<FootPitch>({ if: { type: 'object' }, then: pitchesSchema, else: angleDeg })

/**
 * Pitch at a crank angle: a + b·cos c + d·sin c through the three given values. `pitchAtDeg({top: 15, forward: 5,
 * bottom: 15}, 90)` → 5.
 */
export function pitchAtDeg(pitch: FootPitch, crankDeg: number): number {
  if (typeof pitch === 'number') return pitch
  const a = (pitch.top + pitch.bottom) / 2
  const b = (pitch.top - pitch.bottom) / 2
  const d = pitch.forward - a
  return a + b * Math.cos(radians(crankDeg)) + d * Math.sin(radians(crankDeg))
}
