/** One rider to be made ready: how long it takes, and from when it can begin; minutes. */
export type Job = Readonly<{ rider: string; bike: string; minutes: number; fromMin: number }>

export type Slot = Readonly<{ rider: string; bike: string; hand: number; fromMin: number; toMin: number }>

/** A schedule with its objective: first the number of late riders, then their total delay, minutes. */
export type Schedule = Readonly<{ slots: readonly Slot[]; late: number; lateMin: number }>

export type Deadline = Readonly<{ hands: number; startMin: number }>

/**
 * The schedule of set-ups: the most riders ready at the start, then the least total delay. List scheduling on parallel
 * machines (the earliest free instructor takes the next rider); local search improves a few initial lists by moving
 * single riders. For one instructor the first list has the optimal number already: Moore's algorithm on reversed time
 * (Moore 1968, from memory). Non-delay: no instructor waits for a later rider while another is there.
 */
export function scheduleJobs(jobs: readonly Job[], deadline: Deadline): Schedule {
  const firsts = [
    mooreBackwards(jobs, deadline),
    [...jobs].sort((a, b) => a.fromMin - b.fromMin || a.minutes - b.minutes),
    [...jobs].sort((a, b) => a.minutes - b.minutes || a.fromMin - b.fromMin),
  ]
  return firsts.map((list) => localSearch(list, deadline, MAX_MOVES)).reduce((a, b) => (isBetter(b, a) ? b : a))
}

/** A list worked off in its order: each rider by the hand that is free first. */
export function listSchedule(list: readonly Job[], { hands, startMin }: Deadline): Schedule {
  const freeAt = new Float64Array(hands).fill(-Infinity)
  const slots = list.map(({ rider, bike, minutes, fromMin }) => {
    const hand = earliestFree(freeAt)
    const from = Math.max(fromMin, freeAt[hand])
    freeAt[hand] = from + minutes
    return { rider, bike, hand, fromMin: from, toMin: from + minutes }
  })
  return { slots, ...latenessOf(list, { hands, startMin }) }
}

function earliestFree(freeAt: Float64Array): number {
  let hand = 0
  for (let h = 1; h < freeAt.length; h++) if (freeAt[h] < freeAt[hand]) hand = h
  return hand
}

type Lateness = Pick<Schedule, 'late' | 'lateMin'>

/** Of a list worked off, without its slots. */
function latenessOf(list: readonly Job[], { hands, startMin }: Deadline): Lateness {
  const freeAt = new Float64Array(hands).fill(-Infinity)
  let [late, lateMin] = [0, 0]
  for (const { minutes, fromMin } of list) {
    const hand = earliestFree(freeAt)
    const toMin = Math.max(fromMin, freeAt[hand]) + minutes
    freeAt[hand] = toMin
    if (toMin <= startMin + ROUNDING_MIN) continue
    late += 1
    lateMin += toMin - startMin
  }
  return { late, lateMin }
}
/** Sums of minutes that differ by less are the same. */
const ROUNDING_MIN = 1e-9

const isBetter = (a: Lateness, b: Lateness): boolean =>
  a.late < b.late || (a.late === b.late && a.lateMin < b.lateMin - ROUNDING_MIN)

/** Riders on time by Moore's rule on the clock turned round, in their order of coming, then the others. */
function mooreBackwards(jobs: readonly Job[], { hands, startMin }: Deadline): Job[] {
  const byDue = [...jobs].sort((a, b) => b.fromMin - a.fromMin || a.minutes - b.minutes)
  const sequence: Job[] = []
  const dropped: Job[] = []
  const isOnTime = (list: readonly Job[]): boolean => {
    const loads = new Array<number>(hands).fill(0)
    return list.every(({ minutes, fromMin }) => {
      const hand = loads.indexOf(Math.min(...loads))
      loads[hand] += minutes
      return loads[hand] <= startMin - fromMin + ROUNDING_MIN
    })
  }
  for (const job of byDue) {
    sequence.push(job)
    if (isOnTime(sequence)) continue
    const longest = sequence.reduce((a, b) => (b.minutes > a.minutes ? b : a))
    sequence.splice(sequence.indexOf(longest), 1)
    dropped.push(longest)
  }
  return [...sequence.reverse(), ...dropped.sort((a, b) => a.minutes - b.minutes)]
}

/** Single riders moved to another place of the list as long as that helps, and no more than so many moves looked at. */
function localSearch(first: readonly Job[], deadline: Deadline, most: number): Schedule {
  let list = [...first]
  let best = latenessOf(list, deadline)
  for (let moves = 0; moves < most && best.late > 0;) {
    let found = false
    for (let from = 0; from < list.length; from++)
      for (let to = 0; to < list.length && moves < most; to++) {
        if (to === from) continue
        moves += 1
        const moved = list.toSpliced(from, 1).toSpliced(to, 0, list[from])
        const lateness = latenessOf(moved, deadline)
        if (!isBetter(lateness, best)) continue
        ;[list, best, found] = [moved, lateness, true]
      }
    if (!found) break
  }
  return listSchedule(list, deadline)
}
/** A dozen times through forty riders; of a hundred riders some three times. */
const MAX_MOVES = 20_000
/** For each minute somebody might come at. */
const MAX_MOVES_AGAIN = 1500
/** Maximum number of late riders who get a time to come. */
const MAX_CANDIDATES = 20

/** Somebody who comes at `fromMin` and is not ready by the start, and the latest coming at which one more would be. */
export type Late = Readonly<{ rider: string; fromMin: number; toMin: number; comeByMin: number | null }>

/**
 * The late ones of a schedule: of each the latest minute to come by, not before the doors open, at which one more is
 * ready by the start; null where coming earlier alone does not help.
 */
export function tardyJobs(jobs: readonly Job[], schedule: Schedule, deadline: Deadline, doorsMin: number): Late[] {
  return schedule.slots
    .filter(({ toMin }) => toMin > deadline.startMin + ROUNDING_MIN)
    .map(({ rider, toMin }, i) => {
      const job = jobs.find((one) => one.rider === rider)!
      const comeByMin = i < MAX_CANDIDATES ? comeBy(job, jobs, schedule, deadline, doorsMin) : null
      return { rider, fromMin: job.fromMin, toMin, comeByMin }
    })
}

function comeBy(
  job: Job,
  jobs: readonly Job[],
  schedule: Schedule,
  deadline: Deadline,
  doorsMin: number,
): number | null {
  // From the schedule as it is: first this rider at every place of its list, then others as well.
  const list = schedule.slots.map((slot) => jobs.find((one) => one.rider === slot.rider)!)
  const others = list.filter((one) => one !== job)
  const helps = (fromMin: number) => {
    const earlier = { ...job, fromMin }
    const lists = list.map((_, at) => others.toSpliced(at, 0, earlier))
    const best = lists.reduce((a, b) => (isBetter(latenessOf(b, deadline), latenessOf(a, deadline)) ? b : a))
    const isFewer = ({ late }: Lateness) => late < schedule.late
    return isFewer(latenessOf(best, deadline)) || isFewer(localSearch(best, deadline, MAX_MOVES_AGAIN))
  }
  const last = Math.floor(job.fromMin)
  if (last <= doorsMin || !helps(doorsMin)) return null
  let [low, high] = [Math.ceil(doorsMin), last]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if (helps(middle)) low = middle
    else high = middle - 1
  }
  return low
}
