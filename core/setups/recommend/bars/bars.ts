import { axisOf, type BikeType } from '../../../bikes/bike/bike'
import type { AxisPositions } from '../../../bikes/bike/contactPoints'
import type { AxisName, Label } from '../../../base/conventions'
import type { Moments } from '../../../riders/inference/moments'
import { findPosition, middlePosition, positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { inWindow } from '../../../base/school/school'
import type { BarPosture, BarReason } from '../../../base/school/barPosture'
import type { BarProbabilities, BarTarget } from './barTargets'

/** Bars at two marks, and how far the grip then is above the seat point. */
export type BarPlace = Readonly<{ height: ScalePosition; slide?: ScalePosition; gripAboveSeatMm: number }>
/** The same with the probability that all checks of the bars pass there. */
export type BarPosition = BarPlace & Readonly<{ chance: number }>

/** Target of the bars for a saddle, why, and the reach there. */
export type BarAdvice = BarPosition &
  Readonly<{
    posture: BarPosture
    why: BarReason
    /** Target height of the grip above the seat point, mm. */
    windowMm: readonly [number, number]
    /** Whether the height lies in that window. */
    fits: boolean
    /** What the reach goes by, in mm of forearm gap or degrees of trunk, its window and what it is expected to be. */
    reach: BarTarget['reach'] & Moments
    /** Fingertips short of the grip with the elbow at the nose, mm; where the reach goes by the forearm. */
    forearmGapMm?: number
    trunkDeg: Moments
    /** Where the rider chooses: the lowest and the highest that are within reason, both shown before they do. */
    choices?: Readonly<{ low: BarPosition; high: BarPosition }>
  }>

/** `byRider`: elbows or feeling were seen in this set-up, and decide the reach in place of the rule. */
export type BarSearch = Readonly<{
  bikeType: BikeType
  target: BarTarget
  bars: BarProbabilities
  byRider: boolean
}>

/** Pairs this close to the best one are ties: of them the one nearest the middle of the target is taken. */
const TIE = 0.05
/** A height or a reach is looked at beside the other in this many millimetres, or so many degrees for a millimetre. */
const DEG_PER_MM = 0.1

/** Seat, grip and hand with the saddle at `saddle` and the bars at a place. */
export const contactOf = (
  { bars }: BarSearch,
  saddle: AxisPositions,
  { height, slide }: Pick<BarPosition, 'height' | 'slide'>,
) => bars.contactAt({ ...saddle, barHeight: height.mm, barSlide: slide?.mm ?? 0 })

/** The chance that the reach is right: by the rider's elbows once they were seen, else by the rule. */
export const reachChanceAt = ({ bars, byRider }: BarSearch, at: ReturnType<typeof contactOf>): number =>
  byRider ? bars.softChance(at) : bars.reachChance(at)

/** Height and reach alone; the clearance takes more arithmetic and is looked at last. */
const ruleChance = (search: BarSearch, at: ReturnType<typeof contactOf>): number =>
  search.bars.aboveSaddleChance(at) * reachChanceAt(search, at)

export function barPlaceAt(
  search: BarSearch,
  saddle: AxisPositions,
  height: ScalePosition,
  slide?: ScalePosition,
): BarPlace {
  const at = contactOf(search, saddle, { height, ...(slide && { slide }) })
  return { height, ...(slide && { slide }), gripAboveSeatMm: at.grip.yMm - at.seat.yMm }
}

export function barPositionAt(
  search: BarSearch,
  saddle: AxisPositions,
  height: ScalePosition,
  slide?: ScalePosition,
): BarPosition {
  const place = barPlaceAt(search, saddle, height, slide)
  const at = contactOf(search, saddle, place)
  const rule = ruleChance(search, at)
  return { ...place, chance: rule === 0 ? 0 : rule * search.bars.clearChance(at) }
}

/** Whether the reach can be set on this type at all; else it is only looked at. */
const slidesOf = ({ bikeType }: BarSearch): readonly (ScalePosition | undefined)[] =>
  bikeType.axes.barSlide ? positionsOf(bikeType.axes.barSlide.scale) : [undefined]

/**
 * The first setting of the bars for a saddle at `saddle`, height and slide together, since a leaning post
 * moves both checks. Where nothing suits, the height nearest to its window and the slide nearest to its middle.
 */
export function firstBarPosition(search: BarSearch, saddle: AxisPositions): BarPosition {
  const { bikeType, target, bars } = search
  const heights = positionsOf(bikeType.axes.barHeight.scale)
  const aimMm = target.posture === 'lowest' ? target.aimMm[0] : middleOf(target.aimMm)
  const aboveMm = (height: ScalePosition) => barHeightMm(search, saddle, height)
  const missMm = (height: ScalePosition) =>
    Math.abs(aboveMm(height) - aimMm) + (aboveMm(height) < target.aimMm[0] ? TOO_LOW_MM : 0)
  const nearest = heights.reduce((best, height) => (missMm(height) < missMm(best) ? height : best))
  const suiting = heights.filter((height) => inWindow(aboveMm(height), target.aimMm))
  // Where the rider chooses one starts from the lowest; where no height suits, from the nearest.
  const tried = target.posture === 'lowest' || suiting.length === 0 ? [nearest] : suiting
  const candidates = tried
    .flatMap((height) => slidesOf(search).map((slide) => ({ height, ...(slide && { slide }) })))
    .map((pair) => ({ pair, chance: ruleChance(search, contactOf(search, saddle, pair)) }))
    .toSorted((a, b) => b.chance - a.chance)
  // The clearance only lowers a chance: skip candidates that are already below the best.
  const cleared: BarPosition[] = []
  let top = 0
  for (const { pair, chance } of candidates) {
    if (cleared.length > 0 && chance < top - TIE) break
    const position = barPositionAt(search, saddle, pair.height, pair.slide)
    cleared.push(position)
    top = Math.max(top, position.chance)
  }
  const ties = cleared.filter((c) => c.chance >= top - TIE)
  const reachMiss = (position: BarPosition) => {
    const off = bars.meanReach(contactOf(search, saddle, position)) - middleOf(target.reach.window)
    return Math.abs(off) / (target.reach.by === 'trunk' ? DEG_PER_MM : 1)
  }
  const misses = new Map(ties.map((c) => [c, missMm(c.height) + reachMiss(c)]))
  return ties.reduce((a, b) => (misses.get(b)! < misses.get(a)! ? b : a))
}

/** Below what is aimed at a mark is taken only where nothing else is there. */
const TOO_LOW_MM = 1000

export const middleOf = ([low, high]: readonly [number, number]): number => (low + high) / 2

export function barHeightMm({ bars }: BarSearch, saddle: AxisPositions, height: ScalePosition): number {
  const { grip, seat } = bars.contactAt({ ...saddle, barHeight: height.mm })
  return grip.yMm - seat.yMm
}

export const reachAt = (
  search: BarSearch,
  saddle: AxisPositions,
  position: Pick<BarPosition, 'height' | 'slide'>,
): Moments => search.bars.reach(contactOf(search, saddle, position))

/** A place of the bars with its height, reach and trunk angle. */
export function describeBars(search: BarSearch, saddle: AxisPositions, position: BarPosition): BarAdvice {
  const { target, bars } = search
  const at = contactOf(search, saddle, position)
  const reach = bars.reach(at)
  return {
    ...position,
    posture: target.posture,
    why: target.why,
    windowMm: target.windowMm,
    fits: inWindow(position.gripAboveSeatMm, target.windowMm),
    reach: { ...target.reach, ...reach },
    ...(target.reach.by === 'forearm' && position.slide && { forearmGapMm: reach.mean }),
    trunkDeg: bars.trunk(at),
    ...(target.posture === 'lowest' && { choices: choicesOf(search, saddle, firstBarPosition(search, saddle)) }),
  }
}

function choicesOf(search: BarSearch, saddle: AxisPositions, low: BarPosition): BarAdvice['choices'] {
  const heights = positionsOf(search.bikeType.axes.barHeight.scale)
  const highestMm = search.target.windowMm[1]
  const within = heights.filter((height) => barHeightMm(search, saddle, height) <= highestMm)
  const high = within.reduce(
    (best, height) => (barHeightMm(search, saddle, height) > barHeightMm(search, saddle, best) ? height : best),
    low.height,
  )
  const slides = slidesOf(search).map((slide) => barPositionAt(search, saddle, high, slide))
  return { low, high: slides.reduce((a, b) => (b.chance > a.chance ? b : a)) }
}

/** Position of a label on an axis of the type, or undefined where either is missing. */
export function positionAt(bikeType: BikeType, axis: AxisName, label: Label | undefined): ScalePosition | undefined {
  const scale = axisOf(bikeType, axis)?.scale
  if (!scale || label === undefined) return undefined
  const found = findPosition(scale, label)
  return found.outcome === 'found' ? found.stop : undefined
}

/** Position of the bars by their named marks; an unnamed slide is at its middle. Undefined without a height. */
export function standingBars(
  search: BarSearch,
  saddle: AxisPositions,
  labels: Readonly<{ barHeight?: Label; barSlide?: Label }>,
): BarPosition | undefined {
  const { bikeType } = search
  const height = positionAt(bikeType, 'barHeight', labels.barHeight)
  if (!height) return undefined
  const slide =
    positionAt(bikeType, 'barSlide', labels.barSlide) ??
    (bikeType.axes.barSlide && middlePosition(bikeType.axes.barSlide.scale))
  return barPositionAt(search, saddle, height, slide)
}
