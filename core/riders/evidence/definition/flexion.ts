import type { Quantity } from '../../inference/likelihood'
import { columnOf } from '../../../base/columns'
import { bottomFlexionDeg, heelFlexionDeg } from '../../kinematics/leg'
import type { ReadingContext } from './defineKind'

export type Side = 'left' | 'right'

/** Sign of half the difference of left and right, on the side looked at; without a side, the mean of both. */
const sideSign = (side: Side | undefined): number => (side === 'left' ? 1 : side === 'right' ? -1 : 0)

/**
 * Knee flexion at the bottom of the stroke on the side looked at, degrees, with the ball of the foot or the heel on the
 * pedal.
 */
export function flexionOf(
  side: Side | undefined,
  { contact, footing }: ReadingContext,
  foot: 'ball' | 'heel' = 'ball',
): Quantity {
  const sign = sideSign(side)
  const flexionDeg = foot === 'heel' ? heelFlexionDeg : bottomFlexionDeg
  return (particles) => {
    const legs = particles.legsOn(footing)
    return columnOf(particles.count, (i) => flexionDeg(legs, contact.seat, i) + sign * particles.sideDeg[i])
  }
}
