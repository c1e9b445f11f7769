import { createRng } from '../../base/rng'
import { axesOf, bottomCrankDeg, type Bike, type BikeType } from '../../bikes/bike/bike'
import { contactPoints } from '../../bikes/bike/contactPoints'
import { defaultPosition, furtherAxesOf, standingAt, type PlainType } from '../../bikes/bike/standing'
import { schoolOn } from '../recommend/knowledge/schoolOn'
import { columnOf } from '../../base/columns'
import { AXES, COMMON_AXES, isCommon, type AxisName, type CommonAxis } from '../../base/adjustments'
import type { Marks, Point } from '../../base/conventions'
import {
  hipToAnkleSquared,
  kneeOverPedalMm,
  prepareLegs,
  squaredAtFlexion,
  type Legs,
} from '../../riders/kinematics/leg'
import { DEFAULT_SOLE_MM, FRACTION_OF_STATURE } from '../../riders/rider/anthropometry'
import {
  bodiesFromScores,
  PRIOR_PARTS,
  priorFor,
  priorVectorOf,
  type Bodies,
  type Prior,
} from '../../riders/rider/prior'
import { positionsOf } from '../../bikes/scale/scale'
import {
  BAR_WINDOW_MM,
  FOREARM_GAP_WINDOW_MM,
  inWindow,
  PLUMB_WINDOW_MM,
  schoolOf,
  type School,
} from '../../base/school/school'

/** Statures looked at, mm: 140 to 205 cm in steps of 5. */
export const STATURES_MM: readonly number[] = Object.freeze(Array.from({ length: 14 }, (_, i) => 1400 + 50 * i))

/** Of riders of one stature, the share for whom a mark exists inside the school's window. */
export type AccommodationAtStature = Readonly<{
  statureMm: number
  /** On every axis together. */
  all: number
  /** The same, rider by rider: one seed draws the same riders for every type. */
  riders: readonly boolean[]
  /** On each axis alone, with the others at their best. */
  axes: Readonly<Partial<Record<AxisName, number>>>
}>

export type AccommodationRequest = Readonly<{
  bikeType: BikeType
  bike?: Bike
  school?: Partial<School>
  prior?: Prior
  seed?: number
  riders?: number
}>

/**
 * Who fits a type: seeded riders of each stature; a rider fits if some seat height with some slide puts the knee
 * into its window and the plumb line into its own, if a bar height is level with or above that saddle, and,
 * where the forearm gauge is valid, whether a bar slide meets the forearm. The same bodies serve every stature, so
 * the curve is smooth.
 */
export function accommodation(
  request: AccommodationRequest,
  onProgress: (done: number, of: number) => void = () => undefined,
): AccommodationAtStature[] {
  const riders = request.riders ?? 300
  const school = schoolOf(request.school)
  const random = createRng(request.seed ?? 1)
  const byRider = Array.from({ length: riders }, () => PRIOR_PARTS.map(() => random.normal()))
  const scores = PRIOR_PARTS.map((_, part) => columnOf(riders, (i) => byRider[i][part]))
  const fitsOf = typeFits(request.bikeType, request.bike, school)
  return STATURES_MM.map((statureMm, i) => {
    const table = priorVectorOf(priorFor(school.foot, { ...request.prior, statureMm: { mean: statureMm, sd: 0 } }))
    const answers = fitsOf(bodiesFromScores(table, scores, riders))
    onProgress(i + 1, STATURES_MM.length)
    const share = (predicate: (a: FitsByAxis) => boolean) => answers.filter(predicate).length / riders
    const own = axesOf(request.bikeType).filter(isCommon)
    const axes = Object.fromEntries(own.map((name) => [name, share((a) => a[name])]))
    const everywhere = answers.map((a) => COMMON_AXES.every((name) => a[name]))
    return { statureMm, all: everywhere.filter(Boolean).length / riders, riders: everywhere, axes }
  })
}

