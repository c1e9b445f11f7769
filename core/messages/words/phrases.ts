import { AXES, type AxisName } from '../../base/adjustments'
import type { Label } from '../../base/conventions'
import type { BikeType } from '../../bikes/bike/bike'
import type { EvidenceLevel } from '../../riders/evidence/evidenceLevel'
import { formatBikeLength, type UnitSystem } from '../../base/length'
import { ADJUSTMENT_WORDS, type AdjustmentWords } from './adjustments'

/** Names as spoken at the bike. */
export const AXIS_NAME = Object.freeze(mapAxes(({ name }) => name))
/** Headings of the parts. */
export const AXIS_TITLE = Object.freeze(mapAxes(({ name }) => capitalized(name)))

function mapAxes(of: (words: AdjustmentWords) => string): Record<AxisName, string> {
  return Object.fromEntries(AXES.map((axis) => [axis, of(ADJUSTMENT_WORDS[axis])])) as Record<AxisName, string>
}

/** Heading of a part as printed on this type, else its common one: "Seat height". */
export const axisTitle = ({ axes }: BikeType, axis: AxisName): string => axes[axis]?.name ?? AXIS_TITLE[axis]
/** The same within a sentence: "seat height"; a name as printed stays in its own letters. */
export const axisName = ({ axes }: BikeType, axis: AxisName): string => axes[axis]?.name ?? AXIS_NAME[axis]

export const formatDegrees = (deg: number): string => `${Math.round(deg)}°`

/** A chance as a count of riders, never "0" or "100": `formatNaturalFrequency(0.663)` → "66 in 100". */
export const formatNaturalFrequency = (chance: number): string => {
  if (chance < 0.005) return 'under 1 in 100'
  return chance > 0.995 ? 'over 99 in 100' : `${Math.round(100 * chance)} in 100`
}

/**
 * A length in whole millimetres, or inches: one unit in every sentence. `formatLength(-34)` → "34 mm";
 * `formatLength(34, 'imperial')` → "1 5/16″".
 */
export const formatLength = (mm: number, shown: UnitSystem = 'metric'): string => {
  const size = Math.abs(mm)
  return shown === 'imperial' ? formatBikeLength(size, 'imperial') : `${Math.round(size)} mm`
}

/** A length of parts that differ by half millimetres, as cranks do: `formatHalfMm(2.5)` → "2.5 mm". */
export const formatHalfMm = (mm: number, shown: UnitSystem = 'metric'): string =>
  shown === 'imperial' ? formatLength(mm, shown) : `${Number((Math.round(2 * Math.abs(mm)) / 2).toFixed(1))} mm`

/**
 * A length to the nearest 10 mm or half inch, and null when that is none: `formatRoughLength(34, 'metric')` → "30 mm".
 */
export const formatRoughLength = (mm: number, shown: UnitSystem): string | null => {
  if (shown === 'metric') {
    const tens = Math.round(Math.abs(mm) / 10)
    return tens === 0 ? null : `${10 * tens} mm`
  }
  const count = Math.round(Math.abs(mm) / 12.7)
  return count === 0 ? null : `${Math.floor(count / 2) || ''}${count % 2 ? '½' : ''}″`
}

/**
 * Degrees of a reading beside its window: whole, and with a decimal where rounding would carry it over the window's
 * edge. `formatDegreesBeside(24.9, [25, 35])` → "24.9°".
 */
export function formatDegreesBeside(deg: number, window: readonly [number, number]): string {
  const isInside = (value: number) => value >= window[0] && value <= window[1]
  if (isInside(Math.round(deg)) === isInside(deg)) return formatDegrees(deg)
  // Cut off away from the window, so that 24.96 does not read 25.0.
  const cut = deg < window[0] ? Math.floor(10 * deg) / 10 : deg > window[1] ? Math.ceil(10 * deg) / 10 : deg
  return `${cut.toFixed(1)}°`
}

/** A sentence's first letter made large. */
export function capitalized(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** "8 mm ahead of the pedal axle" */
export const formatPlumb = (mm: number, shown: UnitSystem): string =>
  Math.abs(mm) < 1
    ? 'over the pedal axle'
    : `${formatLength(mm, shown)} ${mm > 0 ? 'ahead of' : 'behind'} the pedal axle`

/** "30 mm above the saddle", "level with the saddle". */
export function formatAgainstSaddle(gripAboveSeatMm: number, shown: UnitSystem): string {
  const size = formatRoughLength(gripAboveSeatMm, shown)
  return size === null ? 'level with the saddle' : `${size} ${gripAboveSeatMm > 0 ? 'above' : 'below'} the saddle`
}

/** A phrase as a sentence of its own: a large letter, and a full stop where it has no end. */
export const asSentence = (text: string): string => `${capitalized(text)}${/[.?!]$/.test(text) ? '' : '.'}`

/** The text with a lower-case first letter, for use within a sentence. */
export const lowered = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)

const LIST = new Intl.ListFormat('en-GB', { type: 'conjunction' })

/** "a", "a and b", "a, b and c". */
export const formatList = (items: readonly string[]): string => LIST.format(items)

/** "the nearest is 12" or "the nearest are 11 and 12". */
export const formatNearestLabels = (labels: readonly Label[]): string =>
  labels.length === 1 ? `the nearest is ${labels[0]}` : `the nearest are ${formatList(labels)}`

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
  if (days < 2) return 'yesterday'
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
