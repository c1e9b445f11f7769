import { formatDate, formatTime } from '../studio/day'
import type { StudioClass } from './classes'

/** Day and span of a class on the studio's clock: "Thu 26 Nov 2026", "18:00–18:45". */
export const whenOf = (
  { startsAt, endsAt }: StudioClass,
  timeZone: string,
): Readonly<{ day: string; span: string }> => ({
  day: formatDate(startsAt, timeZone),
  span: `${formatTime(startsAt, timeZone)}–${formatTime(endsAt, timeZone)}`,
})
