import type { AxisName, Marks } from '../../../base/conventions'
import type { MeantReason } from '../../../riders/evidence/kinds/onBike/set'
import type { Evidence } from '../../../riders/evidence/registry'
import type { ScalePosition } from '../../../bikes/scale/scale'
import type { BarDecision, BarSituation } from '../bars/barSituation'
import { barLooksAt } from '../bars/barLooks'
import type { BarAdvice, BarSearch } from '../bars/bars'
import type { LastReadings } from '../history/lastReadings'
import type { Move, Reason } from './request'
import type { EarlierSetup } from '../history/riderHistory'
import type { SaddlePosition, SaddleSearch } from '../saddle/saddleSearch'

/** What a next step is made of. */
export type StepInputs = Readonly<{
  search: SaddleSearch
  /** Current saddle position, or the proposed one at the start. */
  current: SaddlePosition
  /** A check on the saddle was made. */
  started: boolean
  readings: LastReadings
  now: Marks
  bars: BarAdvice
  /** Decision on bars with recorded marks, and its inputs. */
  decidedBars?: Readonly<{ situation: BarSituation; decision: BarDecision }>
  barSearch: BarSearch
  evidence: readonly Evidence[]
  /** Positions of the axes at each row. */
  at: readonly Marks[]
  history: readonly EarlierSetup[]
  /** Reason of an intentional setting, if nothing has moved since. */
  meant?: MeantReason
}>

/** The move of one axis between two marks, or none where it stays or the type lacks it. */
export const moveBetween = (
  axis: AxisName,
  from: ScalePosition | undefined,
  to: ScalePosition | undefined,
): readonly Move[] =>
  !from || !to || from.label === to.label ? [] : [{ axis, from: from.label, to: to.label, mm: to.mm - from.mm }]

export const saddleMoves = (from: SaddlePosition, to: SaddlePosition): readonly Move[] => [
  ...moveBetween('seatHeight', from.height, to.height),
  ...moveBetween('seatSlide', from.slide, to.slide),
]

export const saddleAxes = ({ height, slide }: SaddlePosition) => ({ seatHeight: height.mm, seatSlide: slide.mm })

export const chanceReason = (candidate: SaddlePosition): Reason => ({
  code: 'chance',
  height: candidate.height.label,
  slide: candidate.slide.label,
  chance: candidate.chance,
})

/** Whether a bar check was made at the current saddle and bar positions. */
export function barsLookedAt({ evidence, at, now }: StepInputs): boolean {
  const { reach, clearance, isGauged } = barLooksAt(evidence, at, now)
  return reach !== undefined || clearance !== undefined || isGauged
}
