import type { AxisPositions } from '../../../bikes/bike/contactPoints'
import type { ScalePosition } from '../../../bikes/scale/scale'
import type { BarLooks } from './barLooks'
import { barPositionAt, type BarPlace, type BarPosition, type BarSearch } from './bars'

/** Why the bars stay as set, or are moved. */
export type BarWhy =
  /** Elbows soft or the reach right, and the knees clear. */
  | 'passed'
  /** Elbows and feeling contradict each other, or the knees were not looked at: a look is needed first. */
  | 'lookAgain'
  | 'kneesNext'
  /** The bars' slide has to move, but the plumb line is still open: the saddle's slide comes first. */
  | 'plumbFirst'
  /** Nothing seen here speaks for a move. */
  | 'noReason'
  /** Elbows or feeling, or the knees; the rule of height, or of the reach by gauge. */
  | 'reach'
  | 'knees'
  | 'height'
  | 'gauge'

/** What is still wrong where no mark of this bike puts it right. */
export type BarEnd = 'far' | 'near' | 'touching'

export type BarDecision =
  | Readonly<{ kind: 'stay'; why: BarWhy; end?: BarEnd; heightDisagreesMm?: number }>
  | Readonly<{ kind: 'move'; why: BarWhy; to: BarPosition }>

/** No axis of the bars goes farther than this at once after the first setting, mm; ours. */
export const MAX_BAR_STEP_MM = 40

export type BarSituation = Readonly<{
  search: BarSearch
  saddle: AxisPositions
  standing: BarPosition
  looks: BarLooks
  /** Bar marks at which something was wrong: they are not gone back to. */
  failed: ReadonlySet<string>
  /** A wish was recorded after the last look at the bars. */
  isWishNewer: boolean
  /** The plumb line was hung, or the school hangs none. */
  isSlideSettled: boolean
}>

/** A place with the probability that all its checks pass. */
export const withChance = ({ search, saddle }: BarSituation, { height, slide }: BarPlace): BarPosition =>
  barPositionAt(search, saddle, height, slide)

/** The other marks within one step; where marks are farther apart than that, the neighbours. */
export function withinStep(scale: readonly ScalePosition[], from: ScalePosition): ScalePosition[] {
  const others = scale.filter(({ label }) => label !== from.label)
  const near = others.filter(({ mm }) => Math.abs(mm - from.mm) <= MAX_BAR_STEP_MM + 1e-9)
  if (near.length > 0) return near
  const nearest = (side: readonly ScalePosition[]) =>
    side.toSorted((a, b) => Math.abs(a.mm - from.mm) - Math.abs(b.mm - from.mm)).slice(0, 1)
  return [...nearest(others.filter(({ mm }) => mm > from.mm)), ...nearest(others.filter(({ mm }) => mm < from.mm))]
}
