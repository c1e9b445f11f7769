import type { Axis, Bike, BikeType } from '../../bikes/bike/bike'
import type { AxisName, Point } from '../../base/conventions'
import { offsetPoint, unitVector } from '../../base/geometry'
import { nearestPosition, positionsOf, type ScalePosition } from '../../bikes/scale/scale'

/** The target of one axis and its reachable position, mm along it. */
export type AxisSolution = Readonly<{
  axis: AxisName
  wantedMm: number
  /** Within the scale. */
  reachedMm: number
  nearest: ScalePosition
  /** Beyond the scale's end by this much, mm; 0 within it, half a step of grace included. */
  missingMm: number
}>

/** The two axes that move one contact point, the first the upright one; the second may be missing. */
export type AxisPair = Readonly<{
  names: readonly [AxisName, AxisName]
  upright: Axis
  level?: Axis
  /** Where the contact point is with both at 0 mm, the machine's own offsets included. */
  origin: Point
}>

export function axisPairOf(bikeType: BikeType, bike: Bike | undefined, part: 'seat' | 'grip'): AxisPair {
  const names = part === 'seat' ? (['seatHeight', 'seatSlide'] as const) : (['barHeight', 'barSlide'] as const)
  const [upright, level] = [bikeType.axes[names[0]]!, bikeType.axes[names[1]]]
  const origin = names.reduce(
    (point, name) => {
      const axis = bikeType.axes[name]
      const u = axis && unitVector(axis.directionDeg)
      const mm = bike?.offsetsMm?.[name] ?? 0
      return u ? offsetPoint(point, u.x * mm, u.y * mm) : point
    },
    part === 'seat' ? bikeType.seatOrigin : bikeType.gripOrigin,
  )
  return { names, upright, ...(level && { level }), origin }
}

/** The contact point with both axes at so many mm. */
export function pointAt({ upright, level, origin }: AxisPair, uprightMm: number, levelMm: number): Point {
  const [u, v] = [unitVector(upright.directionDeg), level ? unitVector(level.directionDeg) : { x: 0, y: 0 }]
  return offsetPoint(origin, u.x * uprightMm + v.x * levelMm, u.y * uprightMm + v.y * levelMm)
}

/**
 * Positions of both axes that put the contact point at `wantedMm(xMm)`, its height as a function of the horizontal
 * position. Solved together, since a leaning post moves both coordinates. Where one axis ends, the other is optimized
 * alone. Without a horizontal axis only the height is matched.
 */
export function solvePair(pair: AxisPair, xMm: number, heightAt: (xMm: number) => number): readonly AxisSolution[] {
  const { names, upright, level } = pair
  if (!level) {
    // A few fixed-point rounds: the target height depends weakly on the horizontal position.
    let uprightMm = 0
    for (let round = 0; round < 20; round++)
      uprightMm += (heightAt(pointAt(pair, uprightMm, 0).xMm) - pointAt(pair, uprightMm, 0).yMm) / slopeOf(upright)
    return [solution(names[0], upright, uprightMm)]
  }
  const [free, freeLevel] = solveBoth(pair, { xMm, yMm: heightAt(xMm) })
  const up = solution(names[0], upright, free)
  if (up.missingMm > 0) {
    // The post has ended: the slide matches the horizontal position.
    const v = unitVector(level.directionDeg)
    const along = solution(names[1], level, (xMm - pointAt(pair, up.reachedMm, 0).xMm) / awayFromZero(v.x))
    return [up, along]
  }
  const along = solution(names[1], level, freeLevel)
  if (along.missingMm === 0) return [up, along]
  // The slide has ended: the post matches the height there.
  let uprightMm = free
  for (let round = 0; round < 20; round++) {
    const at = pointAt(pair, uprightMm, along.reachedMm)
    uprightMm += (heightAt(at.xMm) - at.yMm) / slopeOf(upright)
  }
  return [solution(names[0], upright, uprightMm), along]
}

/**
 * The same with the level axis solved once more for the mark that the upright one takes: what its rounding moves along
 * a post that leans is made up for. Unchanged where an axis is missing or has ended.
 */
export function slideAtMark(pair: AxisPair, solved: readonly AxisSolution[], xMm: number): readonly AxisSolution[] {
  const [up, along] = solved
  if (!pair.level || !along || up.missingMm > 0 || along.missingMm > 0) return solved
  const v = unitVector(pair.level.directionDeg)
  const wantedMm = (xMm - pointAt(pair, up.nearest.mm, 0).xMm) / awayFromZero(v.x)
  return [up, solution(pair.names[1], pair.level, wantedMm)]
}

const slopeOf = (axis: Axis): number => awayFromZero(unitVector(axis.directionDeg).y)

/** An axis that hardly moves a part the way it is meant to leads far beyond its scale, never to no number. */
const awayFromZero = (share: number): number => (Math.abs(share) < 1e-3 ? Math.sign(share || 1) * 1e-3 : share)

function solveBoth({ upright, level, origin }: AxisPair, to: Point): readonly [number, number] {
  const [u, v] = [unitVector(upright.directionDeg), unitVector(level!.directionDeg)]
  const [dx, dy] = [to.xMm - origin.xMm, to.yMm - origin.yMm]
  const determinant = awayFromZero(u.x * v.y - u.y * v.x)
  return [(dx * v.y - dy * v.x) / determinant, (u.x * dy - u.y * dx) / determinant]
}

function solution(axis: AxisName, { scale }: Axis, targetMm: number): AxisSolution {
  const all = positionsOf(scale).map(({ mm }) => mm)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const grace = all.length > 1 ? (high - low) / (all.length - 1) / 2 : 0
  const beyond = Math.max(low - targetMm, targetMm - high, 0)
  return {
    axis,
    wantedMm: targetMm,
    reachedMm: Math.min(high, Math.max(low, targetMm)),
    nearest: nearestPosition(scale, targetMm),
    missingMm: beyond > grace + 1e-9 ? beyond : 0,
  }
}
