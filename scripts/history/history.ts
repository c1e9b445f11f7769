/**
 * Twenty weeks behind the demo hall: some sixty more members, set-ups on all three types, classes with notes and cues,
 * complaints and trials in each state, marks moved in warm-ups. Simulated riders make them through the use cases of the
 * product, seeded; dates count back from today. Three things are hidden in it for the product to find: the saddle of
 * bike 19 points to the left, the seat of bike 12 is low, and one cue works more often than the others.
 */
import type { Scope } from '../../server/platform/accounts/scope'
import { listBikes } from '../../server/bikes/bikes'
import { replanClass } from '../../server/classes/replan'
import { bookRider } from '../../server/classes/roster'
import type { Database } from '../../server/platform/db/connection'
import { addClasses } from './classes'
import { daysBefore, memberId, WITHOUT_NUMBERS } from './hall'
import { addMembers, addPurposes, addTapes } from './members'
import { addLimits } from './limits'
import { addMoves } from './moves'
import { addPlans } from './plans'
import { addProgrammes } from './programmes'
import { addSetups } from './setups'
import { addTrials } from './trials'

/** Adds the history to the seeded hall, within the caller's transaction. */
export async function addHistory(db: Database, scopes: readonly Scope[], now: Date): Promise<void> {
  const bikes = await listBikes(db, scopes[0])
  const riders = await addMembers(db, scopes[0], now)
  const hall = { db, now, scopes, bikes, riders }
  await addTapes(hall)
  await addSetups(hall)
  await addPurposes(hall)
  await addClasses(hall)
  await addTrials(hall)
  await addMoves(hall)
  await addLimits(hall)
  await addPlans(hall)
  await addProgrammes(hall)
  for (const i of [WITHOUT_NUMBERS, WITHOUT_NUMBERS + 3, WITHOUT_NUMBERS + 5])
    await bookRider(
      db,
      scopes[0],
      { classId: 'class-dusk', memberId: memberId(i), state: 'booked', comesMinBefore: 15 },
      daysBefore(now, 1),
    )
  await replanClass(db, scopes[0], 'class-dusk', now, { fixedSeats: 'here' })
}