/** Of the riders of one stature, the share who fit at least one type of a fleet; all types with one seed. */
export function fleetAccommodation(fits: readonly AccommodationAtStature[]): number {
  const riders = fits[0]?.riders ?? []
  return riders.filter((_, i) => fits.some((fit) => fit.riders[i])).length / Math.max(1, riders.length)
}

type FitsByAxis = Readonly<Record<CommonAxis, boolean>>

/** Of a further adjustment so many marks are tried, its ends among them, and so many of all of them together. */
const FURTHER_MARKS = 3
const MOST_SETTINGS = 18

/**
 * For riders on any type: with its further adjustments, which stand for each rider where the most axes have a mark.
 * A type without a slide is judged by the knee alone, as its school then is.
 */
function typeFits(bikeType: BikeType, bike: Bike | undefined, school: School): (bodies: Bodies) => FitsByAxis[] {
  const followed = schoolOn(bikeType, school)
  const fits = furtherSettings(bikeType).map((further) => {
    const machine = standingAt(bikeType, bike, further)
    return bikeFits(machine.bikeType, machine.bike, followed)
  })
  if (fits.length === 1) return fits[0]
  const count = (one: FitsByAxis) => COMMON_AXES.filter((name) => one[name]).length
  return (bodies) =>
    fits
      .map((fitsOf) => fitsOf(bodies))
      .reduce((best, one) => best.map((own, i) => (count(one[i]) > count(own) ? one[i] : own)))
}

/** Settings of the further adjustments to try, as they stand by default first. */
function furtherSettings(bikeType: BikeType): readonly Marks[] {
  const settings = furtherAxesOf(bikeType)
    .filter((axis) => axis !== 'saddleTilt')
    .reduce<Marks[]>(
      (before, axis) => {
        const positions = positionsOf(bikeType.axes[axis]!.scale)
        const at = (share: number) => positions[Math.round(share * (positions.length - 1))].label
        const labels = Array.from({ length: FURTHER_MARKS }, (_, i) => at(i / (FURTHER_MARKS - 1)))
        const some = [...new Set([defaultPosition(bikeType, axis)!.label, ...labels])]
        return before.flatMap((setting) => some.map((label) => ({ ...setting, [axis]: label })))
      },
      [{}],
    )
  const every = Math.ceil(settings.length / MOST_SETTINGS)
  return settings.filter((_, i) => i % every === 0 || i === settings.length - 1)
}

