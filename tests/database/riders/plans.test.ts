/** @jest-environment node */
import type { Plan } from '@/core/riders/plans/plan'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { assignBike } from '@/server/classes/assignments'
import { addClass, findClass, type StudioClass } from '@/server/classes/classes'
import { bookRider } from '@/server/classes/roster'
import { mergeMembers } from '@/server/commands/useCases/mergeMembers'
import { runCommand } from '@/server/commands/runCommand'
import { afterClass } from '@/server/pages/classes/after'
import { floorBefore } from '@/server/pages/classes/floor'
import { watchData } from '@/server/pages/classes/watch'
import { plansOf } from '@/server/pages/riders/plans'
import { riderPage } from '@/server/pages/riders/rider'
import { movable } from '@/server/pages/setups/movable'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { appendEvidence } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'

/** Runs once, in the middle of the next reading of the floor. */
let meanwhile: (() => Promise<unknown>) | null = null
jest.mock('@/server/classes/moves', () => {
  const moves = jest.requireActual<typeof import('@/server/classes/moves')>('@/server/classes/moves')
  return {
    ...moves,
    ridersMovedOnDay: async (...given: Parameters<typeof moves.ridersMovedOnDay>) => {
      const work = meanwhile
      meanwhile = null
      await work?.()
      return moves.ridersMovedOnDay(...given)
    },
  }
})
jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const desk: Scope = { ...scope, userId: 'tove-sandry', role: 'desk' }
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')
const DAY_MS = 86_400_000
const day = (n: number) => new Date(now.getTime() + n * DAY_MS)
const MARKS = { seatHeight: '6', seatSlide: 'C', barHeight: '5', barSlide: '2' }
let bikeId: string
const number = 941

