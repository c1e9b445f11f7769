import { bottomCrankDeg, type BikeType, type Bike } from '../bike/bike'
import { placeAt } from '../bike/place'
import type { Point } from '../conventions'
import { distanceMm } from '../geometry'
import { pedalAt } from '../linkage/pose'
import { middleStop, stopsOf, type Stop } from '../scale/scale'
import { PLUMB_WINDOW_MM, type School } from '../school/school'
import type { SaddleChecks } from './windows'

/** A seat height with a seat slide, where the seat point then is, and the chance that knee and plumb line both lie in their windows. */
export type Pair = Readonly<{ height: Stop; slide: Stop; seat: Point; chance: number }>

/** Another pair must be better by this much to be worth a dismount (docs/bench-dismounts.md: fewer dismounts, as many right). */
export const WORTH_A_DISMOUNT = 0.13
/** Below this chance no mark is called right: it is the nearest there is, and that is said. */
export const SMALL_CHANCE = 0.3
/** Differences below this are the sampling's own error: such marks count as equally good. */
const SAMPLING_ERROR = 0.01
/** Start pairs this close to the best one are ties: of them the slide nearest 0 mm is proposed. */
const TIE = 0.02
/** Among pairs this close to the best one, the smallest change is taken. */
const AS_GOOD = 0.03
/** A height with less than this share of the best knee's chance is not worth its arithmetic. */
const WORTH_LOOKING = 0.2

export type SaddleQuestion = Readonly<{ bikeType: BikeType; bike?: Bike; school: School; checks: SaddleChecks }>

/** Seat point with the seat's axes at two stops. */
export function seatAt(question: Pick<SaddleQuestion, 'bikeType' | 'bike'>, height: Stop, slide: Stop): Point {
  return placeAt(question.bikeType, question.bike, { seatHeight: height.mm, seatSlide: slide.mm }).seat
}

export function pairAt(question: SaddleQuestion, height: Stop, slide: Stop): Pair {
  const seat = seatAt(question, height, slide)
  return { height, slide, seat, chance: question.checks.bothChance(seat) }
}

/** How much higher (plus) the seat of `to` is for the leg than that of `from`: farther from the pedal at its farthest, mm. */
export function legEffectMm({ bikeType }: Pick<SaddleQuestion, 'bikeType'>, from: Point, to: Point): number {
  const pedal = pedalAt(bikeType.crankMm, bottomCrankDeg(bikeType))
  return distanceMm(pedal, to) - distanceMm(pedal, from)
}

/** Marks nearer to each other than this are not told apart by any check, mm: of them one is looked at. */
const FINEST_MM = 2

/** Every pair worth looking at: at each slide the heights whose knee is not hopeless, with one neighbour more on each side. */
function pairsWorthLooking(question: SaddleQuestion): Pair[] {
  const { seatHeight, seatSlide } = question.bikeType.axes
  const upward = inOrder(
    toldApart(stopsOf(seatHeight.scale)),
    (stop) => seatAt(question, stop, middleStop(seatSlide.scale)).yMm,
  )
  return toldApart(stopsOf(seatSlide.scale)).flatMap((slide) =>
    heightsWorthLooking(question, upward, slide).map((height) => pairAt(question, height, slide)),
  )
}

/** Stops of a finely marked scale at least so far apart that a check could tell them; in order of their mm. */
function toldApart(stops: readonly Stop[]): Stop[] {
  const kept: Stop[] = []
  for (const stop of inOrder(stops, ({ mm }) => mm))
    if (kept.length === 0 || stop.mm - kept[kept.length - 1].mm >= FINEST_MM) kept.push(stop)
  return kept
}

/**
 * The heights at one slide, of those given from low to high, whose knee is not hopeless beside the best, one more on each
 * side. The higher, the straighter: the best lies where too high becomes as likely as too low, and from there the chance
 * falls both ways.
 */
