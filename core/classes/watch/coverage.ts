/** A bike with a rider, its place, and when it was last looked at; null: not yet in this class. */
export type WatchedBike = Readonly<{
  id: string
  xM: number
  yM: number
  lookedAtMs: number | null
  /** A rider to be looked at sooner: new, with reported numbers, on trial, or left to the warm-up. */
  watchFor: boolean
}>

/** Factor of the age of riders to be looked at sooner. Assumption. */
const WATCH_FOR = 2
/** A metre of way weighs as much as this many minutes of not having been looked at; ours. */
const MINUTES_A_METRE = 0.35

/** Minutes since a rider was looked at, from the start of the class for a first look; never below 0. */
export const minutesSince = ({ lookedAtMs }: Pick<WatchedBike, 'lookedAtMs'>, startMs: number, nowMs: number): number =>
  Math.max(0, (nowMs - Math.max(startMs, lookedAtMs ?? startMs)) / 60_000)

/**
 * The next bikes to look at, in the order of a way round the room: longest without a look first, nearer ones
 * before farther ones, beginning where the last look was (`from`; null: no way counts for the first).
 */
export function nextToLook(
  bikes: readonly WatchedBike[],
  {
    startMs,
    nowMs,
    from,
    count = 3,
  }: Readonly<{ startMs: number; nowMs: number; from: string | null; count?: number }>,
): string[] {
  let at: Pick<WatchedBike, 'xM' | 'yM'> | undefined = bikes.find(({ id }) => id === from)
  const left = bikes.filter(({ id }) => id !== from)
  const way: string[] = []
  while (way.length < count && left.length > 0) {
    const worth = (bike: WatchedBike) => {
      const overdue =
        (minutesSince(bike, startMs, nowMs) + (bike.lookedAtMs === null ? 1 : 0)) * (bike.watchFor ? WATCH_FOR : 1)
      return overdue - (at ? MINUTES_A_METRE * Math.hypot(bike.xM - at.xM, bike.yM - at.yM) : 0)
    }
    const next = left.reduce((best, bike) => (worth(bike) > worth(best) ? bike : best))
    left.splice(left.indexOf(next), 1)
    way.push(next.id)
    at = next
  }
  return way
}

/** How many were looked at in this class, and how long the longest of all went without. */
export function coverage(
  bikes: readonly WatchedBike[],
  { startMs, nowMs }: Readonly<{ startMs: number; nowMs: number }>,
): Readonly<{ looked: number; of: number; longestMin: number }> {
  return {
    looked: bikes.filter(({ lookedAtMs }) => lookedAtMs !== null).length,
    of: bikes.length,
    longestMin: bikes.reduce((longest, bike) => Math.max(longest, minutesSince(bike, startMs, nowMs)), 0),
  }
}
