/** @jest-environment node */
import type { Evidence } from '@/core/evidence/evidence'
import { bikesOf } from '@/server/bikes/bikes'
import { closeDatabase, database } from '@/server/db/connection'
import {
  addMember,
  latestNumbers,
  memberById,
  membersNamed,
  PAGE_SIZE,
  renameMember,
  searchMembers,
} from '@/server/members/members'
import { addNote, assignBike, assignmentsOn, notesOn, notesSince, withdrawNote } from '@/server/notes/notes'
import {
  appendEvidence,
  finishSetup,
  openSetupsOf,
  rowsOf,
  savedSetups,
  setupById,
  startSetup,
  withdrawEvidence,
} from '@/server/setups/setups'
import { getStudio } from '@/server/studio/studio'

const db = database()
const SORREL = { id: 'bike-1', typeId: 'sorrel', own: {} }
const everyone = { typed: '', withoutNumbers: false, page: 1 }
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

const newSetup = (memberId: string, bikeId = 'bike-1'): Promise<string> =>
  startSetup(db, { id: id(), memberId, bike: { ...SORREL, id: bikeId }, at, by })

afterAll(closeDatabase)

test('the demo hall: about thirty members, twenty-four bikes of three types, ten with numbers that fit their bike', async () => {
  const studio = await getStudio(db)
  const all = await bikesOf(db, studio.id)
  const bikes = all.filter((b) => /^bike-/.test(b.id))
  expect(bikes.map((b) => b.number)).toEqual(Array.from({ length: 24 }, (_, i) => i + 1))
  expect(new Set(bikes.map((b) => b.type.name))).toEqual(new Set(['Sorrel', 'Meadowsweet', 'Bracken']))
  const ids = Array.from({ length: 30 }, (_, i) => `member-${String(i + 1).padStart(2, '0')}`)
  expect(await Promise.all(ids.map((one) => memberById(db, one)))).not.toContain(null)
  expect([...(await latestNumbers(db, ids)).keys()].sort()).toEqual(ids.slice(0, 10))
})

test('rows come back as they were seen, in order; the same row sent twice is one row', async () => {
  const setupId = await newSetup(await newMember())
  const first = { id: id(), row: landmark }
  await appendEvidence(db, setupId, first, at, by)
  await appendEvidence(db, setupId, first, at, by)
  await appendEvidence(db, setupId, { id: id(), row: set }, at, by)
  expect((await rowsOf(db, setupId)).map((r) => r.row)).toEqual([landmark, set])
})

test('a withdrawn row is not handed out; withdrawing twice, or another set-up’s row, changes nothing', async () => {
  const memberId = await newMember()
  const [mine, other] = [await newSetup(memberId), await newSetup(memberId, 'bike-2')]
  const row = { id: id(), row: landmark }
  await appendEvidence(db, mine, row, at, by)
  await withdrawEvidence(db, other, row.id, at, by)
  expect(await rowsOf(db, mine)).toHaveLength(1)
  await withdrawEvidence(db, mine, row.id, at, by)
  await withdrawEvidence(db, mine, row.id, at, by)
  expect(await rowsOf(db, mine)).toEqual([])
})

test('a finished set-up gives the member numbers, with date to the millisecond in UTC and who', async () => {
  const memberId = await newMember()
  const setupId = await newSetup(memberId)
  expect((await openSetupsOf(db, memberId)).map((o) => o.id)).toEqual([setupId])
  await appendEvidence(db, setupId, { id: id(), row: landmark }, at, by)
  await finishSetup(db, setupId, { id: id(), marks: set.at! }, at, by)
  const [saved] = await savedSetups(db, memberId)
  expect(saved).toMatchObject({ marks: set.at, by: 'Ines Harrow', bikeNumber: 1, at, evidence: [landmark, set] })
  expect((await latestNumbers(db, [memberId])).get(memberId)?.marks).toEqual(set.at)
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
  const sit = (bikeId: string, memberId: string | null) => assignBike(db, { id: id(), bikeId, memberId, day, at, by })
  const seats = async () => Object.fromEntries((await assignmentsOn(db, day)).map((s) => [s.bikeId, s.name]))
  await sit('bike-1', a)
  await sit('bike-1', b)
  expect(await seats()).toEqual({ 'bike-1': 'B' })
  await sit('bike-2', b)
  expect(await seats()).toEqual({ 'bike-2': 'B' })
  await sit('bike-2', null)
  expect(await seats()).toEqual({})
  expect(await assignmentsOn(db, '2031-01-02')).toEqual([])
})

test('a note is kept once, told with its time and side, and gone when taken back', async () => {
  const memberId = await newMember()
  const note = {
    id: id(),
    memberId,
    bikeId: 'bike-2',
    region: 'knees',
    sign: 'kneesOut',
    side: 'left' as const,
    at,
    by,
  }
  await addNote(db, note)
  await addNote(db, note)
  expect(await notesOn(db, memberId)).toEqual([
    {
      id: note.id,
      memberId,
      bikeNumber: 2,
      region: 'knees',
      sign: 'kneesOut',
      side: 'left',
      madeAt: at,
      by: 'Ines Harrow',
    },
  ])
  expect((await notesSince(db, at)).some((n) => n.id === note.id)).toBe(true)
  await withdrawNote(db, note.id, at)
  expect(await notesOn(db, memberId)).toEqual([])
})

test('a set-up nobody has is null, not a fault', async () => {
  expect(await setupById(db, 'none')).toBeNull()
  expect(await rowsOf(db, 'none')).toEqual([])
  expect(await savedSetups(db, 'none')).toEqual([])
})