function heightsWorthLooking(question: SaddleQuestion, upward: readonly Stop[], slide: Stop): readonly Stop[] {
  const { tooHighChance, tooLowChance, kneeChance } = question.checks
  const seats = upward.map((height) => seatAt(question, height, slide))
  let [below, above] = [-1, seats.length - 1]
  while (above - below > 1) {
    const middle = Math.floor((below + above) / 2)
    if (tooHighChance(seats[middle]) >= tooLowChance(seats[middle])) above = middle
    else below = middle
  }
  const chance = (i: number) => kneeChance(seats[i])
  const enough = WORTH_LOOKING * Math.max(chance(above), above > 0 ? chance(above - 1) : 0)
  let [low, high] = [above, above]
  while (low > 0 && chance(low - 1) >= enough && chance(low - 1) > 0) low--
  while (high < seats.length - 1 && chance(high + 1) >= enough && chance(high + 1) > 0) high++
  return upward.slice(Math.max(0, low - 1), high + 2)
}

/**
 * Where to start: the pair at which both checks most probably hold; of ties the slide nearest 0 mm, then the better one.
 * Where no pair has any chance, the height whose knee comes nearest to its window, with the slide at `slide`.
 */
export function startPair(question: SaddleQuestion, slide: Stop): Pair {
  const pairs = pairsWorthLooking(question)
  const top = best(pairs)
  if (isHopeless(top)) return nearestHeight(question, slide)
  const ties = pairs.filter((p) => p.chance >= top.chance - TIE)
  const least = Math.min(...ties.map((p) => Math.abs(p.slide.mm)))
  return best(ties.filter((p) => Math.abs(p.slide.mm) === least))
}

/** No mark can be told from another by its chance. */
const isHopeless = (top: Pair): boolean => top.chance <= SAMPLING_ERROR

/** The height whose expected knee flexion lies nearest to the middle of its window; of equals (no leg reaches) the lowest seat. */
function nearestHeight(question: SaddleQuestion, slide: Stop): Pair {
  const [least, most] = question.school.kneeWindowDeg
  const pairs = stopsOf(question.bikeType.axes.seatHeight.scale).map((height) => pairAt(question, height, slide))
  const kneeChances = pairs.map(({ seat }) => question.checks.kneeChance(seat))
  const top = Math.max(...kneeChances)
  if (top > SAMPLING_ERROR) return pairs[kneeChances.indexOf(top)]
  const missDeg = ({ seat }: Pair) => Math.abs(question.checks.knee(seat).mean - (least + most) / 2)
  const upward = [...pairs].sort((a, b) => a.seat.yMm - b.seat.yMm)
  return upward.reduce((nearest, pair) => (missDeg(pair) < missDeg(nearest) ? pair : nearest))
}

/**
 * The pair to change to from where the saddle stands, or `standing` itself when it is the best: of all heights and slides
 * together, since either moves both checks. Of pairs as good as the best the smallest change is taken.
 */
export function bestPair(question: SaddleQuestion, standing: Pair): Pair {
  const pairs = pairsWorthLooking(question)
  const top = best([...pairs, standing])
  if (isHopeless(top)) {
    const nearest = nearestHeight(question, standing.slide)
    return nearest.height.label === standing.height.label ? standing : nearest
  }
  if (top.chance <= standing.chance + SAMPLING_ERROR) return standing
  const asGood = pairs.filter((p) => p.chance >= top.chance - AS_GOOD && p.chance > standing.chance + SAMPLING_ERROR)
  return asGood.reduce((least, p) => (effort(p, standing) < effort(least, standing) ? p : least), top)
}

/** How much likelier the knee alone would be right at the best pair than where the saddle stands. */
export function kneeGain(question: SaddleQuestion, standing: Pair): number {
  const chances = pairsWorthLooking(question).map(({ seat }) => question.checks.kneeChance(seat))
  return Math.max(0, ...chances) - question.checks.kneeChance(standing.seat)
}

/** How much a change disturbs: each moved axis counts, then the millimetres. */
function effort(pair: Pair, standing: Pair): number {
  const height = Math.abs(pair.height.mm - standing.height.mm)
  const slide = Math.abs(pair.slide.mm - standing.slide.mm)
  return (height > 0 ? 100 : 0) + (slide > 0 ? 100 : 0) + height + slide
}

const best = (pairs: readonly Pair[]): Pair => pairs.reduce((top, p) => (p.chance > top.chance ? p : top))

