import { bottomCrankDeg, type Bike } from '../../../bikes/bike/bike'
import type { PlainType } from '../../../bikes/bike/standing'
import { contactPoints } from '../../../bikes/bike/contactPoints'
import type { Point } from '../../../base/conventions'
import { distanceMm } from '../../../base/geometry'
import { pedalAt } from '../../../riders/kinematics/pose'
import { middlePosition, positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { PLUMB_WINDOW_MM, type School } from '../../../base/school/school'
import type { TargetProbabilities } from './targetProbabilities'

/**
 * A seat height with a seat slide, where the seat point then is, and the chance that knee and plumb line both lie in
 * their windows.
 */
export type SaddlePosition = Readonly<{ height: ScalePosition; slide: ScalePosition; seat: Point; chance: number }>

/**
 * Another pair must be better by this much to be worth a dismount (docs/bench/dismounts.md: fewer dismounts, as many
 * right).
 */
export const MIN_GAIN = 0.24
/**
 * A knee that would be right so much more often is worth it as well: seat height is the setting that must not be wrong.
 */
export const MIN_KNEE_GAIN = 0.06
/** Differences below the resolution of every instrument at the bike, and of the rider. */
export const READING_TOLERANCE = Object.freeze({ deg: 1, mm: 3 })
/** Below this chance no mark counts as right; the answer then names the nearest one and the shortfall. */
export const SMALL_CHANCE = 0.3
/** Differences below this are the sampling's own error: such marks count as equally good. */
const SAMPLING_ERROR = 0.01
/** Start pairs this close to the best one are ties: of them the slide nearest 0 mm is proposed. */
const TIE = 0.02
/** Where the school leaves the slide to build or to its middle, pairs this close are ties: the slide decides. */
const TIE_BY_BUILD = 0.15
/** Among pairs this close to the best one, the smallest change is taken. */
const EQUIVALENT = 0.03
/** A height with less than this share of the best knee's chance is not worth its arithmetic. */
const MIN_KNEE_SHARE = 0.2

/** `slideMm` is where the slide starts that no check decides. */
export type SaddleSearch = Readonly<{
  bikeType: PlainType
  bike?: Bike | undefined
  school: School
  targets: TargetProbabilities
  /** The same with windows widened by the resolution of a reading: decides whether a dismount is worth it. */
  tolerant: TargetProbabilities
  slideMm: number
}>

/** Seat point with the seat's axes at two stops. */
export function seatAt(
  search: Pick<SaddleSearch, 'bikeType' | 'bike'>,
  height: ScalePosition,
  slide: ScalePosition,
): Point {
  return contactPoints(search.bikeType, search.bike, { seatHeight: height.mm, seatSlide: slide.mm }).seat
}

export function saddlePositionAt(search: SaddleSearch, height: ScalePosition, slide: ScalePosition): SaddlePosition {
  const seat = seatAt(search, height, slide)
  return { height, slide, seat, chance: search.targets.bothChance(seat) }
}

/**
 * How much higher (plus) the seat of `to` is for the leg than that of `from`: farther from the pedal at its farthest,
 * mm.
 */
export function legEffectMm({ bikeType }: Pick<SaddleSearch, 'bikeType'>, from: Point, to: Point): number {
  const pedal = pedalAt(bikeType.crankMm, bottomCrankDeg(bikeType))
  return distanceMm(pedal, to) - distanceMm(pedal, from)
}

/** No check distinguishes marks closer than this, mm: the search tries one of them. */
const MIN_SPACING_MM = 2

/**
 * Every pair worth looking at: at each slide the heights whose knee is not hopeless, with one neighbour more on each
 * side.
 */
export function candidatePositions(search: SaddleSearch): readonly SaddlePosition[] {
  const cached = candidatesOf.get(search) ?? findCandidates(search)
  candidatesOf.set(search, cached)
  return cached
}

/** Cached: one answer needs them several times. */
const candidatesOf = new WeakMap<SaddleSearch, readonly SaddlePosition[]>()

function findCandidates(search: SaddleSearch): SaddlePosition[] {
  const { seatHeight, seatSlide } = search.bikeType.axes
  const upward = sortedBy(
    spacedPositions(positionsOf(seatHeight.scale)),
    (position) => seatAt(search, position, middlePosition(seatSlide.scale)).yMm,
  )
  return spacedPositions(positionsOf(seatSlide.scale)).flatMap((slide) =>
    candidateHeights(search, upward, slide).map((height) => saddlePositionAt(search, height, slide)),
  )
}

/** Stops of a fine scale, thinned to a spacing that a check can resolve; in order of mm. */
function spacedPositions(positions: readonly ScalePosition[]): ScalePosition[] {
  const thinned: ScalePosition[] = []
  for (const position of sortedBy(positions, ({ mm }) => mm))
    if (thinned.length === 0 || position.mm - thinned[thinned.length - 1].mm >= MIN_SPACING_MM) thinned.push(position)
  return thinned
}

/**
 * The heights at one slide, of those given from low to high, whose knee is not hopeless beside the best, one more on
 * each side. The higher, the straighter: the best lies where too high becomes as likely as too low, and from there
 * the chance falls both ways.
 */
function candidateHeights(
  search: SaddleSearch,
  upward: readonly ScalePosition[],
  slide: ScalePosition,
): readonly ScalePosition[] {
  const { tooHighChance, tooLowChance, kneeChance } = search.targets
  const seats = upward.map((height) => seatAt(search, height, slide))
  let [below, above] = [-1, seats.length - 1]
  while (above - below > 1) {
    const middle = Math.floor((below + above) / 2)
    if (tooHighChance(seats[middle]) >= tooLowChance(seats[middle])) above = middle
    else below = middle
  }
  const chance = (i: number) => kneeChance(seats[i])
  const enough = MIN_KNEE_SHARE * Math.max(chance(above), above > 0 ? chance(above - 1) : 0)
  let [low, high] = [above, above]
  while (low > 0 && chance(low - 1) >= enough && chance(low - 1) > 0) low--
  while (high < seats.length - 1 && chance(high + 1) >= enough && chance(high + 1) > 0) high++
  return upward.slice(Math.max(0, low - 1), high + 2)
}

/**
 * The starting pair: the one with the highest chance that both checks pass; ties go to the slide nearest 0 mm, then to
 * the better chance. If no pair has a chance, the height whose knee comes nearest to its window, with the slide at
 * `slide`.
 */
export function startPosition(search: SaddleSearch, slide: ScalePosition): SaddlePosition {
  const candidates = candidatePositions(search)
  const top = mostProbable(candidates)
  if (isHopeless(top)) return nearestHeightPosition(search, slide)
  const byBuild = search.school.foreAft === 'balance' || search.school.foreAft === 'unused'
  const ties = candidates.filter((p) => p.chance >= top.chance - (byBuild ? TIE_BY_BUILD : TIE))
  const off = (p: SaddlePosition) => Math.abs(p.slide.mm - search.slideMm)
  const least = Math.min(...ties.map(off))
  return mostProbable(ties.filter((p) => off(p) === least))
}

/** All marks have the same chance. */
const isHopeless = (top: SaddlePosition): boolean => top.chance <= SAMPLING_ERROR

/**
 * The height whose expected knee flexion lies nearest to the middle of its window; of equals (no leg reaches) the
 * lowest seat.
 */
function nearestHeightPosition(search: SaddleSearch, slide: ScalePosition): SaddlePosition {
  const [least, most] = search.school.kneeWindowDeg
  const candidates = positionsOf(search.bikeType.axes.seatHeight.scale).map((height) =>
    saddlePositionAt(search, height, slide),
  )
  const kneeChances = candidates.map(({ seat }) => search.targets.kneeChance(seat))
  const top = Math.max(...kneeChances)
  if (top > SAMPLING_ERROR) return candidates[kneeChances.indexOf(top)]
  const missDeg = ({ seat }: SaddlePosition) => Math.abs(search.targets.knee(seat).mean - (least + most) / 2)
  const upward = [...candidates].sort((a, b) => a.seat.yMm - b.seat.yMm)
  return upward.reduce((nearest, candidate) => (missDeg(candidate) < missDeg(nearest) ? candidate : nearest))
}

/**
 * The pair to change to, or `standing` (the current pair) when it is the best: over all heights and slides together,
 * since either moves both checks. Among pairs as good as the best, the smallest change.
 */
export function bestPosition(search: SaddleSearch, current: SaddlePosition): SaddlePosition {
  const candidates = candidatePositions(search)
  const top = mostProbable([...candidates, current])
  if (isHopeless(top)) {
    const nearest = nearestHeightPosition(search, current.slide)
    return nearest.height.label === current.height.label ? current : nearest
  }
  if (top.chance <= current.chance + SAMPLING_ERROR) return current
  const asGood = candidates.filter(
    (p) => p.chance >= top.chance - EQUIVALENT && p.chance > current.chance + SAMPLING_ERROR,
  )
  return asGood.reduce((least, p) => (effort(p, current) < effort(least, current) ? p : least), top)
}

/** Gain in the chance of the knee alone between the current saddle position and the best pair. */
export function kneeGain(search: SaddleSearch, current: SaddlePosition): number {
  const chances = candidatePositions(search).map(({ seat }) => search.targets.kneeChance(seat))
  return Math.max(0, ...chances) - search.targets.kneeChance(current.seat)
}

/** How much a change disturbs: each moved axis counts, then the millimetres. */
function effort(candidate: SaddlePosition, current: SaddlePosition): number {
  const height = Math.abs(candidate.height.mm - current.height.mm)
  const slide = Math.abs(candidate.slide.mm - current.slide.mm)
  return (height > 0 ? 100 : 0) + (slide > 0 ? 100 : 0) + height + slide
}

const mostProbable = (candidates: readonly SaddlePosition[]): SaddlePosition =>
  candidates.reduce((top, p) => (p.chance > top.chance ? p : top))

/**
 * A scale of the seat has ended: which one, at which end, its stop, and the target position, mm along the axis.
 */
export type ScaleEnd =
  | Readonly<{ axis: 'seatHeight'; end: 'top' | 'bottom'; nearest: ScalePosition; wantedMm: number }>
  | Readonly<{ axis: 'seatSlide'; end: 'rear' | 'front'; nearest: ScalePosition; wantedMm: number }>

/** Returns the end of the post where more than half of the posterior needs a seat height beyond it. */
export function heightEnd(search: SaddleSearch, current: SaddlePosition): ScaleEnd | null {
  const slides = positionsOf(search.bikeType.axes.seatSlide.scale)
  const heights = sortedBy(
    positionsOf(search.bikeType.axes.seatHeight.scale),
    (position) => seatAt(search, position, current.slide).yMm,
  )
  const always = (position: ScalePosition, miss: (seat: Point) => number) =>
    slides.every((slide) => miss(seatAt(search, position, slide)) > 0.5)
  const [lowest, highest] = [heights[0], heights[heights.length - 1]]
  const [least, most] = search.school.kneeWindowDeg
  const end = always(highest, search.targets.tooLowChance)
    ? 'top'
    : always(lowest, search.targets.tooHighChance)
      ? 'bottom'
      : null
  if (!end) return null
  const nearest = end === 'top' ? highest : lowest
  // The higher the seat, the straighter the knee.
  const idealMm = bisectPosition(
    (mm) => -search.targets.knee(seatAt(search, { label: '', mm }, current.slide)).mean,
    -(least + most) / 2,
    nearest.mm,
  )
  return { axis: 'seatHeight', end, nearest, wantedMm: idealMm }
}

/**
 * Returns the end of the slide where more than half of the posterior needs a position beyond it, at every height that
 * suits the knee.
 */
export function slideEnd(search: SaddleSearch, current: SaddlePosition): ScaleEnd | null {
  const slides = sortedBy(
    positionsOf(search.bikeType.axes.seatSlide.scale),
    (position) => seatAt(search, current.height, position).xMm,
  )
  const heightsAt = (slide: ScalePosition): SaddlePosition[] => {
    const candidates = positionsOf(search.bikeType.axes.seatHeight.scale).map((height) =>
      saddlePositionAt(search, height, slide),
    )
    const knees = candidates.map(({ seat }) => search.targets.kneeChance(seat))
    return candidates.filter((_, i) => knees[i] >= 0.5 * Math.max(...knees) && knees[i] > SAMPLING_ERROR)
  }
  const always = (slide: ScalePosition, miss: (seat: Point) => number) => {
    const candidates = heightsAt(slide)
    return candidates.length > 0 && candidates.every(({ seat }) => miss(seat) > 0.5)
  }
  const [rear, front] = [slides[0], slides[slides.length - 1]]
  const end = always(rear, search.targets.tooFarAheadChance)
    ? 'rear'
    : always(front, search.targets.tooFarBehindChance)
      ? 'front'
      : null
  if (!end) return null
  const [least, most] = PLUMB_WINDOW_MM[search.school.foreAft]
  const nearest = end === 'rear' ? rear : front
  const idealMm = bisectPosition(
    (mm) => search.targets.plumb(seatAt(search, current.height, { label: '', mm })).mean,
    (least + most) / 2,
    nearest.mm,
  )
  return { axis: 'seatSlide', end, nearest, wantedMm: idealMm }
}

const sortedBy = (positions: readonly ScalePosition[], by: (position: ScalePosition) => number): ScalePosition[] =>
  [...positions].sort((a, b) => by(a) - by(b))

/** Search range for the target position beyond the end of a scale, mm. */
const SEARCH_RANGE_MM = 400

/** Position within reach of `nearMm` at which a quantity that runs one way has its middle, found by halving. */
function bisectPosition(quantity: (mm: number) => number, middle: number, nearMm: number): number {
  let low = nearMm - SEARCH_RANGE_MM
  let high = nearMm + SEARCH_RANGE_MM
  const rising = quantity(high) > quantity(low)
  for (let step = 0; step < 24; step++) {
    const mm = (low + high) / 2
    if (quantity(mm) < middle === rising) low = mm
    else high = mm
  }
  return (low + high) / 2
}
