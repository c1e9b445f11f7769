import type { BikeType } from '@/core/bike/bike'
import type { AxisName, Marks } from '@/core/conventions'
import { axesOf } from '@/core/bike/bike'
import { labelSaid } from '@/core/words/labels'

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
