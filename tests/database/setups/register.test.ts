/** @jest-environment node */
import { TYPES } from '@/scripts/netloftHall'
import { findWithNumbers } from '@/server/setups/findWithNumbers'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember, renameMember } from '@/server/riders/members/members'
import { latestNumbers } from '@/server/setups/latestNumbers'
import { findByWords } from '@/server/riders/members/words'
import { saveChange, saveTapeNumbers, saveTranslation } from '@/server/setups/proposals'
import { currentEntries, listEntries, recordEntry, restoreEntry } from '@/server/setups/register'
import { appendEvidence, finishSetup } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => {
  const { dispatch } = jest.requireActual('@/core/operations/dispatch')
  return { compute: async (operation: string, request: unknown) => dispatch(operation, request) }
})

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const at = (minute: number) => new Date(Date.UTC(2026, 3, 5, 6, minute))
const marks = { seatHeight: '8', seatSlide: 'C', barHeight: '6', barSlide: '3' }

/** A new rider with numbers on bike 1, set up at minute 0. */
async function rider(name = `Kept ${id().slice(0, 6)}`) {
  const [memberId, setupId] = [id(), id()]
  await addMember(db, scope, { id: memberId, name }, at(0))
  await setUp(memberId, setupId, marks, 0)
  return { memberId, setupId }
}
async function setUp(memberId: string, setupId: string, numbers: typeof marks, minute: number) {
  await startSetup(db, scope, { id: setupId, memberId, bikeId: 'bike-1' }, at(minute))
  const rows = [
    { kind: 'rider', experience: 'regular', pedal: 'cleat', soleMm: 12 },
    { kind: 'kneeByEye', seen: 'slightBend', at: numbers },
  ] as const
  for (const row of rows)
    await db.transaction((tx) => appendEvidence(tx, scope, setupId, { id: id(), row }, at(minute)))
  await db.transaction((tx) => finishSetup(tx, scope, setupId, { id: id(), marks: numbers }, at(minute)))
}
const current = async (memberId: string) => (await currentEntries(db, scope, [memberId]))[0]

afterAll(closeDatabase)

test('a saved set-up is in the register, with how sure, by whom, on what, and what was looked at', async () => {
  const { memberId, setupId } = await rider()
  expect(await currentEntries(db, scope, [memberId])).toMatchObject([
    {
      id: setupId,
      purpose: 'usual',
      source: 'setUp',
      certainty: 'checked',
      marks,
      bikeNumber: 1,
      footwear: { soleMm: 12, pedal: 'cleat' },
      basis: { seen: ['kneeByEye'] },
      createdBy: 'Ines Harrow',
      sinceAt: at(0),
    },
  ])
})

test('the same numbers again hold since the first time; others since now', async () => {
  const { memberId } = await rider()
  await setUp(memberId, id(), marks, 10)
  expect(await current(memberId)).toMatchObject({ createdAt: at(10), sinceAt: at(0) })
  await setUp(memberId, id(), { ...marks, seatHeight: '9' }, 20)
  expect(await current(memberId)).toMatchObject({ createdAt: at(20), sinceAt: at(20) })
})

test('going back is an entry of its own, sent twice it is one, and going forth again is as easy', async () => {
  const { memberId, setupId } = await rider()
  const second = id()
  await setUp(memberId, second, { ...marks, seatHeight: '9' }, 10)
  const back = { id: id(), entryId: setupId }
  expect(await restoreEntry(db, scope, back, at(20))).toEqual({ outcome: 'kept' })
  expect(await restoreEntry(db, scope, back, at(21))).toEqual({ outcome: 'kept' })
  expect(await current(memberId)).toMatchObject({ marks, source: 'restored', fromId: setupId, certainty: 'checked' })
  expect((await latestNumbers(db, scope, [memberId])).get(memberId)?.marks).toEqual(marks)
  await restoreEntry(db, scope, { id: id(), entryId: second }, at(30))
  expect((await current(memberId)).marks.seatHeight).toBe('9')
  expect((await listEntries(db, scope, memberId)).map(({ source }) => source)).toEqual([
    'restored',
    'restored',
    'setUp',
    'setUp',
  ])
  expect(await restoreEntry(db, scope, { id: back.id, entryId: second }, at(31))).toEqual({ outcome: 'idTaken' })
  expect(await restoreEntry(db, scope, { id: id(), entryId: id() }, at(31))).toEqual({ outcome: 'gone' })
})

test('a clock that went back puts no entry before the one that is there', async () => {
  const { memberId, setupId } = await rider()
  const again = id()
  await restoreEntry(db, scope, { id: again, entryId: setupId }, new Date('2020-01-01T00:00:00Z'))
  expect((await listEntries(db, scope, memberId)).map((entry) => entry.id)).toEqual([again, setupId])
})

test('one type has numbers for several purposes; the time line comes page by page', async () => {
  const { memberId, setupId } = await rider()
  const { lineId, typeId } = await current(memberId)
  const own = { memberId, lineId, typeId, source: 'imported', certainty: 'told' } as const
  for (let i = 1; i <= 5; i++)
    await db.transaction((tx) =>
      recordEntry(
        tx,
        scope,
        { ...own, id: id(), purpose: i % 2 ? 'upright' : 'starter', marks: { ...marks, barHeight: String(i) } },
        at(i),
      ),
    )
  const sets = await currentEntries(db, scope, [memberId])
  expect(sets.map(({ purpose, marks: { barHeight } }) => [purpose, barHeight])).toEqual([
    ['upright', '5'],
    ['starter', '4'],
    ['usual', '6'],
  ])
  const first = await listEntries(db, scope, memberId, { limit: 4 })
  const rest = await listEntries(db, scope, memberId, { before: first[3].id, limit: 4 })
  expect([...first, ...rest].map((entry) => entry.marks.barHeight)).toEqual(['5', '4', '3', '2', '1', '6'])
  expect(rest.at(-1)?.id).toBe(setupId)
})