describe('an id belongs to one content', () => {
  test('a row of evidence: again it changes nothing, with another content or in another set-up it is told', async () => {
    const memberId = await newMember()
    const [mine, other] = [await newSetup(memberId), await newSetup(memberId, 'bike-2')]
    const rowId = id()
    expect(await appendEvidence(db, mine, { id: rowId, row: landmark }, at, by)).toEqual({ outcome: 'kept' })
    expect(await appendEvidence(db, mine, { id: rowId, row: landmark }, at, by)).toEqual({ outcome: 'kept' })
    expect(await appendEvidence(db, mine, { id: rowId, row: set }, at, by)).toEqual({ outcome: 'idTaken' })
    expect(await appendEvidence(db, other, { id: rowId, row: landmark }, at, by)).toEqual({ outcome: 'idTaken' })
    expect(await finishSetup(db, other, { id: rowId, marks: set.at! }, at, by)).toEqual({ outcome: 'idTaken' })
    expect(await rowsOf(db, other)).toEqual([])
    expect((await setupById(db, other))?.finishedAt).toBeNull()
  })

  test('a member whose spelling was corrected after a lost answer: told which name was kept, and renamed once', async () => {
    const memberId = id()
    const add = (name: string) => addMember(db, { id: memberId, studioId: 'netloft-hall', name, at, by })
    expect(await add('Tova Kestrand')).toEqual({ outcome: 'kept' })
    expect(await add('Tova Kestrand')).toEqual({ outcome: 'kept' })
    expect(await add('Tove Kestrand')).toEqual({ outcome: 'idTaken', name: 'Tova Kestrand' })
    expect(await renameMember(db, memberId, 'Tova Kestrand', 'Tove Kestrand')).toBe(true)
    expect(await renameMember(db, memberId, 'Tova Kestrand', 'Somebody Else')).toBe(false)
    expect((await memberById(db, memberId))?.name).toBe('Tove Kestrand')
  })

  test('a note, also after it was taken back; a bike’s rider, also after the bike was given to another', async () => {
    const [a, b] = [await newMember(), await newMember()]
    const note = {
      id: id(),
      memberId: a,
      bikeId: 'bike-2',
      region: 'knees',
      sign: 'kneesOut',
      side: 'left' as const,
      at,
      by,
    }
    expect(await addNote(db, note)).toEqual({ outcome: 'kept' })
    await withdrawNote(db, note.id, at)
    expect(await addNote(db, note)).toEqual({ outcome: 'kept' })
    expect(await notesOn(db, a)).toEqual([])
    expect(await addNote(db, { ...note, side: 'right' })).toEqual({ outcome: 'idTaken' })

    const day = '2031-02-01'
    const first = { id: id(), bikeId: 'bike-1', memberId: a, day, at, by }
    await assignBike(db, first)
    await assignBike(db, { ...first, id: id(), memberId: b })
    expect(await assignBike(db, first)).toEqual({ outcome: 'kept' })
    expect(await assignBike(db, { ...first, bikeId: 'bike-2' })).toEqual({ outcome: 'idTaken' })
    expect((await assignmentsOn(db, day)).map((s) => [s.bikeId, s.memberId])).toEqual([['bike-1', b]])
  })
})

describe('the list of members', () => {
  test('is searched on the server: every word typed stands in the name, accents, capitals and wildcards do not count', async () => {
    const mark = id().slice(0, 8)
    const memberId = await newMember(`Zoë Marsh-Åkerley ${mark}`)
    const found = async (typed: string) =>
      (await searchMembers(db, 'netloft-hall', { ...everyone, typed })).members.map((m) => m.id)
    expect(await found(`${mark} zoe ake`)).toEqual([memberId])
    expect(await found(`${mark} bram`)).toEqual([])
    expect(await found(`${mark} %`)).toEqual([])
    expect(await found(`${mark} _`)).toEqual([])
  })

  test('comes a page at a time with the latest numbers; those without are counted and can be asked for', async () => {
    const mark = id().slice(0, 8)
    const memberIds: string[] = []
    for (let i = 0; i < 62; i++) memberIds.push(await newMember(`Page ${mark} ${String(i).padStart(2, '0')}`))
    for (const [bikeId, seatHeight] of [
      ['bike-1', '5'],
      ['bike-2', '6'],
    ]) {
      const setupId = await newSetup(memberIds[3], bikeId)
      await finishSetup(
        db,
        setupId,
        { id: id(), marks: { ...set.at, seatHeight } },
        new Date(at.getTime() + Number(seatHeight)),
        by,
      )
    }
    const open = await newSetup(memberIds[4])
    const first = await searchMembers(db, 'netloft-hall', { ...everyone, typed: mark })
    expect(first).toMatchObject({ total: 62, page: 1, pages: 2 })
    expect(first.members.map((m) => m.id)).toEqual(memberIds.slice(0, PAGE_SIZE))
    expect(first.members[3].numbers).toMatchObject({ marks: { seatHeight: '6' }, bikeNumber: 2 })
    expect(first.members[4]).toMatchObject({ numbers: null, openSetupId: open })
    expect(
      (await searchMembers(db, 'netloft-hall', { ...everyone, typed: mark, page: 99 })).members.map((m) => m.id),
    ).toEqual(memberIds.slice(PAGE_SIZE))
    expect((await searchMembers(db, 'netloft-hall', { typed: mark, withoutNumbers: true, page: 1 })).total).toBe(61)
    const { counts } = await searchMembers(db, 'netloft-hall', everyone)
    expect(counts.all - counts.withoutNumbers).toBeGreaterThanOrEqual(11)
  })
})
