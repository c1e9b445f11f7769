import type { Point } from './conventions'

/**
 * The one home of fragile arithmetic: rounding error is clamped here and nowhere else.
 * What is truly out of reach comes back as a value with what is missing, never as 0 or NaN.
 */

/** Rounding error allowed in a cosine or a squared length, relative. */
const EPSILON = 1e-9

export const radians = (deg: number): number => (deg * Math.PI) / 180
export const degrees = (rad: number): number => (rad * 180) / Math.PI

/** Unit vector at an angle anticlockwise from +x. `direction(90)` → straight up. */
export function unitVector(deg: number): { x: number; y: number } {
  return { x: Math.cos(radians(deg)), y: Math.sin(radians(deg)) }
}

/** `point` moved by a vector of millimetres. */
export function offsetPoint(point: Point, xMm: number, yMm: number): Point {
  return { xMm: point.xMm + xMm, yMm: point.yMm + yMm }
}

/** Straight distance in mm. */
export function distanceMm(a: Point, b: Point): number {
  return Math.hypot(b.xMm - a.xMm, b.yMm - a.yMm)
}

/** acos in degrees of a cosine that may lie a rounding error outside −1…1. */
export function acosDeg(cosine: number): number {
  return degrees(Math.acos(Math.min(1, Math.max(-1, cosine))))
}

/** Angle at `at` between the directions to `a` and `b`, 0…180°. Example: a right angle → 90. */
export function angleAtDeg(a: Point, at: Point, b: Point): number {
  const ux = a.xMm - at.xMm
  const uy = a.yMm - at.yMm
  const vx = b.xMm - at.xMm
  const vy = b.yMm - at.yMm
  const angle = Math.abs(degrees(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)))
  return angle > 180 ? 360 - angle : angle
}

/** Third side of a triangle whose sides `a` and `b` meet at a joint flexed by `flexionDeg` (0 = in one line). */
export function spanMm(aMm: number, bMm: number, flexionDeg: number): number {
  return Math.sqrt(Math.max(0, aMm * aMm + bMm * bMm + 2 * aMm * bMm * Math.cos(radians(flexionDeg))))
}

export type CircleIntersection =
  Readonly<{ outcome: 'met'; point: Point }> | Readonly<{ outcome: 'unreachable'; missingMm: number }>

/**
 * Where two links meet: of the two points at `fromMm` from `from` and `toMm` from `to`, the more forward or the upper
 * one. Unreachable when the links are too short together, or one too long for the other; `missingMm` is by how much.
 */
export function intersectCircles(
  from: Point,
  fromMm: number,
  to: Point,
  toMm: number,
  which: 'forward' | 'upper',
): CircleIntersection {
  const gap = distanceMm(from, to)
  const slack = EPSILON * (fromMm + toMm)
  const missingMm = Math.max(gap - (fromMm + toMm), Math.abs(fromMm - toMm) - gap)
  if (missingMm > slack || gap <= slack) return { outcome: 'unreachable', missingMm: Math.max(missingMm, 0) }
  const along = (gap * gap + fromMm * fromMm - toMm * toMm) / (2 * gap)
  const ux = (to.xMm - from.xMm) / gap
  const uy = (to.yMm - from.yMm) / gap
  const leftIsIt = which === 'forward' ? -uy >= 0 : ux >= 0
  const across = (leftIsIt ? 1 : -1) * Math.sqrt(Math.max(0, fromMm * fromMm - along * along))
  return { outcome: 'met', point: offsetPoint(from, along * ux - across * uy, along * uy + across * ux) }
}
