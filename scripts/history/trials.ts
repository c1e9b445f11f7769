import { axisOf, type BikeType } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { Evidence } from '../../core/riders/evidence/registry'
import { positionsOf } from '../../core/bikes/scale/scale'
import { goniometer, trueFlexionDeg, type SimulatedRider } from '../../core/simulated/simulatedRider'
import { addComplaint, closeComplaint, recordReferral } from '../../server/comfort/complaints'
import { startTrial } from '../../server/commands/useCases/startTrial'
import { reasonsOf } from '../../server/pages/comfort/reasons'
import { endTrial, rateTrial } from '../../server/comfort/trialChanges'
import { currentEntries } from '../../server/setups/register'
import { appendEvidence, finishSetup } from '../../server/setups/evidence'
import { startSetup } from '../../server/setups/setups'
import { bodyOn, DAY_MS, daysBefore, LOW_BIKE, type Hall, type Rider } from './hall'

type TrialState = 'early' | 'due' | 'worse' | 'keep' | 'undo' | 'next'
/** A rider's trial: its state, days since its start, and the ratings since. */
const TRIALS: readonly Readonly<{ state: TrialState; daysAgo: number; ratings: readonly number[] }>[] = [
  { state: 'early', daysAgo: 3, ratings: [5] },
  { state: 'due', daysAgo: 16, ratings: [4, 3, 2] },
  { state: 'worse', daysAgo: 9, ratings: [7, 8] },
  { state: 'keep', daysAgo: 60, ratings: [4, 2, 1] },
  { state: 'keep', daysAgo: 80, ratings: [5, 3, 1] },
  { state: 'keep', daysAgo: 45, ratings: [3, 2, 2] },
  { state: 'undo', daysAgo: 50, ratings: [6, 7, 7] },
  { state: 'next', daysAgo: 30, ratings: [6, 5, 6] },
]

/** Riders whose complaints have another end. */
const OTHERWISE: readonly number[] = [72, 73]

/** Complaints in each state: referred, over, open; and trials in each. */
export async function addTrials(hall: Hall): Promise<void> {
  const { db, now, scopes, riders } = hall
  // As many as there are: how many of them were seen too lately, or need no change, depends on the day.
  const waiting = riders.filter((_, i) => i >= 18 && !OTHERWISE.includes(i))
  for (const [t, { state, daysAgo, ratings }] of TRIALS.entries())
    for (const rider of [...waiting]) {
      const tried = await addTrial(hall, rider, t, state, daysAgo, ratings)
      if (tried !== 'tooNew') waiting.splice(waiting.indexOf(rider), 1)
      if (tried === 'begun') break
    }
  const [scope] = scopes
  const plain = { side: 'both', moment: 'late', lasts: false } as const
  const add = (
    id: string,
    member: Rider,
    what: 'hands' | 'neck' | 'lowBack' | 'outerKnee',
    days: number,
    more: object,
  ) => addComplaint(db, scope, { id, memberId: member.id, what, strength: 5, ...plain, ...more }, daysBefore(now, days))
  await add('history-referred', riders[11], 'lowBack', 2, { side: 'left', quality: ['sharp'], strength: 7 })
  await add('history-handed', riders[72], 'outerKnee', 12, { side: 'right', quality: ['swelling'] })
  await recordReferral(db, scope, 'history-handed', 'the rider, and the desk', daysBefore(now, 11))
  await add('history-over', riders[73], 'neck', 40, {})
  await closeComplaint(db, scope, 'history-over', daysBefore(now, 20))
  for (const [i, what] of (['hands', 'neck', 'lowBack'] as const).entries())
    await add(`history-open-${i}`, riders[14 + i], what, 4 + i, {})
}

/** One complaint of the knee, measured, and its trial; not where numbers are newer or no change is proposed. */
async function addTrial(
  { db, now, scopes, bikes }: Hall,
  rider: Rider,
  t: number,
  state: TrialState,
  daysAgo: number,
  ratings: readonly number[],
): Promise<'begun' | 'tooNew' | 'noChange'> {
  const scope = scopes[t % 2]
  const begun = daysBefore(now, daysAgo)
  const [entry, ...others] = await currentEntries(db, scope, [rider.id])
  const own = bikes.filter(
    ({ lineId, openFaults, number }) => lineId === entry?.lineId && openFaults === 0 && number !== LOW_BIKE.number,
  )
  const bike = own.length > 0 ? own[t % own.length] : undefined
  // Who has numbers for several types was last seen on another one.
  if (!entry || others.length > 0 || !bike || entry.createdAt > daysBefore(now, daysAgo + 2)) return 'tooNew'
  // Somebody set the seat too low since, and the knee was measured: without a measurement no seat height is moved.
  const setupId = `history-check-${rider.id}`
  const checkedAt = daysBefore(now, daysAgo + 1)
  const body = bodyOn(rider, bike)
  const marks = lowered(body, entry.type, entry.marks)
  await startSetup(db, scope, { id: setupId, memberId: rider.id, bikeId: bike.id }, checkedAt)
  const rows: readonly Evidence[] = [
    { kind: 'set', at: marks },
    { ...goniometer(body, marks), deg: Math.round(trueFlexionDeg(body, marks)) },
  ]
  for (const [i, row] of rows.entries())
    await appendEvidence(db, scope, setupId, { id: `${setupId}-${i}`, row }, checkedAt)
  await finishSetup(db, scope, setupId, { id: `${setupId}-numbers`, marks }, checkedAt)
  const complaint = {
    id: `history-complaint-${rider.id}`,
    memberId: rider.id,
    what: 'frontKnee',
    side: 'left',
  } as const
  await addComplaint(db, scope, { ...complaint, strength: 6, moment: 'seated', lasts: false }, checkedAt)
  const { answer } = await reasonsOf(db, scope, rider.id, begun)
  if (!answer?.change) {
    await closeComplaint(db, scope, complaint.id, begun)
    return 'noChange'
  }
  const { axis, to, deg } = answer.change
  const shown = { axis, ...(to !== undefined && { to }), ...(axis === 'tilt' && { deg }) }
  const id = `history-trial-${t}`
  const input = { id, memberId: rider.id, complaintId: complaint.id, shown, weeks: 2, reason: null } as const
  const { outcome } = await startTrial(db, scope, { ...input, ratingBefore: 6 }, begun)
  if (outcome !== 'kept') return 'noChange'
  for (const [r, rating] of ratings.entries())
    await rateTrial(
      db,
      scope,
      { id: `${id}-rating-${r}`, trialId: id, rating },
      new Date(begun.getTime() + (r + 1) * 2.5 * DAY_MS),
    )
  if (state === 'keep' || state === 'undo' || state === 'next') {
    const ended = new Date(begun.getTime() + 15 * DAY_MS)
    await endTrial(db, scope, { id, outcome: state }, ended)
    if (state === 'keep') await closeComplaint(db, scope, complaint.id, ended)
  }
  return 'begun'
}

/** These marks with the seat so low that the knee bends by about 42°. */
function lowered(body: SimulatedRider, type: BikeType, at: Marks): Marks {
  const bendOff = (label: string) => Math.abs(trueFlexionDeg(body, { ...at, seatHeight: label }) - 42)
  const labels = positionsOf(axisOf(type, 'seatHeight')!.scale).map(({ label }) => label)
  return { ...at, seatHeight: labels.reduce((a, b) => (bendOff(b) < bendOff(a) ? b : a)) }
}
