/** @jest-environment node */
import type { Role } from '@/server/platform/db/roles'
import type { Scope } from '@/server/platform/accounts/scope'
import { listFaults, recordInspection, resolveFault } from '@/server/bikes/inspections'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { addClass, findClass } from '@/server/classes/classes'
import { assignBike } from '@/server/classes/assignments'
import { classState } from '@/server/classes/watch'
import { runCommand } from '@/server/commands/runCommand'
import { takeEntry } from '@/server/commands/takeEntry'
import { afterClass } from '@/server/pages/classes/after'
import { watchData } from '@/server/pages/classes/watch'
import { movable, moveOutlook } from '@/server/pages/setups/movable'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { appendEvidence, finishSetup } from '@/server/setups/evidence'
import { currentEntries, listEntries, recordEntry } from '@/server/setups/register'
import { startSetup } from '@/server/setups/setups'
import { withTransaction } from '@/server/platform/db/connection'
import { mergeMembers } from '@/server/commands/useCases/mergeMembers'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const person = (userId: string, role: Role): Scope => ({ studioId: 'netloft-hall', userId, role })
const [ines, bram, desk] = [
  person('ines-harrow', 'manager'),
  person('bram-okell', 'instructor'),
  person('tove-sandry', 'desk'),
]
const id = () => crypto.randomUUID()
const DAY_MS = 86_400_000
const now = new Date('2004-05-10T17:00:00Z')
const at = (minutes: number) => new Date(now.getTime() + minutes * 60_000)
const MARKS = { seatHeight: '8', seatSlide: 'C', barHeight: '5', barSlide: '2' }
let bikeId: string
const number = 940

beforeAll(async () => {
  await addBikes(db, ines, 'sorrel', [number])
  bikeId = (await listBikes(db, ines)).find((one) => one.number === number)!.id
})
afterAll(closeDatabase)

/** Somebody set up on the bike, with a reading of the knee. */
async function rider(): Promise<string> {
  const [memberId, setupId] = [id(), id()]
  const before = new Date(now.getTime() - 10 * DAY_MS)
  await addMember(db, ines, { id: memberId, name: `Move ${memberId.slice(0, 6)}` }, before)
  await startSetup(db, ines, { id: setupId, memberId, bikeId }, before)
  const knee = { kind: 'kneeAngle', deg: 33, by: 'goniometer', at: MARKS } as const
  await appendEvidence(db, ines, setupId, { id: id(), row: knee }, before)
  await finishSetup(db, ines, setupId, { id: id(), marks: MARKS }, before)
  return memberId
}

type Move = Readonly<{ axis: string; from: string; to: string; why?: string; again?: string; classId?: string }>
const move = (scope: Scope, memberId: string, { why = 'comfort', ...rest }: Move, when = now, moveId = id()) =>
  runCommand(
    db,
    scope,
    { name: 'register.moveMark', id: moveId, input: { memberId, bikeId, why, ...rest }, observedAt: when },
    when,
  )
const UP = { axis: 'barHeight', from: '5', to: '6' }
const marksOf = async (memberId: string) => (await currentEntries(db, ines, [memberId]))[0].marks

test('a move becomes the rider’s numbers, with its reason on the time line; a retry changes nothing', async () => {
  const [memberId, moveId] = [await rider(), id()]
  expect(await move(bram, memberId, UP, now, moveId)).toEqual({ outcome: 'kept' })
  expect(await move(bram, memberId, UP, at(1), moveId)).toEqual({ outcome: 'kept' })
  expect(await marksOf(memberId)).toEqual({ ...MARKS, barHeight: '6' })
  const [latest, before] = await listEntries(db, ines, memberId)
  expect(latest).toMatchObject({
    id: moveId,
    source: 'moved',
    certainty: 'translated',
    fromId: before.id,
    basis: { moved: { ...UP, why: 'comfort' } },
    createdBy: 'Bram Okell',
  })
  expect(await movable(db, ines, { memberId, bikeId }, now)).toMatchObject({ movedToday: true, onTrial: false })
  expect(await movable(db, ines, { memberId, bikeId }, at(1440))).toMatchObject({ movedToday: false })
})

