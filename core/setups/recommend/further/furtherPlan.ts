import { ADJUSTMENTS, SEAT_AXES, type AxisName } from '../../../base/adjustments'
import type { Marks } from '../../../base/conventions'
import { offsetPoint } from '../../../base/geometry'
import type { BikeType } from '../../../bikes/bike/bike'
import { crankMmAt, furtherAxesOf, otherMarksOf } from '../../../bikes/bike/standing'
import { positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { defaultSlide } from '../history/marksHistory'
import type { CrankReason } from '../request/request'
import {
  candidatePositions,
  heightEnd,
  slideEnd,
  startPosition,
  type SaddlePosition,
  type SaddleSearch,
} from '../saddle/saddleSearch'
import { positionAt } from '../bars/bars'

/** Where the further adjustments should stand, the chance that both checks of the saddle pass then, and now. */
export type FurtherPlan = Readonly<{ marks: Marks; chance: number; standingChance: number; cranks?: CrankReason }>

type FurtherInputs = Readonly<{
  bikeType: BikeType
  /** Where the further adjustments stand, each named. */
  standing: Marks
  /** The saddle's search with the further adjustments at these marks. */
  searchAt: (further: Marks) => SaddleSearch
  /** Expected knee flexion at the top of the stroke on cranks of a length, degrees. */
  topFlexionDeg: (seat: SaddlePosition['seat'], crankMm: number) => number
  /** Whether the cranks may be changed as well: not once something was read. */
  mayChangeCranks: boolean
}>

/**
 * A gain in the chance below this is not worth a further adjustment, since the rider feels each of them; of a chance
 * that is small because little is known yet, a fifth of it is a clear gain.
 */
const minGain = (chance: number): number => Math.min(0.05, Math.max(0.01, chance / 5))
/** Seats this far around the best one are tried before any further adjustment is, mm. */
const AROUND_MM = [4, 9] as const
/** Of a long scale so many marks are tried, evenly spaced. */
const MOST_MARKS = 9
/** So many adjustments are moved at most: each alone, then a second beside the first. */
const ROUNDS = 2

/**
 * The further adjustments that give the saddle the best chance: they stay where they stand unless another mark of one
 * of them, or of a second one beside it, is clearly better; of equals the shortest way is taken. Nothing is tried where
 * no seat around the best one would be better and no scale has ended. Cranks that bend the knee too far at the top even
 * so give way to shorter ones.
 */
export function furtherPlan(inputs: FurtherInputs): FurtherPlan {
  const { standing, mayChangeCranks } = inputs
  const first = startOn(inputs, standing)
  const lifted = bestSeats(inputs, standing)
  const cranks = mayChangeCranks ? shorterCranks(inputs, lifted.marks) : null
  if (!cranks) return { ...lifted, standingChance: first.chance }
  const crankLength = cranks.label
  const standingChance = bestChance(inputs.searchAt({ ...standing, crankLength }))
  return { ...bestSeats(inputs, { ...standing, crankLength }), standingChance, cranks: cranks.reason }
}

/** Where a set-up would start with the further adjustments at these marks. */
function startOn({ searchAt }: FurtherInputs, further: Marks): SaddlePosition {
  const search = searchAt(further)
  return startPosition(search, defaultSlideOf(search))
}

const defaultSlideOf = ({ bikeType }: SaddleSearch): ScalePosition =>
  positionAt(bikeType, 'seatSlide', defaultSlide(bikeType))!

function bestSeats(inputs: FurtherInputs, standing: Marks): Readonly<{ marks: Marks; chance: number }> {
  const { bikeType, searchAt } = inputs
  const axes = furtherAxesOf(bikeType).filter((axis) => SEAT_AXES.includes(axis))
  let best = { marks: standing, chance: bestChance(searchAt(standing)) }
  for (let round = 0; round < ROUNDS; round++) {
    const better = isImprovable(searchAt(best.marks), best.chance) ? bestMove(axes, best, inputs) : null
    if (!better) break
    best = better
  }
  return best
}

function bestMove(
  axes: readonly AxisName[],
  from: Readonly<{ marks: Marks; chance: number }>,
  { bikeType, searchAt }: FurtherInputs,
): Readonly<{ marks: Marks; chance: number }> | null {
  const tried = axes.flatMap((axis) =>
    thinned(otherMarksOf(bikeType, axis, from.marks[axis]!)).map(({ label }) => {
      const marks = { ...from.marks, [axis]: label }
      return { marks, chance: bestChance(searchAt(marks)) }
    }),
  )
  const top = Math.max(...tried.map((one) => one.chance))
  const gain = minGain(from.chance)
  if (!(top > from.chance + gain)) return null
  // They come the nearest first, axis by axis: of equals the first is the least way.
  return tried.find((one) => one.chance >= top - gain / 2)!
}

/** Evenly spaced by their order along the scale, the nearest first as they come. */
function thinned(marks: readonly ScalePosition[]): readonly ScalePosition[] {
  if (marks.length <= MOST_MARKS) return marks
  const along = marks.toSorted((a, b) => a.mm - b.mm)
  const kept = new Set(
    Array.from({ length: MOST_MARKS }, (_, i) => along[Math.round((i * (along.length - 1)) / (MOST_MARKS - 1))]),
  )
  return marks.filter((mark) => kept.has(mark))
}

/** The best chance of any pair of seat height and slide; where there is none, that of the place nearest to one. */
const bestChance = (search: SaddleSearch): number =>
  candidatePositions(search).reduce((top, { chance }) => Math.max(top, chance), 0)

/** Whether a scale has ended, or a seat between or beyond the marks would be clearly better. */
function isImprovable(search: SaddleSearch, chance: number): boolean {
  const best = candidatePositions(search).reduce((a, b) => (b.chance > a.chance ? b : a))
  const current = startPosition(search, defaultSlideOf(search))
  if (heightEnd(search, current) ?? slideEnd(search, current)) return true
  return AROUND_MM.some((mm) =>
    [
      [mm, 0],
      [-mm, 0],
      [0, mm],
      [0, -mm],
    ].some(([x, y]) => search.targets.bothChance(offsetPoint(best.seat, x, y)) > chance + minGain(chance)),
  )
}

/**
 * Beyond this the knee is bent too far at the top of the stroke, and the hip with it, degrees. Common practice, no
 * source: riders of average build come to about 112° on cranks of 170 mm.
 */
const TOP_FLEXION_MOST_DEG = 115

/** The longest cranks shorter than now that keep the knee within bounds at the top; the shortest where none does. */
function shorterCranks(
  inputs: FurtherInputs,
  standing: Marks,
): Readonly<{ label: string; reason: CrankReason }> | null {
  const { bikeType, topFlexionDeg } = inputs
  const { crankLength } = bikeType.axes
  if (!crankLength) return null
  const first = startOn(inputs, standing)
  const fromMm = crankMmAt(bikeType, standing)
  const topDeg = topFlexionDeg(first.seat, fromMm)
  if (topDeg <= TOP_FLEXION_MOST_DEG) return null
  const shorter = positionsOf(crankLength.scale)
    .filter(({ mm }) => mm < fromMm)
    .toSorted((a, b) => b.mm - a.mm)
    .map((position) => {
      const { seat } = startOn(inputs, { ...standing, crankLength: position.label })
      return { ...position, seat, thenDeg: topFlexionDeg(seat, position.mm) }
    })
  const chosen = shorter.find(({ thenDeg }) => thenDeg <= TOP_FLEXION_MOST_DEG) ?? shorter.at(-1)
  if (!chosen) return null
  const seatMm = Math.hypot(chosen.seat.xMm, chosen.seat.yMm) - Math.hypot(first.seat.xMm, first.seat.yMm)
  return {
    label: chosen.label,
    reason: { code: 'shorterCranks', fromMm, toMm: chosen.mm, topDeg, thenDeg: chosen.thenDeg, seatMm },
  }
}

/** The further adjustments that carry the bars alone, which no check of the saddle sees. */
export const barFurtherAxes = (bikeType: BikeType): readonly AxisName[] =>
  furtherAxesOf(bikeType).filter((axis) => ['bars', 'barTurn'].includes(ADJUSTMENTS[axis].carries))
