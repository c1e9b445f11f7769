import type { BikeType, Bike } from '../bike/bike'
import { placeAt } from '../bike/place'
import type { Point } from '../conventions'
import { stopsOf, type Stop } from '../scale/scale'
import { PLUMB_WINDOW_MM, type School } from '../school/school'
import type { SaddleChecks } from './windows'

/** A seat height with a seat slide, where the seat point then is, and the chance that the checks taken lie in their windows. */
export type Pair = Readonly<{ height: Stop; slide: Stop; seat: Point; chance: number }>

/** Another pair must be better by this much to be worth a dismount once the last reading lies in its window. */
export const WORTH_A_DISMOUNT = 0.1
/** Differences below this are the sampling's own error: such marks count as equally good. */
const SAMPLING_ERROR = 0.01
/** Among pairs this close to the best one, the smallest change is taken. */
const AS_GOOD = 0.03

export type SaddleQuestion = Readonly<{
  bikeType: BikeType
  bike?: Bike
  school: School
  checks: SaddleChecks
  /** Once the plumb line was looked at, a pair must satisfy both checks. */
  plumbTaken: boolean
}>

/** Seat point with the seat's axes at two stops. */
export function seatAt(question: Pick<SaddleQuestion, 'bikeType' | 'bike'>, height: Stop, slide: Stop): Point {
  return placeAt(question.bikeType, question.bike, { seatHeight: height.mm, seatSlide: slide.mm }).seat
}

export function pairAt(question: SaddleQuestion, height: Stop, slide: Stop): Pair {
  const seat = seatAt(question, height, slide)
  const { checks, plumbTaken } = question
  return { height, slide, seat, chance: plumbTaken ? checks.bothChance(seat) : checks.kneeChance(seat) }
}

/** The seat height with the best chance at this slide; where none has any, the one whose knee comes nearest to its window. */
export function bestHeight(question: SaddleQuestion, slide: Stop): Pair {
  const pairs = stopsOf(question.bikeType.axes.seatHeight.scale).map((height) => pairAt(question, height, slide))
  const top = best(pairs)
  return isHopeless(top) ? nearestToWindow(question, pairs) : top
}

/** No mark can be told from another by its chance. */
const isHopeless = (top: Pair): boolean => top.chance <= SAMPLING_ERROR

/** The pair whose expected knee flexion lies nearest to the middle of its window; of equals (no leg reaches) the lowest seat. */
function nearestToWindow({ checks, school }: SaddleQuestion, pairs: readonly Pair[]): Pair {
  const [least, most] = school.kneeWindowDeg
  const missDeg = ({ seat }: Pair) => Math.abs(checks.knee(seat).mean - (least + most) / 2)
  const upward = [...pairs].sort((a, b) => a.seat.yMm - b.seat.yMm)
  return upward.reduce((nearest, pair) => (missDeg(pair) < missDeg(nearest) ? pair : nearest))
}

/**
 * The pair to change to from where the saddle stands, or `standing` itself when it is the best.
 * The slide serves as a vernier only within its own window; of pairs as good as the best the smallest change is taken.
 */
export function bestPair(question: SaddleQuestion, standing: Pair): Pair {
  const slides = slidesAllowed(question, standing)
  const pairs = heightsWorthLooking(question, standing.slide).flatMap((height) => slides.map((slide) => pairAt(question, height, slide)))
  const top = best([...pairs, standing])
  if (isHopeless(top)) return withoutChance(question, standing)
  if (top.chance <= standing.chance + SAMPLING_ERROR) return standing
  const asGood = pairs.filter((p) => p.chance >= top.chance - AS_GOOD && p.chance > standing.chance + SAMPLING_ERROR)
  return asGood.reduce((least, p) => (effort(p, standing) < effort(least, standing) ? p : least), top)
}

/**
 * Without any chance to go by: the knee alone where the plumb line cannot be met as well, else the nearest height at
 * the standing slide; `standing` itself when that is it.
 */
