import type { AxisName } from '@/core/conventions'

/** Headings of the four parts, as said at the bike. */
export const AXIS_TITLE: Readonly<Record<AxisName, string>> = {
  seatHeight: 'Seat height',
  seatSlide: 'Seat slide',
  barHeight: 'Bar height',
  barSlide: 'Bar slide',
}
