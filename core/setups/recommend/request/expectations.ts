import { barPositionAt, reachAt, standingBars, type BarPosition } from '../bars/bars'
import type { Expectation } from './request'
import { saddleAxes, type StepInputs } from './stepInputs'
import type { SaddlePosition } from '../saddle/saddleSearch'

/** The expected place, and the place it is changed from where there is one. */
export type Change = Readonly<{ to: SaddlePosition; from?: SaddlePosition; barsTo?: BarPosition }>

/**
 * What each check should read at a place: knee and plumb line as medians with their standard deviation, bars and reach
 * as means. Bars that are not moved stay as set, or as proposed.
 */
export function expectations(
  { search, barSearch, bars, now }: StepInputs,
  { to, from, barsTo }: Change,
): readonly Expectation[] {
  const { targets } = search
  const standing = standingBars(barSearch, saddleAxes(to), now)
  const barsAt = (position: SaddlePosition): BarPosition =>
    barPositionAt(
      barSearch,
      saddleAxes(position),
      standing?.height ?? bars.height,
      standing ? standing.slide : bars.slide,
    )
  const [barsHere, barsThere] = [from && barsAt(from), barsTo ?? barsAt(to)]
  const reach = reachAt(barSearch, saddleAxes(to), barsThere)
  return [
    {
      check: 'kneeFlexion',
      unit: 'deg',
      ...(from && { from: targets.kneeMedian(from.seat) }),
      to: targets.kneeMedian(to.seat),
      spread: targets.knee(to.seat).sd,
    },
    {
      check: 'plumb',
      unit: 'mm',
      ...(from && { from: targets.plumbMedian(from.seat) }),
      to: targets.plumbMedian(to.seat),
      spread: targets.plumb(to.seat).sd,
    },
    {
      check: 'barAgainstSaddle',
      unit: 'mm',
      ...(barsHere && { from: barsHere.gripAboveSeatMm }),
      to: barsThere.gripAboveSeatMm,
      spread: barSearch.bars.aboveSaddleSdMm,
    },
    {
      check: 'reach',
      unit: barSearch.target.reach.by === 'trunk' ? 'deg' : 'mm',
      ...(from && barsHere && { from: reachAt(barSearch, saddleAxes(from), barsHere).mean }),
      to: reach.mean,
      spread: reach.sd,
    },
  ]
}
