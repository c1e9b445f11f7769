import { positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { barKey, type BarLooks } from './barLooks'
import { barPlaceAt, contactOf, type BarPlace } from './bars'
import {
  MAX_BAR_STEP_MM,
  withChance,
  withinStep,
  type BarDecision,
  type BarEnd,
  type BarSituation,
} from './barSituation'

/** Below this chance no mark of an axis is taken to put right what was seen; ours. */
const MIN_WORTH = 0.05
/** Of places with this part of the best one's chance the nearest is taken. */
const NEARLY_AS_GOOD = 0.9
/**
 * A height outside its window counts less, by a factor of e in so many millimetres: what was seen weighs more. Ours.
 */
const HEIGHT_SCALE_MM = 80

/**
 * The step for a wrong reach, or for knees that touch: nearer or up where the bars are too far, away or
 * down where they are too near, away or up where the knees touch; never one that what was seen speaks against. The
 * axis on which some mark is likeliest right goes toward that mark, by one step; where neither has one, what stays
 * wrong.
 */
export function remedyBars(situation: BarSituation, why: 'reach' | 'knees'): BarDecision {
  const { looks, failed } = situation
  const judge = judgeOf(situation)
  const options = [...otherSlides(situation), ...otherHeights(situation)].filter(judge.isAllowed)
  const ranked = options.map((to) => ({ to, worth: judge.worth(to) }))
  const top = Math.max(0, ...ranked.map((one) => one.worth))
  const target =
    top >= MIN_WORTH
      ? nearest(
          situation,
          ranked.filter(({ worth }) => worth >= NEARLY_AS_GOOD * top).map(({ to }) => to),
        )
      : // Where one axis alone is not enough, the slide goes as far as it can, if both together would do.
        judge.isPairWorth(options)
        ? farthest(situation, options)
        : null
  const steps = target ? stepsToward(situation, target, options).filter((to) => !failed.has(keyOf(to))) : []
  const to = steps.at(0)
  return to ? { kind: 'move', why, to: withChance(situation, to) } : { kind: 'stay', why, end: endOf(looks) }
}

const endOf = ({ clearance, reach }: BarLooks): BarEnd =>
  clearance === 'touches' ? 'touching' : reach === 'near' ? 'near' : 'far'

const keyOf = ({ height, slide }: BarPlace): string =>
  barKey({ barHeight: height.label, ...(slide && { barSlide: slide.label }) })

const isOnSlide = ({ standing }: BarSituation, to: BarPlace): boolean => to.height.label === standing.height.label

const stepMm = ({ standing: from }: BarSituation, to: BarPlace): number =>
  Math.abs(to.height.mm - from.height.mm) + Math.abs((to.slide?.mm ?? 0) - (from.slide?.mm ?? 0))

const nearest = (situation: BarSituation, places: readonly BarPlace[]): BarPlace =>
  places.reduce((a, b) => (stepMm(situation, b) < stepMm(situation, a) ? b : a))

function farthest(situation: BarSituation, options: readonly BarPlace[]): BarPlace {
  const slides = options.filter((to) => isOnSlide(situation, to))
  return slides.reduce((a, b) => (stepMm(situation, b) > stepMm(situation, a) ? b : a))
}

function otherHeights({ search, saddle, standing }: BarSituation): BarPlace[] {
  return positionsOf(search.bikeType.axes.barHeight.scale)
    .filter(({ label }) => label !== standing.height.label)
    .map((height) => barPlaceAt(search, saddle, height, standing.slide))
}

function otherSlides({ search, saddle, standing }: BarSituation): BarPlace[] {
  const { barSlide } = search.bikeType.axes
  if (!barSlide || !standing.slide) return []
  return positionsOf(barSlide.scale)
    .filter(({ label }) => label !== standing.slide!.label)
    .map((slide) => barPlaceAt(search, saddle, standing.height, slide))
}

/** Marks on the way to a target and within one step of the bars as set, the nearest to the target first. */
function stepsToward(situation: BarSituation, target: BarPlace, options: readonly BarPlace[]): readonly BarPlace[] {
  const { search, standing } = situation
  const onSlide = isOnSlide(situation, target)
  const axis = onSlide ? search.bikeType.axes.barSlide! : search.bikeType.axes.barHeight
  const positionOf = (place: BarPlace): ScalePosition => (onSlide ? place.slide! : place.height)
  const near = new Set(withinStep(positionsOf(axis.scale), positionOf(standing)).map(({ label }) => label))
  const offMm = (place: BarPlace) => Math.abs(positionOf(place).mm - positionOf(target).mm)
  return options
    .filter((place) => isOnSlide(situation, place) === onSlide && near.has(positionOf(place).label))
    .filter((place) => offMm(place) < Math.max(MAX_BAR_STEP_MM, offMm(standing)))
    .toSorted((a, b) => offMm(a) - offMm(b))
}

type Judge = Readonly<{
  isAllowed: (to: BarPlace) => boolean
  worth: (to: BarPlace) => number
  isPairWorth: (options: readonly BarPlace[]) => boolean
}>

/** Whether what was seen lets the bars go somewhere, and how likely all is well there by what is believed. */
function judgeOf(situation: BarSituation): Judge {
  const { search, saddle, standing, looks } = situation
  const { bars, target } = search
  const contact = (place: BarPlace) => contactOf(search, saddle, place)
  const from = contact(standing)
  const before = { excess: bars.excessMm(from), clearance: bars.clearanceMm(from) }
  const lowestMm = Math.min(standing.gripAboveSeatMm, target.aimMm[0])
  const heightWorth = ({ gripAboveSeatMm: mm }: BarPlace) =>
    Math.exp(-Math.max(target.windowMm[0] - mm, mm - target.windowMm[1], 0) / HEIGHT_SCALE_MM)
  return {
    isAllowed: (to) => {
      const at = contact(to)
      const byHeight = isOnSlide(situation, to) ? 0 : to.gripAboveSeatMm - standing.gripAboveSeatMm
      const longer = bars.excessMm(at) - before.excess
      if (byHeight < 0 && (to.gripAboveSeatMm < lowestMm || looks.clearance === 'touches')) return false
      if (looks.reach === 'far' && (byHeight < 0 || longer >= 0)) return false
      if (looks.reach === 'near' && (byHeight > 0 || longer <= 0)) return false
      if (looks.clearance === 'touches')
        return bars.clearanceMm(at) > before.clearance && (byHeight > 0 || at.grip.xMm > from.grip.xMm)
      // Knees that were seen to clear the bars must go on doing so.
      return looks.clearance !== 'clear' || bars.clearChance(at) >= 0.5
    },
    worth: (to) => {
      const at = contact(to)
      const soft = bars.softChance(at) * heightWorth(to)
      return soft < MIN_WORTH ? soft : soft * bars.clearChance(at)
    },
    isPairWorth: (options) => {
      const slides = options.filter((to) => isOnSlide(situation, to))
      const heights = options.filter((to) => !isOnSlide(situation, to))
      return slides.some(({ slide }) =>
        heights.some((height) => {
          const at = contact({ ...height, slide })
          return bars.softChance(at) * heightWorth(height) >= MIN_WORTH
        }),
      )
    },
  }
}
