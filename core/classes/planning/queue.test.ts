import { createRng } from '../../base/rng'
import { tardyJobs, scheduleJobs, listSchedule, type Deadline, type Job, type Schedule } from './queue'

const job = (rider: string, minutes: number, fromMin = 0): Job => ({ rider, bike: rider, minutes, fromMin })
const rest = (list: readonly Job[], i: number) => list.filter((_, k) => k !== i)

/**
 * The exact optimum: every order there is, worked off. In the order of its starts any schedule is such a list, and no
 * hand is free later than in it.
 */
function exhaustive(jobs: readonly Job[], deadline: Deadline): Schedule {
  let best: Schedule | null = null
  const walk = (done: readonly Job[], left: readonly Job[]): void => {
    if (left.length > 0) return left.forEach((one, i) => walk([...done, one], rest(left, i)))
    const found = listSchedule(done, deadline)
    if (!best || found.late < best.late || (found.late === best.late && found.lateMin < best.lateMin)) best = found
  }
  walk([], jobs)
  return best!
}

function randomCase(seed: number): Readonly<{ jobs: Job[]; deadline: Deadline }> {
  const random = createRng(seed)
  const pick = (from: number, to: number) => from + Math.floor(random.uniform() * (to - from + 1))
  const jobs = Array.from({ length: pick(3, 7) }, (_, i) => job(`r${i}`, [1.5, 2, 6][pick(0, 2)], pick(0, 14)))
  return { jobs, deadline: { hands: pick(1, 3), startMin: pick(10, 18) } }
}

test('as many are ready, and the rest as few minutes late, as in the best of all orders: 200 small cases', () => {
  let [ready, readyBest, lateMin, lateBest] = [0, 0, 0, 0]
  for (let seed = 1; seed <= 200; seed++) {
    const { jobs, deadline } = randomCase(seed)
    const [found, best] = [scheduleJobs(jobs, deadline), exhaustive(jobs, deadline)]
    ready += jobs.length - found.late
    readyBest += jobs.length - best.late
    if (found.late !== best.late) continue
    lateMin += found.lateMin
    lateBest += best.lateMin
    expect(found.lateMin).toBeGreaterThanOrEqual(best.lateMin - 1e-9)
  }
  expect(ready).toBeGreaterThanOrEqual(0.995 * readyBest)
  expect(lateMin).toBeLessThanOrEqual(1.05 * lateBest)
})

test('nobody is begun before coming, no hand does two at once, everybody has one slot', () => {
  for (let seed = 300; seed < 340; seed++) {
    const { jobs, deadline } = randomCase(seed)
    const { slots } = scheduleJobs(jobs, deadline)
    expect(slots.map(({ rider }) => rider).sort()).toEqual(jobs.map(({ rider }) => rider).sort())
    for (const slot of slots) {
      const { fromMin, minutes } = jobs.find(({ rider }) => rider === slot.rider)!
      expect(slot.fromMin).toBeGreaterThanOrEqual(fromMin)
      expect(slot.toMin).toBeCloseTo(slot.fromMin + minutes, 9)
      expect(slot.hand).toBeLessThan(deadline.hands)
      const others = slots.filter((other) => other !== slot && other.hand === slot.hand)
      for (const other of others) expect(other.toMin <= slot.fromMin || slot.toMin <= other.fromMin).toBe(true)
    }
  }
})

test('who is late has to come by the latest minute that helps, and nobody where that helps nobody', () => {
  const deadline = { hands: 1, startMin: 20 }
  const jobs = [job('early', 6, 0), job('late', 6, 17)]
  const schedule = scheduleJobs(jobs, deadline)
  expect(tardyJobs(jobs, schedule, deadline, 0)).toEqual([{ rider: 'late', fromMin: 17, toMin: 23, comeByMin: 14 }])
  // Four first set-ups in twenty minutes are one too many, whenever they come.
  const many = ['a', 'b', 'c', 'd'].map((rider) => job(rider, 6))
  const [last, ...none] = tardyJobs(many, scheduleJobs(many, deadline), deadline, 0)
  expect(none).toEqual([])
  expect(last.comeByMin).toBeNull()
})

test('one pair of hands sets as many of ten riders as the best of all choices of who is on time', () => {
  const jobs = [2, 2, 6, 2, 1.5, 6, 2, 2, 6, 2].map((minutes, i) => job(`r${i}`, minutes, 18 - 2 * i))
  expect(jobs.length - scheduleJobs(jobs, { hands: 1, startMin: 20 }).late).toBe(
    jobs.length - exhaustiveByCount(jobs, 20),
  )
})

/** How many must be late with one pair of hands: every choice of who is on time, tried in the order of their coming. */
function exhaustiveByCount(jobs: readonly Job[], startMin: number): number {
  let most = 0
  for (let set = 0; set < 1 << jobs.length; set++) {
    const chosen = jobs.filter((_, i) => set & (1 << i)).sort((a, b) => a.fromMin - b.fromMin)
    const { late } = listSchedule(chosen, { hands: 1, startMin })
    if (late === 0) most = Math.max(most, chosen.length)
  }
  return jobs.length - most
}
