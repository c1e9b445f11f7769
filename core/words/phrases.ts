import type { AxisName, Label } from '../conventions'

/** Names as spoken at the bike. */
export const AXIS_NAME: Readonly<Record<AxisName, string>> = Object.freeze({
  seatHeight: 'seat height',
  seatSlide: 'seat slide',
  barHeight: 'bar height',
  barSlide: 'bar slide',
})

export const degreesSaid = (deg: number): string => `${Math.round(deg)}°`

/** A chance as a count of riders, never "0" or "100": `inHundred(0.663)` → "66 in 100". */
export const inHundred = (chance: number): string => {
  if (chance < 0.005) return 'under 1 in 100'
  return chance > 0.995 ? 'over 99 in 100' : `${Math.round(100 * chance)} in 100`
}

/** A length: centimetres from 2 cm on, millimetres below. `lengthSaid(34)` → "3.4 cm". */
export const lengthSaid = (mm: number): string => {
  const size = Math.abs(mm)
  return size < 19.5 ? `${Math.round(size)} mm` : `${Number((size / 10).toFixed(1))} cm`
}

/** "a", "a and b", "a, b and c". */
export function listed(items: readonly string[]): string {
  if (items.length < 2) return items[0] ?? ''
  return `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`
}

/** "the nearest is 12" or "the nearest are 11 and 12". */
export const nearestSaid = (labels: readonly Label[]): string =>
  labels.length === 1 ? `the nearest is ${labels[0]}` : `the nearest are ${listed(labels)}`
