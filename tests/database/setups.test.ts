/** @jest-environment node */
import type { Evidence } from '@/core/evidence/evidence'
import { bikesOf } from '@/server/bikes/bikes'
import { closeDatabase, database } from '@/server/db/connection'
import { addMember, memberById, membersNamed, membersOf } from '@/server/members/members'
import { makeNote, notesOn, notesSince, seat, seatedOn, withdrawNote } from '@/server/notes/notes'
import { appendRow, finishSetup, openSetup, openSetupsOf, rowsOf, savedSetups, setupById, startSetup, withdrawRow } from '@/server/setups/setups'
import { theStudio } from '@/server/studio/studio'

const db = database()
const SORREL = { id: 'bike-1', typeId: 'sorrel', own: {} }
const by = 'ines-harrow'
const id = () => crypto.randomUUID()
const at = new Date('2026-03-29T00:59:30.123Z')
const landmark: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '9' } }
const set: Evidence = { kind: 'set', at: { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' } }

async function newMember(name = `Test ${id().slice(0, 8)}`): Promise<string> {
  const memberId = id()
  await addMember(db, { id: memberId, studioId: 'netloft-hall', name, at, by })
  return memberId
}

async function newSetup(memberId: string): Promise<string> {
  const setupId = id()
  await startSetup(db, { id: setupId, memberId, bike: SORREL, at, by })
  return setupId
}

afterAll(closeDatabase)

test('the demo hall: about thirty members, twenty-four bikes of three types, ten with numbers that fit their bike', async () => {
  const studio = await theStudio(db)
  const [all, members] = await Promise.all([bikesOf(db, studio.id), membersOf(db, studio.id)])
  const bikes = all.filter((b) => /^bike-/.test(b.id))
  expect(bikes.map((b) => b.number)).toEqual(Array.from({ length: 24 }, (_, i) => i + 1))
  expect(new Set(bikes.map((b) => b.type.name))).toEqual(new Set(['Sorrel', 'Meadowsweet', 'Bracken']))
  expect(members.filter((m) => m.id.startsWith('member-'))).toHaveLength(30)
  expect(members.filter((m) => m.id.startsWith('member-') && m.numbers)).toHaveLength(10)
})

test('rows come back as they were seen, in order; the same row sent twice is one row', async () => {
  const setupId = await newSetup(await newMember())
  const first = { id: id(), row: landmark }
  await appendRow(db, setupId, first, at, by)
  await appendRow(db, setupId, first, at, by)
  await appendRow(db, setupId, { id: id(), row: set }, at, by)
  expect((await rowsOf(db, setupId)).map((r) => r.row)).toEqual([landmark, set])
})

test('a withdrawn row is not handed out; withdrawing twice, or another set-up’s row, changes nothing', async () => {
  const memberId = await newMember()
  const [mine, other] = [await newSetup(memberId), await newSetup(memberId)]
  const row = { id: id(), row: landmark }
  await appendRow(db, mine, row, at, by)
  await withdrawRow(db, other, row.id, at, by)
  expect(await rowsOf(db, mine)).toHaveLength(1)
  await withdrawRow(db, mine, row.id, at, by)
  await withdrawRow(db, mine, row.id, at, by)
  expect(await rowsOf(db, mine)).toEqual([])
})

test('a finished set-up gives the member numbers, with date to the millisecond in UTC and who', async () => {
  const memberId = await newMember()
  const setupId = await newSetup(memberId)
  expect((await openSetup(db, memberId, 'bike-1'))?.id).toBe(setupId)
  const numbers = { id: id(), row: set }
  await appendRow(db, setupId, { id: id(), row: landmark }, at, by)
  await appendRow(db, setupId, numbers, at, by)
  await finishSetup(db, setupId, numbers.id, at, by)
  const [saved] = await savedSetups(db, memberId)
  expect(saved).toMatchObject({ marks: set.at, by: 'Ines Harrow', bikeNumber: 1, at, evidence: [landmark, set] })
  expect((await membersOf(db, 'netloft-hall')).find((m) => m.id === memberId)?.numbers?.marks).toEqual(set.at)
  expect(await openSetup(db, memberId, 'bike-1')).toBeNull()
  expect(await openSetupsOf(db, memberId)).toEqual([])
})

test('a set-up of an unknown member is refused by the database, and what was begun with it is undone', async () => {
  const memberId = id()
  await expect(
    db.transaction(async (tx) => {
      await addMember(tx, { id: memberId, studioId: 'netloft-hall', name: 'Half Done', at, by })
      await startSetup(tx, { id: id(), memberId: 'nobody', bike: SORREL, at, by })
    }),
  ).rejects.toMatchObject({ cause: { errno: 1452 } })
  expect(await memberById(db, memberId)).toBeNull()
})

test('names keep every letter, and members of one name are found', async () => {
  const name = `Ægir Ōmura-O’Dell 真理 ${id().slice(0, 6)}`
  const memberId = await newMember(name)
  expect((await memberById(db, memberId))?.name).toBe(name)
  expect(await membersNamed(db, 'netloft-hall', name)).toEqual([{ id: memberId, name }])
})

test('a bike’s latest rider of the day counts; who sits down elsewhere has moved; null frees the bike', async () => {
  const day = '2031-01-01'
  const [a, b] = [await newMember('A'), await newMember('B')]
  const sit = (bikeId: string, memberId: string | null) => seat(db, { id: id(), bikeId, memberId, day, at, by })
  const seats = async () => Object.fromEntries((await seatedOn(db, day)).map((s) => [s.bikeId, s.name]))
  await sit('bike-1', a)
  await sit('bike-1', b)
  expect(await seats()).toEqual({ 'bike-1': 'B' })
  await sit('bike-2', b)
  expect(await seats()).toEqual({ 'bike-2': 'B' })
  await sit('bike-2', null)
  expect(await seats()).toEqual({})
  expect(await seatedOn(db, '2031-01-02')).toEqual([])
})

test('a note is kept once, told with its time and side, and gone when taken back', async () => {
  const memberId = await newMember()
  const note = { id: id(), memberId, bikeId: 'bike-2', region: 'knees', sign: 'kneesOut', side: 'left' as const, at, by }
  await makeNote(db, note)
  await makeNote(db, note)
  expect(await notesOn(db, memberId)).toEqual([{ id: note.id, memberId, bikeNumber: 2, region: 'knees', sign: 'kneesOut', side: 'left', madeAt: at, by: 'Ines Harrow' }])
  expect((await notesSince(db, at)).some((n) => n.id === note.id)).toBe(true)
  await withdrawNote(db, note.id, at)
  expect(await notesOn(db, memberId)).toEqual([])
})

test('a set-up nobody has is null, not a fault', async () => {
  expect(await setupById(db, 'none')).toBeNull()
  expect(await rowsOf(db, 'none')).toEqual([])
  expect(await savedSetups(db, 'none')).toEqual([])
})
