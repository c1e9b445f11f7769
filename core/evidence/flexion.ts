import type { Quantity } from '../inference/likelihood'
import { bottomFlexionDeg, eachLeg } from '../kinematics/leg'
import type { ReadingContext } from './defineKind'

/** Knee flexion at the bottom of the stroke on the side looked at, degrees; without a side, the mean of both. */
export function flexionOf(side: 'left' | 'right' | undefined, { seat, soleMm }: ReadingContext): Quantity {
  const sign = side === 'left' ? 1 : side === 'right' ? -1 : 0
  return (particles) =>
    eachLeg(
      particles.legsIn(soleMm),
      seat,
      (legs, at, i) => bottomFlexionDeg(legs, at, i) + sign * particles.sideDeg[i],
    )
}
