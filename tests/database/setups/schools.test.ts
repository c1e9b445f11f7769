/** @jest-environment node */
import { closeDatabase, database } from '@/server/platform/db/connection'
import { listBikes } from '@/server/bikes/bikes'
import { addMember } from '@/server/riders/members/members'
import { appendEvidence, finishSetup, listEvidence } from '@/server/setups/evidence'
import { learnedPrior, listCheckedSetups, observerErrorOf } from '@/server/setups/learned'
import { changeSetupSchool, findSetupSchool } from '@/server/setups/setupSchool'
import { findPreviousNumbers, findSetup, listHistory, startSetup } from '@/server/setups/setups'
import { changeStudio, getStudio } from '@/server/studio/studio'

jest.mock('@/server/platform/compute/pool', () => {
  const { dispatch } = jest.requireActual<typeof import('@/core/operations/dispatch')>('@/core/operations/dispatch')
  return { compute: async (operation: string, request: unknown) => dispatch(operation, request) }
})

const db = database()
const scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' } as const
const id = () => crypto.randomUUID()
const now = new Date('2026-09-01T08:00:00Z')
const later = new Date('2026-11-01T08:00:00Z')

async function begun() {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Schooled ${memberId.slice(0, 6)}` }, now)
  const [bike] = await listBikes(db, scope)
  const setupId = id()
  await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, now)
  const { type, lineId } = (await findSetup(db, scope, setupId))!
  return { memberId, setupId, type, lineId }
}
const marks = { seatHeight: '8', seatSlide: 'C', barHeight: '8', barSlide: '3' }

afterAll(closeDatabase)

test('the studio’s settings are stored whole, and another time again', async () => {
  const before = await getStudio(db, scope)
  await changeStudio(db, scope, { school: { foreAft: 'balance' }, costs: { inseam: 40 }, learns: false })
  expect(await getStudio(db, scope)).toMatchObject({
    school: { foreAft: 'balance' },
    costs: { inseam: 40 },
    learns: false,
  })
  await changeStudio(db, scope, { school: before.school, costs: before.costs ?? {}, learns: before.learns })
})

test('a set-up’s own school: the latest counts, a retry changes nothing, a saved set-up takes none', async () => {
  const { setupId } = await begun()
  expect(await findSetupSchool(db, scope, setupId)).toEqual({})
  const first = { id: id(), setupId, school: { foot: 'level' } } as const
  expect(await changeSetupSchool(db, scope, first, now)).toEqual({ outcome: 'kept' })
  await changeSetupSchool(db, scope, { id: id(), setupId, school: { foot: 'level', tilt: 'level' } }, now)
  expect(await changeSetupSchool(db, scope, first, now)).toEqual({ outcome: 'kept' })
  expect(await findSetupSchool(db, scope, setupId)).toEqual({ foot: 'level', tilt: 'level' })
  expect(await changeSetupSchool(db, scope, { ...first, school: { foot: 'natural' } }, now)).toEqual({
    outcome: 'idTaken',
  })
  await db.transaction((tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, now))
  expect(await changeSetupSchool(db, scope, { ...first, id: id() }, now)).toEqual({ outcome: 'gone' })
})

test('a finished set-up is history to the next, with its age, and its numbers are the previous ones', async () => {
  const { memberId, setupId, type, lineId } = await begun()
  const row = { kind: 'kneeAngle', deg: 31, by: 'goniometer', at: marks } as const
  const rider = { kind: 'rider', experience: 'regular', pedal: 'cleat' } as const
  await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row: rider }, now))
  await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row }, now))
  expect(await listHistory(db, scope, memberId, later)).toEqual([])
  await db.transaction((tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, now))
  const [earlier] = await listHistory(db, scope, memberId, later)
  expect(earlier.agoDays).toBeCloseTo(61, 5)
  expect(earlier.evidence).toContainEqual(row)
  expect(await findPreviousNumbers(db, scope, { memberId, type, lineId })).toEqual({ marks, at: now, rider })
})

test('what a rider answered lately opens the next set-up; months later it is due again', async () => {
  const { memberId, setupId, type } = await begun()
  const rider = { kind: 'rider', experience: 'regular', pedal: 'cleat', soleMm: 21 } as const
  const wish = { kind: 'wish', posture: 'low', at: marks } as const
  const stature = { kind: 'stature', mm: 1740 } as const
  for (const row of [rider, wish, stature])
    await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row }, now))
  await db.transaction((tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, now))
  const elsewhere = (await listBikes(db, scope)).filter((b) => b.type.name !== type.name)
  const opened = async (bikeId: string, when: Date) => {
    const asked = { id: id(), memberId, bikeId }
    expect(await startSetup(db, scope, asked, when)).toEqual({ outcome: 'kept', id: asked.id })
    // Sent once more, nothing is written twice.
    await startSetup(db, scope, asked, when)
    return (await listEvidence(db, scope, asked.id)).map(({ row }) => row)
  }
  expect(await opened(elsewhere[0].id, later)).toEqual([rider, { kind: 'wish', posture: 'low' }])
  expect(await opened(elsewhere[1].id, new Date('2027-11-01T08:00:00Z'))).toEqual([])
})

test('numbers on purpose are saved as such, unless something was moved since', async () => {
  const meant = { kind: 'set', at: marks, meant: 'longLegs' } as const
  const saved = async (numbers: typeof marks) => {
    const { memberId, setupId, type, lineId } = await begun()
    await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row: meant }, now))
    const last = { id: id(), marks: numbers }
    await db.transaction((tx) => finishSetup(tx, scope, setupId, last, now))
    // The answer was lost and the phone sends it once more.
    expect(await db.transaction((tx) => finishSetup(tx, scope, setupId, last, now))).toEqual({ outcome: 'kept' })
    return findPreviousNumbers(db, scope, { memberId, type, lineId })
  }
  expect(await saved(marks)).toMatchObject({ marks, meant: 'longLegs' })
  expect(await saved({ ...marks, seatHeight: '7' })).not.toHaveProperty('meant')
})

test('checked set-ups teach, nobody waits for it, and a studio that does not learn is taught nothing', async () => {
  const studio = await getStudio(db, scope)
  const setups = await listCheckedSetups(db, scope)
  expect(setups.length).toBeGreaterThan(5)
  const ask = () => learnedPrior(db, scope, { ...studio, learns: true })
  expect(await ask()).toBeNull()
  let learned = await ask()
  while (!learned) {
    await new Promise((resolve) => setImmediate(resolve))
    learned = await ask()
  }
  expect(learned.setups).toBe(setups.length)
  expect(await learnedPrior(db, scope, { ...studio, learns: false })).toBeNull()
})

test('an eye learns of its own looks alone', async () => {
  const { setupId } = await begun()
  const before = await observerErrorOf(db, scope)
  const look = { kind: 'kneeByEye', seen: 'locked', at: marks } as const
  const read = { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: marks } as const
  for (const row of [look, read])
    await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row }, later))
  const after = await observerErrorOf(db, scope)
  expect(after.knee.pairs).toBe(before.knee.pairs + 1)
  expect(after.knee.bias).toBeLessThan(before.knee.bias)
  const nobody = await observerErrorOf(db, { ...scope, userId: 'somebody-else' })
  expect(nobody.knee.pairs).toBe(0)
})
