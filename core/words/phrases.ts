import type { AxisName, Label } from '../conventions'
import type { EvidenceKind } from '../evidence/evidence'
import { bikeLengthSaid, type LengthShown } from '../units/length'

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

/** A length: centimetres from 2 cm on, millimetres below, or inches. `lengthSaid(34)` → "3.4 cm"; `lengthSaid(34, 'feet')` → "1 5/16″". */
export const lengthSaid = (mm: number, shown: LengthShown = 'metric'): string => {
  const size = Math.abs(mm)
  if (shown === 'feet') return bikeLengthSaid(size, 'feet')
  return size < 19.5 ? `${Math.round(size)} mm` : `${Number((size / 10).toFixed(1))} cm`
}

/** A length to the nearest centimetre or half inch, and null when that is none: `roughlySaid(34, 'metric')` → "3 cm". */
export const roughlySaid = (mm: number, shown: LengthShown): string | null => {
  const [unit, word] = shown === 'feet' ? [12.7, '″'] : [10, ' cm']
  const count = Math.round(Math.abs(mm) / unit)
  if (count === 0) return null
  return shown === 'feet' ? `${Math.floor(count / 2) || ''}${count % 2 ? '½' : ''}${word}` : `${count}${word}`
}

/** A sentence's first letter made large. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** "a", "a and b", "a, b and c". */
export function listed(items: readonly string[]): string {
  if (items.length < 2) return items[0] ?? ''
  return `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`
}

/** "the nearest is 12" or "the nearest are 11 and 12". */
export const nearestSaid = (labels: readonly Label[]): string =>
  labels.length === 1 ? `the nearest is ${labels[0]}` : `the nearest are ${listed(labels)}`

/** What was seen or done, by name. */
export const EVIDENCE_NAME: Readonly<Record<EvidenceKind, string>> = {
  stature: 'stature',
  inseam: 'inseam',
  landmarkHeight: 'landmark height',
  landmarkAtMark: 'landmark beside the bike',
  set: 'setting',
  kneeAngle: 'knee angle',
  kneeByEye: 'knee by eye',
  heelCheck: 'heel check',
  plumb: 'plumb line',
  rider: 'rider’s answers',
}
