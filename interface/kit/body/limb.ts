import type { Point } from '@/core/base/conventions'

/** Drawing coordinates: y runs down, one unit is one millimetre. */
export const drawn = ({ xMm, yMm }: Point): string => `${xMm.toFixed(1)} ${(-yMm).toFixed(1)}`

/** A tapered limb with round ends, as an SVG path, in the drawing's frame; widths are diameters, mm. */
export function limbPath(from: Point, to: Point, fromMm: number, toMm: number): string {
  const length = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm) || 1
  const nx = -(to.yMm - from.yMm) / length
  const ny = (to.xMm - from.xMm) / length
  const side = (at: Point, mm: number): Point => ({ xMm: at.xMm + (nx * mm) / 2, yMm: at.yMm + (ny * mm) / 2 })
  const a = fromMm / 2
  const b = toMm / 2
  return (
    `M${drawn(side(from, fromMm))}L${drawn(side(to, toMm))}A${b} ${b} 0 0 1 ` +
    `${drawn(side(to, -toMm))}L${drawn(side(from, -fromMm))}A${a} ${a} 0 0 1 ` +
    `${drawn(side(from, fromMm))}Z`
  )
}

/** The point a share of the way from one to another. */
export const between = (from: Point, to: Point, share: number): Point => ({
  xMm: from.xMm + (to.xMm - from.xMm) * share,
  yMm: from.yMm + (to.yMm - from.yMm) * share,
})