function withoutChance(question: SaddleQuestion, standing: Pair): Pair {
  const kneeOnly = { ...question, plumbTaken: false }
  const found = question.plumbTaken ? bestPair(kneeOnly, pairAt(kneeOnly, standing.height, standing.slide)) : bestHeight(question, standing.slide)
  return found.height.label === standing.height.label && found.slide.label === standing.slide.label ? standing : found
}

/**
 * Slides inside the fore-aft window, by expected plumb offset at the standing height; those no farther outside than
 * the standing one are kept as well, so that a first step in the right direction is never forbidden.
 */
function slidesAllowed(question: SaddleQuestion, standing: Pair): Stop[] {
  const [least, most] = PLUMB_WINDOW_MM[question.school.foreAft]
  const outsideMm = (slide: Stop) => {
    const { mean } = question.checks.plumb(seatAt(question, standing.height, slide))
    return Math.max(least - mean, mean - most, 0)
  }
  const now = outsideMm(standing.slide)
  const stops = stopsOf(question.bikeType.axes.seatSlide.scale)
  return stops.filter((slide) => slide.label === standing.slide.label || outsideMm(slide) <= (question.plumbTaken ? now : 0))
}

/** Heights not hopeless at the standing slide, with one neighbour more on each side: the rest of the grid is not worth its arithmetic. */
function heightsWorthLooking(question: SaddleQuestion, slide: Stop): Stop[] {
  const stops = stopsOf(question.bikeType.axes.seatHeight.scale)
  const chances = stops.map((height) => question.checks.kneeChance(seatAt(question, height, slide)))
  const enough = 0.2 * Math.max(...chances)
  return stops.filter((_, i) => [i - 1, i, i + 1].some((j) => chances[j] !== undefined && chances[j] >= enough))
}

/** How much a change disturbs: each moved axis counts, then the millimetres. */
function effort(pair: Pair, standing: Pair): number {
  const height = Math.abs(pair.height.mm - standing.height.mm)
  const slide = Math.abs(pair.slide.mm - standing.slide.mm)
  return (height > 0 ? 100 : 0) + (slide > 0 ? 100 : 0) + height + slide
}

const best = (pairs: readonly Pair[]): Pair => pairs.reduce((top, p) => (p.chance > top.chance ? p : top))

/** The seat's scale has ended: which end, its stop, and where the seat would be wanted, mm along the axis. */
export type ScaleEnd = Readonly<{ end: 'top' | 'bottom'; nearest: Stop; wantedMm: number }>

/** Says when for more than half of the riders in the belief no mark can be right, because the scale ends before. */
export function scaleEnd(question: SaddleQuestion, standing: Pair): ScaleEnd | null {
  const heights = [...stopsOf(question.bikeType.axes.seatHeight.scale)].sort(
    (a, b) => seatAt(question, a, standing.slide).yMm - seatAt(question, b, standing.slide).yMm,
  )
  const slides = slidesAllowed(question, standing)
  const lowest = heights[0]
  const highest = heights[heights.length - 1]
  const always = (stop: Stop, miss: (seat: Point) => number) => Math.min(...slides.map((slide) => miss(seatAt(question, stop, slide)))) > 0.5
  if (always(highest, question.checks.tooLowChance)) return { end: 'top', nearest: highest, wantedMm: wanted(question, standing.slide, highest) }
  if (always(lowest, question.checks.tooHighChance)) return { end: 'bottom', nearest: lowest, wantedMm: wanted(question, standing.slide, lowest) }
  return null
}

/** Position along the axis at which the expected knee flexion is the middle of its window, found by halving. */
function wanted(question: SaddleQuestion, slide: Stop, end: Stop): number {
  const middle = (question.school.kneeWindowDeg[0] + question.school.kneeWindowDeg[1]) / 2
  const flexion = (mm: number) => question.checks.knee(seatAt(question, { label: '', mm }, slide)).mean
  const upward = Math.sign(seatAt(question, { label: '', mm: 1 }, slide).yMm - seatAt(question, { label: '', mm: 0 }, slide).yMm)
  let low = end.mm - 400
  let high = end.mm + 400
  for (let step = 0; step < 24; step++) {
    const mm = (low + high) / 2
    if (flexion(mm) > middle === upward > 0) low = mm
    else high = mm
  }
  return (low + high) / 2
}
