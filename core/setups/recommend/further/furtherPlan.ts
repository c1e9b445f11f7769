import { ADJUSTMENTS, SEAT_AXES, type AxisName } from '../../../base/adjustments'
import type { Marks } from '../../../base/conventions'
import { offsetPoint } from '../../../base/geometry'
import type { BikeType } from '../../../bikes/bike/bike'
import { crankMmAt, furtherAxesOf, otherMarksOf } from '../../../bikes/bike/standing'
import { positionsOf, type ScalePosition } from '../../../bikes/scale/scale'
import { defaultSlide } from '../history/marksHistory'
import type { CrankReason } from '../request/request'
import { candidatePositions, startPosition, type SaddlePosition, type SaddleSearch } from '../saddle/saddleSearch'
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

/** A gain in the chance below this is not worth a further adjustment: the rider feels each of them. */
const MIN_FURTHER_GAIN = 0.05
/** Seats this far around the best one are tried before any further adjustment is, mm. */
const AROUND_MM = [4, 9] as const
/** Of a long scale so many marks are tried, evenly spaced. */
const MOST_MARKS = 9
/** So many adjustments are moved at most: each alone, then a second beside the first. */
const ROUNDS = 2

/**
 * The further adjustments that give the saddle the best chance: they stay where they stand unless another mark of one
 * of them, or of a second one beside it, is better by more than `MIN_FURTHER_GAIN`; of equals the shortest way is
 * taken. Nothing is tried where no seat around the best one would be better. Cranks that bend the knee too far at the
 * top give way to shorter ones first.
 */
export function furtherPlan(inputs: FurtherInputs): FurtherPlan {
  const { bikeType, standing, searchAt, mayChangeCranks } = inputs
  const startAt = (further: Marks): SaddlePosition => {
    const search = searchAt(further)
    return startPosition(search, positionAt(search.bikeType, 'seatSlide', defaultSlide(search.bikeType))!)
  }
  const first = startAt(standing)
  const cranks = mayChangeCranks ? shorterCranks(inputs, first, startAt) : null
  let marks = cranks ? { ...standing, crankLength: cranks.label } : standing
  let chance = bestChance(searchAt(marks))
  const axes = furtherAxesOf(bikeType).filter((axis) => SEAT_AXES.includes(axis))
  for (let round = 0; round < ROUNDS; round++) {
    if (!isImprovable(searchAt(marks), chance)) break
    const better = bestMove(axes, marks, chance, inputs)
    if (!better) break
    marks = better.marks
    chance = better.chance
  }
  const standingChance = cranks ? bestChance(searchAt({ ...standing, crankLength: cranks.label })) : first.chance
  return { marks, chance, standingChance, ...(cranks && { cranks: cranks.reason }) }
}

function bestMove(axes: readonly AxisName[], from: Marks, chance: number, { bikeType, searchAt }: FurtherInputs) {
  const tried = axes.flatMap((axis) =>
    thinned(otherMarksOf(bikeType, axis, from[axis]!)).map(({ label }) => {
      const marks = { ...from, [axis]: label }
      return { marks, axis, chance: bestChance(searchAt(marks)) }
    }),
  )
  const top = Math.max(...tried.map((one) => one.chance))
  if (!(top > chance + MIN_FURTHER_GAIN)) return null
  // They come the nearest first, axis by axis: of equals the first is the least way.
  return tried.find((one) => one.chance >= top - MIN_FURTHER_GAIN / 2)!
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

/** Whether a seat between or beyond the marks would be clearly better. */
function isImprovable(search: SaddleSearch, chance: number): boolean {
  const best = candidatePositions(search).reduce((a, b) => (b.chance > a.chance ? b : a))
  if (best.chance < MIN_FURTHER_GAIN) return true
  return AROUND_MM.some((mm) =>
    [
      [mm, 0],
      [-mm, 0],
      [0, mm],
      [0, -mm],
    ].some(([x, y]) => search.targets.bothChance(offsetPoint(best.seat, x, y)) > chance + MIN_FURTHER_GAIN),
  )
}

/**
 * Beyond this the knee is bent too far at the top of the stroke, and the hip with it, degrees. Common practice, no
 * source: riders of average build come to about 112° on cranks of 170 mm.
 */
const TOP_FLEXION_MOST_DEG = 115

/** The longest cranks shorter than now that keep the knee within bounds at the top; the shortest where none does. */
function shorterCranks(
  { bikeType, standing, topFlexionDeg }: FurtherInputs,
  first: SaddlePosition,
  startAt: (further: Marks) => SaddlePosition,
): Readonly<{ label: string; reason: CrankReason }> | null {
  const { crankLength } = bikeType.axes
  if (!crankLength) return null
  const fromMm = crankMmAt(bikeType, standing)
  const topDeg = topFlexionDeg(first.seat, fromMm)
  if (topDeg <= TOP_FLEXION_MOST_DEG) return null
  const shorter = positionsOf(crankLength.scale)
    .filter(({ mm }) => mm < fromMm)
    .toSorted((a, b) => b.mm - a.mm)
    .map((position) => {
      const seat = startAt({ ...standing, crankLength: position.label }).seat
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
