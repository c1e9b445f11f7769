import { axisOf, type BikeType } from '../bike/bike'
import type { AxisPositions } from '../bike/contactPoints'
import type { AxisName, Label } from '../conventions'
import type { Moments } from '../inference/moments'
import { findPosition, middlePosition, positionsOf, type ScalePosition } from '../scale/scale'
import { inWindow } from '../school/school'
import type { BarPosture, BarProbabilities, BarReason, BarTarget } from './barTargets'

/** Bars at two marks: how far the grip is above the seat point, and how likely both of their checks hold. */
export type BarPosition = Readonly<{
  height: ScalePosition
  slide?: ScalePosition
  gripAboveSeatMm: number
  chance: number
}>

/** Where the bars should stand for a saddle, why, and what the reach then is. */
export type BarAdvice = BarPosition &
  Readonly<{
    posture: BarPosture
    why: BarReason
    /** Grip above the seat point that is wanted, mm. */
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

export type BarSearch = Readonly<{ bikeType: BikeType; target: BarTarget; bars: BarProbabilities }>

/** Pairs this close to the best one are ties: of them the one nearest the middle of what is wanted is taken. */
const TIE = 0.05
/** A height or a reach is looked at beside the other in this many millimetres, or so many degrees for a millimetre. */
const DEG_PER_MM = 0.1

export function barPositionAt(
  { bars }: BarSearch,
  saddle: AxisPositions,
  height: ScalePosition,
  slide?: ScalePosition,
): BarPosition {
  const at = bars.contactAt({ ...saddle, barHeight: height.mm, barSlide: slide?.mm ?? 0 })
  const chance = bars.aboveSaddleChance(at) * bars.reachChance(at)
  return { height, ...(slide && { slide }), gripAboveSeatMm: at.grip.yMm - at.seat.yMm, chance }
}

/** Whether the reach can be set on this type at all; else it is only looked at. */
const slidesOf = ({ bikeType }: BarSearch): readonly (ScalePosition | undefined)[] =>
  bikeType.axes.barSlide ? positionsOf(bikeType.axes.barSlide.scale) : [undefined]

/**
 * The bars for a saddle that stands at `saddle`, height and slide together, since a leaning post moves both checks.
 * Where nothing suits, the height nearest to its window and the slide nearest to its middle.
 */
export function adviseBars(search: BarSearch, saddle: AxisPositions): BarAdvice {
  const { bikeType, target, bars } = search
  const heights = positionsOf(bikeType.axes.barHeight.scale)
  const wantedMm = target.posture === 'lowest' ? target.windowMm[0] : middleOf(target.windowMm)
  const aboveMm = (height: ScalePosition) => barHeightMm(search, saddle, height)
  const missMm = (height: ScalePosition) =>
    Math.abs(aboveMm(height) - wantedMm) + (target.posture === 'lowest' && aboveMm(height) < wantedMm ? TOO_LOW_MM : 0)
  const nearest = heights.reduce((best, height) => (missMm(height) < missMm(best) ? height : best))
  const suiting = heights.filter((height) => inWindow(aboveMm(height), target.windowMm))
  // Where the rider chooses one starts from the lowest; where no height suits, from the nearest.
  const tried = target.posture === 'lowest' || suiting.length === 0 ? [nearest] : suiting
  const candidates = tried.flatMap((height) =>
    slidesOf(search).map((slide) => barPositionAt(search, saddle, height, slide)),
  )
  const top = Math.max(...candidates.map((c) => c.chance))
  const ties = candidates.filter((c) => c.chance >= top - TIE)
  const reachMiss = (position: BarPosition) => {
    const at = bars.contactAt({ ...saddle, barHeight: position.height.mm, barSlide: position.slide?.mm ?? 0 })
    const off = bars.meanReach(at) - middleOf(target.reach.window)
    return Math.abs(off) / (target.reach.by === 'trunk' ? DEG_PER_MM : 1)
  }
  const misses = new Map(ties.map((c) => [c, missMm(c.height) + reachMiss(c)]))
  const best = ties.reduce((a, b) => (misses.get(b)! < misses.get(a)! ? b : a))
  return describe(search, saddle, best)
}

/** Below the lowest that is within reason a mark is taken only where nothing else is there. */
const TOO_LOW_MM = 1000

const middleOf = ([low, high]: readonly [number, number]): number => (low + high) / 2

function barHeightMm({ bars }: BarSearch, saddle: AxisPositions, height: ScalePosition): number {
  const { grip, seat } = bars.contactAt({ ...saddle, barHeight: height.mm })
  return grip.yMm - seat.yMm
}

export const reachAt = (
  { bars }: BarSearch,
  saddle: AxisPositions,
  { height, slide }: Pick<BarPosition, 'height' | 'slide'>,
): Moments => bars.reach(bars.contactAt({ ...saddle, barHeight: height.mm, barSlide: slide?.mm ?? 0 }))

function describe(search: BarSearch, saddle: AxisPositions, position: BarPosition): BarAdvice {
  const { target, bars } = search
  const at = bars.contactAt({ ...saddle, barHeight: position.height.mm, barSlide: position.slide?.mm ?? 0 })
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
    ...(target.posture === 'lowest' && { choices: choicesOf(search, saddle, position) }),
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

/** Where the bars stand by what was named of them; a slide nobody named at its middle. Undefined without a height. */
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
