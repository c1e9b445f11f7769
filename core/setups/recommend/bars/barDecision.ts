import { positionsOf } from '../../../bikes/scale/scale'
import { inWindow } from '../../../base/school/school'
import { isPassed } from './barLooks'
import { remedyBars } from './barRemedy'
import { barPlaceAt, contactOf, middleOf, type BarPlace } from './bars'
import { withChance, withinStep, type BarDecision, type BarSituation } from './barSituation'

/**
 * What to do with bars as set: what was seen of them at these marks decides, the rules of height and gauge only
 * where nothing was seen against them. At most one axis, and at most `MAX_BAR_STEP_MM` of it.
 */
export function decideBars(situation: BarSituation): BarDecision {
  const decision = decideUnordered(situation)
  const movesSlide = decision.kind === 'move' && decision.to.slide?.label !== situation.standing.slide?.label
  return movesSlide && !situation.isSlideSettled ? { kind: 'stay', why: 'plumbFirst' } : decision
}

function decideUnordered(situation: BarSituation): BarDecision {
  const { looks, isWishNewer } = situation
  const off = heightOffMm(situation)
  if (isWishNewer && off !== 0 && looks.clearance !== 'touches') {
    const to = towardWindow(situation)
    if (to) return { kind: 'move', why: 'height', to: withChance(situation, to) }
  }
  if (isPassed(looks)) return { kind: 'stay', why: 'passed', ...(off !== 0 && { heightDisagreesMm: off }) }
  if (looks.clearance === 'touches') return remedyBars(situation, 'knees')
  if (looks.reach === 'mixed') return { kind: 'stay', why: 'lookAgain' }
  if (looks.reach === 'far' || looks.reach === 'near') return remedyBars(situation, 'reach')
  if (looks.reach === 'good') return { kind: 'stay', why: 'kneesNext', ...(off !== 0 && { heightDisagreesMm: off }) }
  const height = off === 0 ? null : towardWindow(situation)
  if (height) return { kind: 'move', why: 'height', to: withChance(situation, height) }
  if (looks.isGauged) return byGauge(situation)
  return { kind: 'stay', why: 'noReason' }
}

/** How far the grip is above (plus) or below the window of its height, mm; 0 within it. */
function heightOffMm({ search, standing }: BarSituation): number {
  const [low, high] = search.target.windowMm
  const mm = standing.gripAboveSeatMm
  return mm > high ? mm - high : mm < low ? mm - low : 0
}

/** The nearest mark of the height inside its window, or as near to it as one step goes; null where none is nearer. */
function towardWindow(situation: BarSituation): BarPlace | null {
  const { search, standing } = situation
  const off = Math.abs(heightOffMm(situation))
  const distance = ({ gripAboveSeatMm: mm }: BarPlace) => {
    const [low, high] = search.target.windowMm
    return Math.max(low - mm, mm - high, 0)
  }
  const better = alongHeight(situation).filter((to) => distance(to) < off)
  const inside = better.filter((to) => inWindow(to.gripAboveSeatMm, search.target.windowMm))
  const step = ({ height }: BarPlace) => Math.abs(height.mm - standing.height.mm)
  if (inside.length > 0) return inside.reduce((a, b) => (step(b) < step(a) ? b : a))
  return better.reduce<BarPlace | null>((a, b) => (a && distance(a) <= distance(b) ? a : b), null)
}

/** The other heights within one step, the slide standing. */
function alongHeight(situation: BarSituation): BarPlace[] {
  const { search, saddle, standing } = situation
  const scale = positionsOf(search.bikeType.axes.barHeight.scale)
  return withinStep(scale, standing.height).map((height) => barPlaceAt(search, saddle, height, standing.slide))
}

function alongSlide({ search, saddle, standing }: BarSituation): BarPlace[] {
  const { barSlide } = search.bikeType.axes
  if (!barSlide || !standing.slide) return []
  return withinStep(positionsOf(barSlide.scale), standing.slide).map((slide) =>
    barPlaceAt(search, saddle, standing.height, slide),
  )
}

/**
 * By the forearm gauge or the trunk's angle: the slide nearest to the middle of the target, else what stays
 * wrong.
 */
function byGauge(situation: BarSituation): BarDecision {
  const side = gaugeSide(situation)
  if (!side) return { kind: 'stay', why: 'gauge' }
  const to = nearestReach(situation, side)
  return to ? { kind: 'move', why: 'gauge', to: withChance(situation, to) } : { kind: 'stay', why: 'gauge', end: side }
}

/** Whether the reach is expected to miss its window here, and on which side. */
export function gaugeSide({ search, saddle, standing }: BarSituation): 'far' | 'near' | null {
  const { reach } = search.target
  const { mean } = search.bars.reach(contactOf(search, saddle, standing))
  const [below, above] = reach.by === 'forearm' ? (['near', 'far'] as const) : (['far', 'near'] as const)
  return mean < reach.window[0] ? below : mean > reach.window[1] ? above : null
}

function nearestReach(situation: BarSituation, side: 'far' | 'near'): BarPlace | null {
  const { search, saddle, standing } = situation
  const middle = middleOf(search.target.reach.window)
  const miss = (to: BarPlace) => Math.abs(search.bars.meanReach(contactOf(search, saddle, to)) - middle)
  const gripMm = (to: BarPlace) => contactOf(search, saddle, to).grip.xMm
  const better = alongSlide(situation)
    .filter((to) => (side === 'far' ? gripMm(to) < gripMm(standing) : gripMm(to) > gripMm(standing)))
    .filter((to) => miss(to) < miss(standing))
  return better.reduce<BarPlace | null>((a, b) => (a && miss(a) <= miss(b) ? a : b), null)
}