/** For riders on one type, the axes that have a mark for each of them; computes what no rider changes only once. */
function bikeFits(bikeType: PlainType, bike: Bike | undefined, school: School): (bodies: Bodies) => FitsByAxis[] {
  const { seatHeight, seatSlide, barHeight, barSlide } = bikeType.axes
  const [heights, slides, barHeights] = [seatHeight, seatSlide, barHeight].map((axis) => positionsOf(axis.scale))
  const barSlides = barSlide ? positionsOf(barSlide.scale) : [{ label: '', mm: 0 }]
  const grips = barHeights.map((h) => {
    const slid = barSlides.map((s) => contactPoints(bikeType, bike, { barHeight: h.mm, barSlide: s.mm }).grip)
    return { yMm: slid[0].yMm, forward: [...slid].sort((a, b) => a.xMm - b.xMm) }
  })
  const [least] = BAR_WINDOW_MM.level
  const bars = [school.bars === 'neverBelow' ? 0 : least, BAR_WINDOW_MM.above[1]] as const
  const seats = heights.map((h) =>
    slides.map((s) => {
      const points = contactPoints(bikeType, bike, { seatHeight: h.mm, seatSlide: s.mm })
      return { ...points, rows: grips.filter((row) => inWindow(row.yMm - points.seat.yMm, bars)) }
    }),
  )
  // Along a post the knee straightens as the seat goes up: its window is one stretch of each post.
  const upward = heights.map((_, h) => h).sort((a, b) => heights[a].mm - heights[b].mm)
  const posts = slides.map((_, s) => upward.map((h) => seats[h][s]))
  const bottomDeg = bottomCrankDeg(bikeType)
  const [straightest, deepest] = school.kneeWindowDeg

  function fitsRider(legs: Legs, i: number, statureMm: number): FitsByAxis {
    const nearest = squaredAtFlexion(legs, deepest, i)
    const farthest = squaredAtFlexion(legs, straightest, i)
    const kneeInRange = (post: (typeof posts)[number]) => {
      const lowest = firstIndex(post, ({ seat }) => hipToAnkleSquared(legs, seat, i) >= nearest)
      return post.slice(
        lowest,
        firstIndex(post, ({ seat }) => hipToAnkleSquared(legs, seat, i) > farthest, lowest),
      )
    }
    const plumbInRange = (seat: Point) => inWindow(kneeOverPedalMm(legs, seat, i), PLUMB_WINDOW_MM[school.foreAft])
    const good = posts.flatMap(kneeInRange)
    const both = good.filter(({ seat }) => plumbInRange(seat))
    // Where the knee finds no mark at all, slide and bars are tried at the seats nearest to it rather than blamed.
    const seatsTried = both.length > 0 ? both : good.length > 0 ? good : seats[statureMm > 1700 ? seats.length - 1 : 0]
    const barInRange = seatsTried.some(({ rows }) => rows.length > 0)
    const fingertipMm = (FRACTION_OF_STATURE.forearm + FRACTION_OF_STATURE.hand) * statureMm
    const gaugeInRange =
      !bikeType.forearmGaugeValid ||
      !barSlide ||
      seatsTried.some(({ nose, rows }) => rows.some((row) => gaugeFits(row.forward, nose.xMm + fingertipMm)))
    return {
      seatHeight: good.length > 0,
      seatSlide: good.length === 0 || both.length > 0,
      barHeight: barInRange,
      barSlide: gaugeInRange || !barInRange,
    }
  }
  return (bodies) => {
    const legs = prepareLegs(bodies, DEFAULT_SOLE_MM, bikeType, bottomDeg)
    return Array.from(bodies.statureMm, (statureMm, i) => fitsRider(legs, i, statureMm))
  }
}

/** Whether a slide, its grips from rear to front, has a mark whose gap to the fingertips lies in the window. */
function gaugeFits(grips: readonly Readonly<{ xMm: number }>[], fingertipsXMm: number): boolean {
  const [least, most] = FOREARM_GAP_WINDOW_MM
  const first = grips[firstIndex(grips, ({ xMm }) => xMm - fingertipsXMm >= least)]
  return first !== undefined && first.xMm - fingertipsXMm <= most
}

/** The first index, not below `from`, where the test is true, by bisection; the length if it is true nowhere. */
function firstIndex<T>(all: readonly T[], predicate: (one: T) => boolean, from = 0): number {
  let [low, high] = [from, all.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (predicate(all[middle])) high = middle
    else low = middle + 1
  }
  return low
}

/** What stops riders: at which end of the statures, on which axis, and for how many at the worst. */
export type AccommodationLimit = Readonly<{
  end: 'short' | 'tall'
  axis: AxisName
  statureMm: number
  withoutShare: number
}>

/** A rider in five without a mark is worth saying. */
const WORTH_SAYING = 0.2

/**
 * The limits of a type worth saying aloud: per axis and end of the statures, the stature where at least one in five
 * finds no mark, with the share that finds none there.
 */
export function accommodationLimits(fits: readonly Omit<AccommodationAtStature, 'riders'>[]): AccommodationLimit[] {
  const middle = Math.floor(fits.length / 2)
  const limits: AccommodationLimit[] = []
  for (const axis of AXES) {
    const without = (fit: (typeof fits)[number]) => 1 - (fit.axes[axis] ?? 1)
    const short = fits.slice(0, middle).findLast((fit) => without(fit) >= WORTH_SAYING)
    const tall = fits.slice(middle).find((fit) => without(fit) >= WORTH_SAYING)
    if (short) limits.push({ end: 'short', axis, statureMm: short.statureMm, withoutShare: without(short) })
    if (tall) limits.push({ end: 'tall', axis, statureMm: tall.statureMm, withoutShare: without(tall) })
  }
  return limits
}
