import type { BikeType } from '@/core/bike/bike'
import type { AxisName, Label, Marks } from '@/core/conventions'
import { axesOf, axisOf } from '@/core/bike/bike'

/** A label as people write it: "6.5" → "6½", and a plus on rulers that have a zero line. */
export function labelSaid(bikeType: BikeType, axis: AxisName, label: Label): string {
  const scale = axisOf(bikeType, axis)?.scale
  if (!scale) return label
  if ('ruler' in scale) {
    const signed = scale.ruler.min < 0 && scale.ruler.max > 0
    const minus = label.replace('-', '−')
    return signed && Number(label) > 0 ? `+${minus}` : minus
  }
  return label.replace(/\.5$/, '½')
}

/** The four numbers in one line, "7 · C · 5 · 2". */
export function marksLine(bikeType: BikeType, marks: Marks): string {
  return axesOf(bikeType)
    .map((axis) => (marks[axis] === undefined ? '–' : labelSaid(bikeType, axis, marks[axis])))
    .join(' · ')
}

/** Headings of the four parts, as said at the bike. */
export const AXIS_TITLE: Readonly<Record<AxisName, string>> = {
  seatHeight: 'Seat height',
  seatSlide: 'Seat slide',
  barHeight: 'Bar height',
  barSlide: 'Bar slide',
}
