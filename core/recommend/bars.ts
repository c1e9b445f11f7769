import { axisOf, type Bike, type BikeType } from '../bike/bike'
import { contactPoints, type AxisPositions } from '../bike/contactPoints'
import type { AxisName, Label, Point } from '../conventions'
import { latest } from '../evidence/evidence'
import type { Evidence, EvidenceOf } from '../evidence/registry'
import { FRACTION_OF_STATURE } from '../rider/anthropometry'
import { findPosition, middlePosition, positionsOf, type ScalePosition } from '../scale/scale'
import { BAR_WINDOW_MM, inWindow, type School } from '../school/school'

export type BarPosture = 'above' | 'level' | 'low' | 'lowest'
export type BarReason = 'new' | 'regular' | 'experienced' | 'backSore' | 'pregnant' | 'school' | 'unknown'

/**
 * The bars by rule: where they should stand, how far the grip is then above the seat point, and whether that is as
 * wanted.
 */
export type BarAdvice = Readonly<{
  posture: BarPosture
  why: BarReason
  /** Grip above the seat point that is wanted, mm. */
  windowMm: readonly [number, number]
  height: ScalePosition
  gripAboveSeatMm: number
  fits: boolean
  slide?: ScalePosition
  /**
   * Fingertips short of the grip with the elbow at the nose, mm; only where the forearm gauge is valid on this type.
   */
  forearmGapMm?: number
}>

/**
 * Bars for a saddle that stands at `saddle`. Height by the studio's school, the rider's experience, a sore back and
 * pregnancy; slide by the forearm's length from the nose (gap nearest 0), else at its middle. No chances: a rule.
 */
export function adviseBars(
  bikeType: BikeType,
  bike: Bike | undefined,
  school: School,
  evidence: readonly Evidence[],
  saddle: AxisPositions,
  statureMm: number,
): BarAdvice {
  const { posture, why } = targetPosture(school, latest(evidence, 'rider'))
  const windowMm = windowFor(school, posture)
  const { seat, nose } = contactPoints(bikeType, bike, saddle)
  const gripAt = (height: ScalePosition, slide?: ScalePosition): Point =>
    contactPoints(bikeType, bike, { barHeight: height.mm, barSlide: slide?.mm ?? 0 }).grip
  const aboveSeatMm = (height: ScalePosition) => gripAt(height).yMm - seat.yMm
  // Where the rider chooses, one starts from the lowest that is still within reason; else from the window's middle.
  const target = posture === 'lowest' ? windowMm[0] : (windowMm[0] + windowMm[1]) / 2
  const missMm = (height: ScalePosition) =>
    Math.abs(aboveSeatMm(height) - target) + (posture === 'lowest' && aboveSeatMm(height) < target ? TOO_LOW_MM : 0)
  const height = positionsOf(bikeType.axes.barHeight.scale).reduce((best, position) =>
    missMm(position) < missMm(best) ? position : best,
  )
  const gripAboveSeatMm = aboveSeatMm(height)
  const fits = inWindow(gripAboveSeatMm, windowMm)
  const advice: BarAdvice = { posture, why, windowMm, height, gripAboveSeatMm, fits }
  const slideAxis = bikeType.axes.barSlide
  if (!slideAxis) return advice
  if (!bikeType.forearmGaugeValid) return { ...advice, slide: middlePosition(slideAxis.scale) }
  const fingertipX = nose.xMm + (FRACTION_OF_STATURE.forearm + FRACTION_OF_STATURE.hand) * statureMm
  const gap = (slide: ScalePosition) => gripAt(height, slide).xMm - fingertipX
  const slide = positionsOf(slideAxis.scale).reduce((best, position) =>
    Math.abs(gap(position)) < Math.abs(gap(best)) ? position : best,
  )
  return { ...advice, slide, forearmGapMm: gap(slide) }
}

/** Below the lowest that is within reason a mark is taken only where nothing else is there. */
const TOO_LOW_MM = 1000

function targetPosture(
  school: School,
  rider: EvidenceOf<'rider'> | undefined,
): { posture: BarPosture; why: BarReason } {
  if (rider?.pregnant) return { posture: 'above', why: 'pregnant' }
  if (rider?.backSore) return { posture: 'above', why: 'backSore' }
  if (school.bars === 'above') return { posture: 'above', why: 'school' }
  if (school.bars === 'riderChooses') return { posture: 'lowest', why: 'school' }
  if (!rider) return { posture: 'above', why: 'unknown' }
  const byExperience = { new: 'above', regular: 'level', experienced: 'low' } as const
  const posture = byExperience[rider.experience]
  return school.bars === 'neverBelow' && posture === 'low'
    ? { posture: 'level', why: 'school' }
    : { posture, why: rider.experience }
}

/** The window of a posture, mm; a school that never goes below the saddle cuts it off at 0. */
function windowFor(school: School, posture: BarPosture): readonly [number, number] {
  if (posture === 'lowest') return [BAR_WINDOW_MM.low[0], BAR_WINDOW_MM.above[1]]
  const [low, high] = BAR_WINDOW_MM[posture]
  return school.bars === 'neverBelow' ? [Math.max(0, low), high] : [low, high]
}

/** Position of a label on an axis of the type, or undefined where either is missing. */
export function positionAt(bikeType: BikeType, axis: AxisName, label: Label | undefined): ScalePosition | undefined {
  const scale = axisOf(bikeType, axis)?.scale
  if (!scale || label === undefined) return undefined
  const found = findPosition(scale, label)
  return found.outcome === 'found' ? found.stop : undefined
}