beforeAll(async () => {
  await addBikes(db, scope, 'sorrel', [number])
  bikeId = (await listBikes(db, scope)).find((one) => one.number === number)!.id
})
afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Plan ${memberId.slice(0, 6)}` }, now)
  return memberId
}
const send = (name: string, input: object, at = now, by = scope, commandId = id()) =>
  runCommand(db, by, { name, id: commandId, input }, at)
const record = (memberId: string, plan: Plan, at = now) => send('members.recordPlan', { memberId, plan }, at)
const texts = async (memberId: string, at = now) => (await plansOf(db, scope, [memberId], at)).map(({ text }) => text)
const isDue = async (memberId: string, at: Date) => (await plansOf(db, scope, [memberId], at)).map((one) => one.isDue)

/** Set up low to begin with: seat height 6, to be raised to 7. */
async function starter(to = '7', commandId = id()): Promise<string> {
  const [memberId, setupId] = [await rider(), id()]
  await startSetup(db, scope, { id: setupId, memberId, bikeId }, now)
  const knee = { kind: 'kneeAngle', deg: 38, by: 'goniometer', at: MARKS } as const
  await appendEvidence(db, scope, setupId, { id: id(), row: knee }, now)
  const input = { setupId, marks: MARKS, purpose: 'usual', starter: { to, afterRides: 2 } }
  expect(await send('setups.finishSetup', input, now, scope, commandId)).toEqual({ outcome: 'kept' })
  expect(await send('setups.finishSetup', input, now, scope, commandId)).toEqual({ outcome: 'kept' })
  return memberId
}
async function ride(memberId: string, at: Date): Promise<StudioClass> {
  const classId = id()
  const endsAt = new Date(at.getTime() + 45 * 60_000)
  await addClass(db, scope, { id: classId, title: 'Plans', startsAt: at, endsAt, roomId: null }, now)
  await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
  await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
  return (await findClass(db, scope, classId))!
}

test('a starter is due after its rides, comes up before, during and after class, and is over once raised', async () => {
  const memberId = await starter()
  expect(await texts(memberId)).toEqual(['Starter at 6: 2 more rides, then 7'])
  await ride(memberId, day(1))
  expect(await texts(memberId, day(2))).toEqual(['Starter at 6: 1 more ride, then 7'])
  const second = await ride(memberId, day(3))
  const text = 'Starter: raise the seat 6 → 7, one mark'
  expect(await texts(memberId, day(4))).toEqual([text])

  const before = (await floorBefore(db, scope, second, true, day(2))).tiles.find((tile) => tile.bikeId === bikeId)!
  expect(before).toMatchObject({ plans: [{ text, isHere: true }], watchFor: ['raise the seat 6 → 7'] })
  const [hidden] = (await floorBefore(db, desk, second, false, day(2))).tiles.filter((one) => one.bikeId === bikeId)
  expect(hidden).toMatchObject({ plans: [], watchFor: [] })
  const seen = async () => (await watchData(db, scope, second, day(3))).bikes.find((one) => one.bikeId === bikeId)!
  expect(await seen()).toMatchObject({ plans: [{ text }], raiseMm: 20, watchFor: true })
  const after = async () => (await afterClass(db, scope, second, day(3))).rows.filter(({ kind }) => kind === 'planDue')
  expect(await after()).toMatchObject([{ memberId, subjects: [{ kind: 'plan', text }] }])
  expect(await movable(db, scope, { memberId, bikeId }, day(3))).toMatchObject({ raise: { to: '7', text } })

  const moveId = id()
  const move = { memberId, bikeId, axis: 'seatHeight', from: '6', to: '7', why: 'planned' }
  const inClass = { ...move, classId: second.id }
  expect(await send('register.moveMark', inClass, day(3), scope, moveId)).toEqual({ outcome: 'kept' })
  expect(await texts(memberId, day(4))).toEqual([])
  expect(await after()).toEqual([])
  // The page of the class takes its own moves away itself: one undone there, perhaps without network, was never made.
  expect(await seen()).toMatchObject({ marks: { seatHeight: '7' }, plans: [{ text }], raiseMm: 20, movedToday: false })
  await send('register.undoMove', { moveId }, day(3))
  expect(await texts(memberId, day(4))).toEqual([text])
})

test('a move that arrives while the floor is read is either whole in it or not at all', async () => {
  const memberId = await starter()
  for (const n of [11, 12]) await ride(memberId, day(n))
  const third = await ride(memberId, day(13))
  const seen = async () => {
    const { bikes, state } = await watchData(db, scope, third, day(13))
    const { marks, plans } = bikes.find((one) => one.bikeId === bikeId)!
    return { seat: marks!.seatHeight, moves: state.moves.length, plans: plans.length }
  }
  const move = { memberId, bikeId, classId: third.id, axis: 'seatHeight', from: '6', to: '7', why: 'planned' }
  let outcome: unknown
  meanwhile = async () => (outcome = await send('register.moveMark', move, day(13)))
  expect(await seen()).toEqual({ seat: '6', moves: 0, plans: 1 })
  expect(outcome).toEqual({ outcome: 'kept' })
  expect(await seen()).toEqual({ seat: '7', moves: 1, plans: 1 })
})

test('a set-up plans no starter where its target is not above the seat, or no mark', async () => {
  for (const to of ['6', '5', '99']) expect(await texts(await starter(to), day(9))).toEqual([])
})

test('a promise is due at the class on its day; done it is gone, and undo brings it back', async () => {
  const [memberId, planId] = [await rider(), id()]
  const plan: Plan = { kind: 'promise', due: '2004-08-04', words: 'look at the left knee' }
  expect(await send('members.recordPlan', { memberId, plan }, now, scope, planId)).toEqual({ outcome: 'kept' })
  expect(await send('members.recordPlan', { memberId, plan }, now, scope, planId)).toEqual({ outcome: 'kept' })
  expect(await texts(memberId)).toEqual(['Promised: look at the left knee, in 2 days'])
  // Looked at the day before, a class is judged by its own day.
  const ofClass = await ride(memberId, day(2))
  const words = async () =>
    (await floorBefore(db, scope, ofClass, true, day(1))).tiles.flatMap(({ plans }) => plans.map(({ text }) => text))
  expect(await words()).toEqual(['Promised: look at the left knee'])
  await send('members.tickPlan', { memberId, planId })
  expect([await words(), await texts(memberId)]).toEqual([[], []])
  await send('members.reopenPlan', { memberId, planId })
  expect(await words()).toHaveLength(1)
})

test('a pregnancy is looked at again after six weeks, and again; not once it is over', async () => {
  const [memberId, limitId] = [await rider(), id()]
  const limit = { kind: 'pregnancy', since: '2004-08-02', weeks: 12, clearedBy: 'Dr Amble' }
  await send('members.recordLimit', { memberId, limit, consent: true }, now, scope, limitId)
  expect([await isDue(memberId, day(41)), await isDue(memberId, day(42))]).toEqual([[false], [true]])
  await send('members.tickPlan', { memberId, planId: limitId }, day(43))
  expect([await isDue(memberId, day(84)), await isDue(memberId, day(85))]).toEqual([[false], [true]])
  await send('members.endLimit', { memberId, limitId }, day(50))
  expect(await texts(memberId, day(90))).toEqual([])
})

test('cleats replace the plan before; a tick counts from that day; a dropped plan stays away', async () => {
  const memberId = await rider()
  await record(memberId, { kind: 'cleats', since: '2004-01-02' })
  await record(memberId, { kind: 'cleats', since: '2004-02-02' })
  const [{ id: planId, isDue: due }] = await plansOf(db, scope, [memberId], now)
  expect([due, await texts(memberId)]).toEqual([true, ['Look at the cleats: wear, bolts and place']])
  await send('members.tickPlan', { memberId, planId })
  expect(await texts(memberId)).toEqual(['Look at the cleats: wear, bolts and place, in 180 days'])
  await send('members.endPlan', { memberId, planId })
  expect(await texts(memberId, day(400))).toEqual([])
})

test('plans of a merged member go to the other; whoever left the class has none in it', async () => {
  const [memberId, merged] = [await rider(), await rider()]
  const plan: Plan = { kind: 'promise', due: '2004-08-03', words: 'saddle' }
  await record(merged, plan)
  await mergeMembers(db, scope, { from: merged, into: memberId }, now)
  expect(await texts(memberId, day(1))).toEqual(['Promised: saddle'])
  const ofClass = await ride(memberId, day(1))
  const inClass = async () =>
    (await floorBefore(db, scope, ofClass, true, now)).tiles.flatMap(({ plans }) => plans.map(({ text }) => text))
  expect(await inClass()).toEqual(['Promised: saddle'])
  const change = { state: 'cancelled', pinnedBikeId: null }
  const left = await send('places.changeRider', { classId: ofClass.id, memberId, change })
  expect(left).toMatchObject({ outcome: 'kept' })
  expect(await inClass()).toEqual([])
  expect(await record(id(), plan)).toMatchObject({ code: 'noSuchMember' })
})

test('a plan with a passed day or without words is refused; the desk neither reads nor writes plans', async () => {
  const memberId = await rider()
  const promise: Plan = { kind: 'promise', due: '2004-08-03', words: 'x' }
  expect(await record(memberId, { ...promise, due: '2004-08-01' })).toMatchObject({ code: 'badPlan', issue: 'past' })
  expect(await record(memberId, { kind: 'promise', due: '2004-08-03' })).toMatchObject({ issue: 'missing' })
  expect(await record(memberId, { ...promise, due: 'soon' })).toMatchObject({ code: 'malformed' })
  expect(await send('members.recordPlan', { memberId, plan: promise }, now, desk)).toMatchObject({ code: 'notAllowed' })
  expect((await riderPage(db, desk, memberId, now))!.plans).toBeNull()
  expect(await texts(memberId)).toEqual([])
})
