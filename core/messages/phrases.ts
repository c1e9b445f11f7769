import type { AxisName, Label } from '../conventions'
import { KINDS, type EvidenceKind } from '../evidence/registry'
import type { EvidenceLevel } from '../evidence/evidenceLevel'
import { formatBikeLength, type UnitSystem } from '../units/length'

/** Names as spoken at the bike. */
export const AXIS_NAME: Readonly<Record<AxisName, string>> = Object.freeze({
  seatHeight: 'seat height',
  seatSlide: 'seat slide',
  barHeight: 'bar height',
  barSlide: 'bar slide',
})

/** Headings of the four parts. */
export const AXIS_TITLE: Readonly<Record<AxisName, string>> = Object.freeze({
  seatHeight: 'Seat height',
  seatSlide: 'Seat slide',
  barHeight: 'Bar height',
  barSlide: 'Bar slide',
})

export const formatDegrees = (deg: number): string => `${Math.round(deg)}°`

/** A chance as a count of riders, never "0" or "100": `formatNaturalFrequency(0.663)` → "66 in 100". */
export const formatNaturalFrequency = (chance: number): string => {
  if (chance < 0.005) return 'under 1 in 100'
  return chance > 0.995 ? 'over 99 in 100' : `${Math.round(100 * chance)} in 100`
}

/**
 * A length: centimetres from 2 cm on, millimetres below, or inches. `formatLength(34)` → "3.4 cm"; `formatLength(34,
 * 'imperial')` → "1 5/16″".
 */
export const formatLength = (mm: number, shown: UnitSystem = 'metric'): string => {
  const size = Math.abs(mm)
  if (shown === 'imperial') return formatBikeLength(size, 'imperial')
  return size < 19.5 ? `${Math.round(size)} mm` : `${Number((size / 10).toFixed(1))} cm`
}

/**
 * A length to the nearest centimetre or half inch, and null when that is none: `formatRoughLength(34, 'metric')` → "3
 * cm".
 */
export const formatRoughLength = (mm: number, shown: UnitSystem): string | null => {
  const [unit, word] = shown === 'imperial' ? [12.7, '″'] : [10, ' cm']
  const count = Math.round(Math.abs(mm) / unit)
  if (count === 0) return null
  return shown === 'imperial' ? `${Math.floor(count / 2) || ''}${count % 2 ? '½' : ''}${word}` : `${count}${word}`
}

/** A sentence's first letter made large. */
export const capitalized = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' })

/** "a", "a and b", "a, b and c". */
export const formatList = (items: readonly string[]): string => LIST.format(items)

/** "the nearest is 12" or "the nearest are 11 and 12". */
export const formatNearestLabels = (labels: readonly Label[]): string =>
  labels.length === 1 ? `the nearest is ${labels[0]}` : `the nearest are ${formatList(labels)}`

/** What was seen or done, by name; a row of another version of this product may be of a kind this one does not know. */
export const evidenceName = (kind: EvidenceKind): string => KINDS[kind]?.name ?? 'something seen'

/** How sure numbers are, in a few words. */
export const EVIDENCE_LEVEL_TEXT: Readonly<Record<EvidenceLevel, string>> = {
  told: 'as told, not looked at',
  landmark: 'by landmark only',
  checked: 'checked on the bike by eye',
  measured: 'measured on the bike',
}

/** "3 weeks ago"; today and yesterday as such. */
export function formatAgo(days: number): string {
  if (days < 1) return 'today'
  const [count, unit] =
    days < 14
      ? [Math.floor(days), 'day']
      : days < 61
        ? [Math.round(days / 7), 'week']
        : days < 730
          ? [Math.round(days / 30.4), 'month']
          : [Math.round(days / 365), 'year']
  return `${count} ${unit}${count === 1 ? '' : 's'} ago`
}