test('a move after a check makes the numbers checked; the desk’s move is refused', async () => {
  const memberId = await rider()
  expect(await move(desk, memberId, UP)).toMatchObject({ code: 'notAllowed' })
  await move(bram, memberId, { ...UP, why: 'checked' })
  expect((await currentEntries(db, ines, [memberId]))[0].certainty).toBe('checked')
})

test('a second move on one day needs a reason, which the time line shows; one the next day needs none', async () => {
  const memberId = await rider()
  const further = { axis: 'barHeight', from: '6', to: '7' }
  await move(bram, memberId, UP)
  expect(await move(bram, memberId, further, at(5))).toMatchObject({ outcome: 'refused', code: 'moveNeedsReason' })
  expect(await move(bram, memberId, { ...further, again: 'noHelp' }, at(6))).toEqual({ outcome: 'kept' })
  expect((await listEntries(db, ines, memberId))[0].basis.moved).toMatchObject({ again: 'noHelp' })
  expect(await move(bram, memberId, { ...further, from: '7', to: '6' }, at(1440))).toEqual({ outcome: 'kept' })
})

test('the later of two devices that move one axis gets the present mark and overwrites nothing', async () => {
  const memberId = await rider()
  const down = { axis: 'barHeight', from: '5', to: '4', again: 'wish' }
  const results = await Promise.all([move(bram, memberId, { ...UP, again: 'wish' }), move(ines, memberId, down)])
  const kept = results.filter(({ outcome }) => outcome === 'kept')
  expect(kept).toHaveLength(1)
  const stands = kept[0] === results[0] ? '6' : '4'
  expect(results.find(({ outcome }) => outcome === 'refused')).toMatchObject({ code: 'markElsewhere', label: stands })
  expect((await marksOf(memberId)).barHeight).toBe(stands)
})

test('undo restores the earlier numbers with their certainty; a second undo changes nothing', async () => {
  const [memberId, moveId] = [await rider(), id()]
  await move(bram, memberId, UP, now, moveId)
  const undo = (undoId: string) =>
    runCommand(db, bram, { name: 'register.undoMove', id: undoId, input: { moveId }, observedAt: at(1) }, at(1))
  expect(await undo(id())).toEqual({ outcome: 'kept' })
  expect(await undo(id())).toEqual({ outcome: 'kept' })
  const entries = await listEntries(db, ines, memberId)
  expect(entries.map(({ source }) => source)).toEqual(['restored', 'moved', 'setUp'])
  expect(entries[0]).toMatchObject({ marks: MARKS, certainty: entries[2].certainty })
  expect(await movable(db, ines, { memberId, bikeId }, now)).toMatchObject({ movedToday: false })
})

test('undo after other numbers changes its own axis alone; if that axis moved on, it is refused', async () => {
  const [memberId, moveId] = [await rider(), id()]
  const undo = () => runCommand(db, bram, { name: 'register.undoMove', id: id(), input: { moveId } }, at(30))
  await move(bram, memberId, UP, now, moveId)
  await move(ines, memberId, { axis: 'seatSlide', from: 'C', to: 'D', again: 'otherThing' }, at(5))
  expect(await undo()).toEqual({ outcome: 'kept' })
  expect(await marksOf(memberId)).toEqual({ ...MARKS, seatSlide: 'D' })

  const [second, other] = [await rider(), id()]
  await move(bram, second, UP, now, other)
  await move(ines, second, { axis: 'barHeight', from: '6', to: '7', again: 'noHelp' }, at(5))
  const late = await runCommand(db, bram, { name: 'register.undoMove', id: id(), input: { moveId: other } }, at(30))
  expect(late).toMatchObject({ code: 'markElsewhere', label: '7' })
  expect((await marksOf(second)).barHeight).toBe('7')
})

test('a bike out of use refuses a move made after its fault was found and accepts an earlier one', async () => {
  const memberId = await rider()
  await recordInspection(
    db,
    ines,
    { id: id(), bikeId, good: [], faults: [{ id: id(), item: 'pins', note: 'loose' }] },
    at(10),
  )
  expect(await move(bram, memberId, UP, at(11))).toMatchObject({ code: 'bikeOutOfUse', number })
  expect(await move(bram, memberId, UP, at(9))).toEqual({ outcome: 'kept' })
  const [fault] = await listFaults(db, ines, bikeId)
  await resolveFault(db, ines, { id: fault.id, bikeId }, at(12))
})

