import { axesOf, axisOf, type BikeType } from '../../bikes/bike/bike'
import type { AxisName, Label, Marks } from '../../base/conventions'
import { positionsOf, type Scale } from '../../bikes/scale/scale'
import type { UnitSystem } from '../../base/length'
import { formatLength } from './phrases'

/** A label as people write it: "6.5" → "6½", "-2" → "−2", and a plus on rulers that have a zero line. */
export function formatLabel(bikeType: BikeType, axis: AxisName, label: Label): string {
  const scale = axisOf(bikeType, axis)?.scale
  if (!scale) return label
  if ('ruler' in scale) {
    const signed = scale.ruler.min < 0 && scale.ruler.max > 0
    const minus = label.replace('-', '−')
    return signed && Number(label) > 0 ? `+${minus}` : minus
  }
  return label.replace(/\.5$/, '½')
}

/**
 * The distance between two marks in everyday words: "one mark", "half a mark", "two and a half marks"; on a ruler, or
 * where a label is none of the scale's, the length.
 */
export function formatSteps(scale: Scale, from: Label, to: Label, mm: number, shown: UnitSystem): string {
  if ('ruler' in scale) return formatLength(mm, shown)
  const positions = positionsOf(scale)
  const index = (label: Label) => positions.findIndex((one) => one.label === label)
  if (index(from) < 0 || index(to) < 0) return formatLength(mm, shown)
  const halves = Math.abs(index(to) - index(from)) * (scale.halfMarks ? 1 : 2)
  const whole = Math.floor(halves / 2)
  if (halves === 1) return 'half a mark'
  const count = ['no', 'one', 'two', 'three', 'four', 'five', 'six'][whole] ?? String(whole)
  if (halves % 2 === 1) return `${count} and a half marks`
  return whole === 1 ? 'one mark' : `${count} marks`
}

/** The four numbers in one line, "7 · C · 5 · 2". */
export function formatMarks(bikeType: BikeType, marks: Marks): string {
  return axesOf(bikeType)
    .map((axis) => (marks[axis] === undefined ? '–' : formatLabel(bikeType, axis, marks[axis])))
    .join(' · ')
}

/** The marks to try alone, in their order and without a gap but for `here`: "may try 6, 8", or "may try 4 to 9". */
export function formatTryAlone(bikeType: BikeType, axis: AxisName, alone: readonly Label[], here?: Label): string {
  const shown = (label: Label) => formatLabel(bikeType, axis, label)
  if (alone.length <= MAX_LISTED || here === undefined) return `may try ${alone.map(shown).join(', ')}`
  return `may try ${shown(alone[0])} to ${shown(alone[alone.length - 1])}`
}
/** More marks than this are listed by their ends. */
const MAX_LISTED = 2