/** A scale of the seat has ended: which, at which end, its stop, and where the part would be wanted, mm along the axis. */
export type ScaleEnd =
  | Readonly<{ axis: 'seatHeight'; end: 'top' | 'bottom'; nearest: Stop; wantedMm: number }>
  | Readonly<{ axis: 'seatSlide'; end: 'rear' | 'front'; nearest: Stop; wantedMm: number }>

/** Says when for more than half of the riders in the belief no seat height can be right, because the post ends before. */
export function heightEnd(question: SaddleQuestion, standing: Pair): ScaleEnd | null {
  const slides = stopsOf(question.bikeType.axes.seatSlide.scale)
  const heights = inOrder(
    stopsOf(question.bikeType.axes.seatHeight.scale),
    (stop) => seatAt(question, stop, standing.slide).yMm,
  )
  const always = (stop: Stop, miss: (seat: Point) => number) =>
    slides.every((slide) => miss(seatAt(question, stop, slide)) > 0.5)
  const [lowest, highest] = [heights[0], heights[heights.length - 1]]
  const [least, most] = question.school.kneeWindowDeg
  const end = always(highest, question.checks.tooLowChance)
    ? 'top'
    : always(lowest, question.checks.tooHighChance)
      ? 'bottom'
      : null
  if (!end) return null
  const nearest = end === 'top' ? highest : lowest
  // The higher the seat, the straighter the knee.
  const wantedMm = whereMiddle(
    (mm) => -question.checks.knee(seatAt(question, { label: '', mm }, standing.slide)).mean,
    -(least + most) / 2,
    nearest.mm,
  )
  return { axis: 'seatHeight', end, nearest, wantedMm }
}

/** Says when for more than half of the riders the slide ends before the knee hangs where it should, at every height that suits the knee. */
export function slideEnd(question: SaddleQuestion, standing: Pair): ScaleEnd | null {
  const slides = inOrder(
    stopsOf(question.bikeType.axes.seatSlide.scale),
    (stop) => seatAt(question, standing.height, stop).xMm,
  )
  const heightsAt = (slide: Stop): Pair[] => {
    const pairs = stopsOf(question.bikeType.axes.seatHeight.scale).map((height) => pairAt(question, height, slide))
    const knees = pairs.map(({ seat }) => question.checks.kneeChance(seat))
    return pairs.filter((_, i) => knees[i] >= 0.5 * Math.max(...knees) && knees[i] > SAMPLING_ERROR)
  }
  const always = (slide: Stop, miss: (seat: Point) => number) => {
    const pairs = heightsAt(slide)
    return pairs.length > 0 && pairs.every(({ seat }) => miss(seat) > 0.5)
  }
  const [rear, front] = [slides[0], slides[slides.length - 1]]
  const end = always(rear, question.checks.tooFarAheadChance)
    ? 'rear'
    : always(front, question.checks.tooFarBehindChance)
      ? 'front'
      : null
  if (!end) return null
  const [least, most] = PLUMB_WINDOW_MM[question.school.foreAft]
  const nearest = end === 'rear' ? rear : front
  const wantedMm = whereMiddle(
    (mm) => question.checks.plumb(seatAt(question, standing.height, { label: '', mm })).mean,
    (least + most) / 2,
    nearest.mm,
  )
  return { axis: 'seatSlide', end, nearest, wantedMm }
}

const inOrder = (stops: readonly Stop[], by: (stop: Stop) => number): Stop[] => [...stops].sort((a, b) => by(a) - by(b))

/** How far beyond a scale's end the wanted position is looked for, mm. */
const REACH_MM = 400

/** Position within reach of `nearMm` at which a quantity that runs one way has its middle, found by halving. */
function whereMiddle(quantity: (mm: number) => number, middle: number, nearMm: number): number {
  let low = nearMm - REACH_MM
  let high = nearMm + REACH_MM
  const rising = quantity(high) > quantity(low)
  for (let step = 0; step < 24; step++) {
    const mm = (low + high) / 2
    if (quantity(mm) < middle === rising) low = mm
    else high = mm
  }
  return (low + high) / 2
}
