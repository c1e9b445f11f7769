import { USUAL_MINUTES, type Need } from './room'

/** How long a finished set-up took, from when it was begun to its saving. */
export type Duration = Readonly<{ need: Exclude<Need, 'none'>; minutes: number }>

/** Usual minutes weigh as much as so many set-ups of the studio's own; ours. */
const WEIGHT = 4
/** The duration of a set-up left open over a class does not measure a hand's speed. */
const MAX_MINUTES = 30
const MIN_MINUTES = 0.3

/**
 * Minutes each kind takes here: the middle of the studio's own set-ups, shrunk toward the usual while they are few.
 * Left open over lunch or saved in seconds, one does not count.
 */
export function learnedMinutes(durations: readonly Duration[]): Readonly<Record<Exclude<Need, 'none'>, number>> {
  const of = (need: Exclude<Need, 'none'>): number => {
    const own = durations
      .filter((one) => one.need === need && one.minutes >= MIN_MINUTES && one.minutes <= MAX_MINUTES)
      .map(({ minutes }) => minutes)
      .sort((a, b) => a - b)
    if (own.length === 0) return USUAL_MINUTES[need]
    const middle = (own[(own.length - 1) >> 1] + own[own.length >> 1]) / 2
    const shrunk = (own.length * middle + WEIGHT * USUAL_MINUTES[need]) / (own.length + WEIGHT)
    return Math.round(10 * shrunk) / 10
  }
  return { new: of('new'), translate: of('translate'), recheck: of('recheck') }
}