test('an unknown mark, missing numbers, an unknown axis or an unknown reason is refused', async () => {
  const [memberId, stranger] = [await rider(), id()]
  await addMember(db, ines, { id: stranger, name: 'Move Nobody' }, now)
  expect(await move(bram, memberId, { ...UP, to: '99' })).toMatchObject({ code: 'noSuchMark' })
  expect(await move(bram, stranger, UP)).toMatchObject({ code: 'noNumbersToMove' })
  for (const wrong of [
    { ...UP, axis: 'saddle' },
    { ...UP, why: 'because' },
    { ...UP, again: 'because' },
  ])
    expect(await move(bram, memberId, wrong)).toMatchObject({ code: 'malformed' })
  expect(await marksOf(memberId)).toEqual(MARKS)
})

test('a device clock a day off is corrected; a move of a merged member goes to the other member', async () => {
  const [memberId, merged] = [await rider(), id()]
  await addMember(db, ines, { id: merged, name: 'Move Twice' }, now)
  await mergeMembers(db, ines, { from: merged, into: memberId }, now)
  const madeAtMs = now.getTime() + DAY_MS
  const entry = { op: 'moveMark', id: id(), author: 'bram-okell', memberId: merged, bikeId, why: 'felt', ...UP }
  const sent = { ...entry, madeAtMs, sentAtMs: madeAtMs + 60_000 } as Parameters<typeof takeEntry>[2]
  expect(await takeEntry(db, bram, sent, at(20))).toEqual({ outcome: 'kept' })
  expect((await listEntries(db, ines, memberId))[0].createdAt).toEqual(at(19))
})

test('a move in a class appears on the tile, in the class state and in the list after class', async () => {
  const [memberId, classId, moveId] = [await rider(), id(), id()]
  await addClass(db, ines, { id: classId, title: 'Moves', startsAt: now, endsAt: at(45), roomId: 'net-loft' }, now)
  await assignBike(db, ines, { id: id(), classId, bikeId, memberId }, now)
  const ofClass = (await findClass(db, ines, classId))!
  const tile = async () => (await watchData(db, bram, ofClass, now)).bikes.find((one) => one.bikeId === bikeId)!
  expect(await tile()).toMatchObject({ marks: MARKS, movedToday: false })
  await move(bram, memberId, { ...UP, classId }, now, moveId)
  // Moves of the class itself are in its state, where one may be taken back without network.
  expect(await tile()).toMatchObject({ marks: { ...MARKS, barHeight: '6' }, movedToday: false })
  expect((await classState(db, ines, classId)).moves).toMatchObject([{ id: moveId, memberId, ...UP }])
  const { rows } = await afterClass(db, ines, ofClass, at(50))
  expect(rows.find(({ kind }) => kind === 'moved')).toMatchObject({ memberId, bikeId, subjects: [{ kind: 'move' }] })
  expect((await watchData(db, desk, ofClass, now)).mayMove).toBe(false)
  await move(bram, memberId, { ...UP, from: '6', to: '7', again: 'wish' }, at(50))
  expect(await tile()).toMatchObject({ marks: { ...MARKS, barHeight: '7' }, movedToday: true })
})

test('the outlook expects a straighter knee higher up; without an earlier set-up there is none', async () => {
  const [memberId, stranger] = [await rider(), id()]
  const outlook = await moveOutlook(db, ines, { memberId, bikeId, axis: 'seatHeight', to: ['9', '7'] }, now)
  const { kneeDeg: higher } = outlook!.expects['9']
  const { kneeDeg: lower } = outlook!.expects['7']
  expect(higher.from).toBeCloseTo(33, -0.5)
  expect(higher.to).toBeLessThan(higher.from - 5)
  expect(lower.to).toBeGreaterThan(lower.from + 5)
  await addMember(db, ines, { id: stranger, name: 'Move Unknown' }, now)
  const [entry] = await currentEntries(db, ines, [memberId])
  const told = { ...entry, id: id(), memberId: stranger, source: 'imported', setupId: null, fromId: null } as const
  await withTransaction(db, (tx) => recordEntry(tx, ines, told, now))
  expect(await moveOutlook(db, ines, { memberId: stranger, bikeId, axis: 'seatHeight', to: ['9'] }, now)).toBeNull()
})