test('numbers are stored for another type, worked out from its checks; the list shows what was set up', async () => {
  const { memberId, setupId } = await rider()
  const kept = { id: id(), entryId: setupId, lineId: 'bracken' }
  expect(await saveTranslation(db, scope, kept, at(5))).toEqual({ outcome: 'kept' })
  expect(await saveTranslation(db, scope, kept, at(6))).toEqual({ outcome: 'kept' })
  const [there] = (await currentEntries(db, scope, [memberId])).filter(({ lineId }) => lineId === 'bracken')
  expect(there).toMatchObject({ source: 'translated', certainty: 'translated', basis: { fromType: 'Sorrel' } })
  expect(Object.keys(there.marks).sort()).toEqual(Object.keys(TYPES.bracken.axes).sort())
  expect((await latestNumbers(db, scope, [memberId])).get(memberId)?.type.name).toBe('Sorrel')
  expect(await saveTranslation(db, scope, { ...kept, id: id(), lineId: 'none' }, at(6))).toEqual({ outcome: 'gone' })
})

test('a road bike’s tape is stored on every type or on none', async () => {
  const { memberId } = await rider()
  const from = {
    lengths: { saddleHeightMm: 700, setbackMm: 60, reachMm: 690, stackMm: 620 },
    crankMm: 172.5,
    noseAheadMm: 150,
  }
  const parts = ['sorrel', 'bracken', 'none'].map((lineId) => ({ id: id(), lineId }))
  expect(await saveTapeNumbers(db, scope, { memberId, from, parts }, at(5))).toEqual({ outcome: 'gone' })
  expect(await currentEntries(db, scope, [memberId])).toHaveLength(1)
  expect(await saveTapeNumbers(db, scope, { memberId, from, parts: parts.slice(0, 2) }, at(5))).toEqual({
    outcome: 'kept',
  })
  const sets = await currentEntries(db, scope, [memberId])
  expect(sets.map(({ purpose }) => purpose).sort()).toEqual(['road', 'road', 'usual'])
  expect(await saveTapeNumbers(db, scope, { memberId, from: { ...from, crankMm: 9 }, parts }, at(5))).toMatchObject({
    outcome: 'refused',
  })
})

test('a change of shoes moves every set of numbers, once, and is refused where others hold by now', async () => {
  const { memberId, setupId } = await rider()
  await saveTranslation(db, scope, { id: id(), entryId: setupId, lineId: 'bracken' }, at(5))
  const before = await currentEntries(db, scope, [memberId])
  const change = {
    memberId,
    what: 'shoes' as const,
    mm: 30,
    parts: before.map((entry) => ({ id: id(), entryId: entry.id })),
  }
  expect(await saveChange(db, scope, change, at(6))).toEqual({ outcome: 'kept' })
  expect(await saveChange(db, scope, change, at(7))).toEqual({ outcome: 'kept' })
  const after = await currentEntries(db, scope, [memberId])
  expect(after.map(({ source }) => source)).toEqual(['change', 'change'])
  const onSorrel = after.find(({ lineId }) => lineId === 'sorrel')!
  expect(onSorrel).toMatchObject({ basis: { change: { what: 'shoes', mm: 30 } }, footwear: { soleMm: 42 } })
  expect(Number(onSorrel.marks.seatHeight)).toBeGreaterThan(Number(marks.seatHeight))
  const stale = { ...change, parts: before.map((entry) => ({ id: id(), entryId: entry.id })) }
  expect(await saveChange(db, scope, stale, at(8))).toEqual({ outcome: 'stale' })
  expect(await listEntries(db, scope, memberId)).toHaveLength(4)
})

test('three letters of any word find a name with its numbers; a new name is found, the old one not', async () => {
  const tag = id().slice(0, 5)
  const { memberId } = await rider(`Ólafur Quill-Zq${tag} O'Zedwick`)
  const found = async (typed: string) => (await findByWords(db, scope, typed, 8)).map((one) => one.id)
  for (const typed of ['ola', 'QUI', 'zed', `zq${tag} ól`]) expect(await found(typed)).toContain(memberId)
  expect(await found('%')).toEqual([])
  expect(await found('  ')).toEqual([])
  expect(await found(`zq${tag} nobody`)).toEqual([])
  const [shown] = (await findWithNumbers(db, scope, `zq${tag}`)).filter((one) => one.id === memberId)
  expect(shown.sets[0]).toMatchObject({ where: 'Sorrel', sure: expect.stringMatching(/^checked, /) })
  expect(shown.sets[0].numbers[0]).toEqual({ title: 'Seat height', text: '8' })
  await renameMember(db, scope, memberId, { from: `Ólafur Quill-Zq${tag} O'Zedwick`, to: `Solveig Xy${tag}` })
  expect(await found(`zq${tag}`)).toEqual([])
  expect(await found(`xy${tag}`)).toEqual([memberId])
})
