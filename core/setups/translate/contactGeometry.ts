import type { Lengths } from '../../bikes/bike/contactPoints'
import type { Point } from '../../base/conventions'

/** What a rider touches, crank and pedal included; frame of the conventions. */
export type TouchPoints = Readonly<{ seat: Point; grip: Point; crankMm: number; pedalSurfaceMm: number }>

/** Crank length and pedal surface above the axle, mm. */
export type Pedals = Pick<TouchPoints, 'crankMm' | 'pedalSurfaceMm'>

/**
 * Seat point to the surface of the pedal at its farthest, mm: the crank in line with the seat point, the surface above
 * its axle. The distance the leg has to reach, for any crank and pedal.
 */
export function farthestPedalMm(seat: Point, { crankMm, pedalSurfaceMm }: Pedals): number {
  const away = Math.hypot(seat.xMm, seat.yMm)
  const [pedalX, pedalY] = [(-crankMm * seat.xMm) / away, (-crankMm * seat.yMm) / away]
  return Math.hypot(seat.xMm - pedalX, seat.yMm - pedalY - pedalSurfaceMm)
}

/**
 * Height of a seat point at `xMm` for the pedal at its farthest to be `reachMm` away, mm above the crank axle;
 * NaN-free: where the seat would have to lie nearer than straight above, the axle's own height.
 */
export function seatHeightFor(xMm: number, reachMm: number, pedals: Pedals): number {
  let [low, high] = [0, reachMm + pedals.pedalSurfaceMm + pedals.crankMm]
  for (let halving = 0; halving < 60; halving++) {
    const yMm = (low + high) / 2
    if (farthestPedalMm({ xMm, yMm }, pedals) < reachMm) low = yMm
    else high = yMm
  }
  return low
}

/** Seat and grip of any bike from the tape's four lengths and how far its nose lies ahead of the seat point, mm. */
export function pointsFromLengths(
  { saddleHeightMm, setbackMm, reachMm, stackMm }: Lengths,
  noseAheadMm: number,
): Readonly<{ seat: Point; grip: Point }> {
  const xMm = -(setbackMm + noseAheadMm)
  const yMm = Math.sqrt(Math.max(0, saddleHeightMm ** 2 - xMm ** 2))
  return { seat: { xMm, yMm }, grip: { xMm: xMm + reachMm, yMm: stackMm } }
}
