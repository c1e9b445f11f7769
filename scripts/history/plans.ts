import { studioDay } from '../../core/messages/words/dates'
import type { Plan } from '../../core/riders/plans/plan'
import { positionsOf } from '../../core/bikes/scale/scale'
import { recordPlan } from '../../server/riders/plans'
import { currentEntries } from '../../server/setups/register'
import { STUDIO } from '../netloftHall'
import { daysBefore, memberId, type Hall } from './hall'

/** Days ago, and what was planned then for a rider of this index. */
const PLANS: readonly (readonly [rider: number, days: number, plan: (today: string) => Plan])[] = [
  [0, 3, (since) => ({ kind: 'cleats', since })],
  [1, 3, (due) => ({ kind: 'promise', due, words: 'look at the left knee' })],
  [4, 200, (since) => ({ kind: 'cleats', since })],
  [7, 9, (due) => ({ kind: 'promise', due, words: 'show how the bars are taken off' })],
  [12, 45, (since) => ({ kind: 'recheck', since })],
  [15, 760, (since) => ({ kind: 'shoes', since })],
]
/** Riders who began so much too low, and days ago. */
const STARTER_MM = 10
const STARTERS = [
  [2, 25],
  [5, 14],
] as const

/** Plans of a handful of riders: some due, one waiting for its rides. */
export async function addPlans({ db, now, scopes }: Hall): Promise<void> {
  for (const [n, [rider, days, plan]] of PLANS.entries()) {
    const at = daysBefore(now, days)
    const planned = { id: `history-plan-${n}`, memberId: memberId(rider), plan: plan(studioDay(at, STUDIO.timeZone)) }
    await recordPlan(db, scopes[n % 2], planned, at)
  }
  for (const [n, [rider, days]] of STARTERS.entries()) {
    const [entry] = await currentEntries(db, scopes[1], [memberId(rider)])
    if (!entry) continue
    const heights = positionsOf(entry.type.axes.seatHeight.scale).toSorted((a, b) => a.mm - b.mm)
    const from = heights.find(({ label }) => label === entry.marks.seatHeight)
    const to = from && heights.find(({ mm }) => mm >= from.mm + STARTER_MM)
    if (!to) continue
    const plan: Plan = { kind: 'starter', lineId: entry.lineId, to: to.label, afterRides: 3 }
    const id = `history-starter-${n}`
    await recordPlan(db, scopes[1], { id, memberId: memberId(rider), plan }, daysBefore(now, days))
  }
}
