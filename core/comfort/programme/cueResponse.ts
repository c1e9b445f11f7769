import { shareDifference, type Count } from '../../classes/watch/proportions'

/** A cue given for a sign in a class; `held` null where nobody looked a second time. */
export type CueLook = Readonly<{ classId: string; at: Date; held: boolean | null }>

/** Classes before the start of a programme that are compared with those since. Assumption: half a year. */
export const COMPARED_MS = 182 * 86_400_000
/** Fewer classes than this on a side are never called a change, whatever the interval says. Assumption. */
export const MIN_CLASSES = 3

/**
 * How often a cue held, before and since a moment, counted in classes; the difference (since minus before) with its
 * 95 % interval. `unclear`: the interval includes no change, or a side has too few classes. Null where a side has no
 * class with a second look.
 */
export type CueResponse = Readonly<{
  before: Count
  since: Count
  change: Readonly<{
    difference: number
    low: number
    high: number
    verdict: 'moreOften' | 'lessOften' | 'unclear'
  }> | null
}>

/**
 * Whether the cue for a sign holds more often since a moment. One class is one observation, with its last second look:
 * looks within a class depend on each other. Interval: Newcombe 1998, as in `shareDifference`.
 */
export function cueResponse(looks: readonly CueLook[], start: Date): CueResponse {
  const from = start.getTime() - COMPARED_MS
  const ofClass = new Map<string, { at: number; held: boolean }>()
  for (const { classId, at, held } of looks.toSorted((a, b) => a.at.getTime() - b.at.getTime()))
    if (held !== null && at.getTime() >= from) ofClass.set(classId, { at: at.getTime(), held })
  const count = (isCounted: (at: number) => boolean): Count => {
    const counted = [...ofClass.values()].filter(({ at }) => isCounted(at))
    return { changed: counted.filter(({ held }) => held).length, of: counted.length }
  }
  const [before, since] = [count((at) => at < start.getTime()), count((at) => at >= start.getTime())]
  if (before.of === 0 || since.of === 0) return { before, since, change: null }
  const { difference, low, high } = shareDifference(since, before)
  const isEnough = Math.min(before.of, since.of) >= MIN_CLASSES
  const verdict = isEnough && low > 0 ? 'moreOften' : isEnough && high < 0 ? 'lessOften' : 'unclear'
  return { before, since, change: { difference, low, high, verdict } }
}
