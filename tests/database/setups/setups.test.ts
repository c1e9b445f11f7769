/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { isUnmeasured } from '@/core/bikes/calibration/parameters'
import type { Evidence } from '@/core/riders/evidence/registry'
import { advise } from '@/core/setups/recommend/recommend'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { bikeType } from '@/server/bikes/tables'
import { writeVersion } from '@/server/bikes/versions'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { assignBike, listAssignments } from '@/server/classes/assignments'
import { openFloor } from '@/server/classes/classes'
import { addNote, listNotesOfMember, listNotesOfMembers, withdrawNote } from '@/server/classes/notes'
import { appendEvidence, finishSetup, listEvidence, withdrawEvidence } from '@/server/setups/evidence'
import { listOpenSetups, listFinishedSetups, findSetup, startSetup } from '@/server/setups/setups'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember, findMember, findMembersByName, renameMember } from '@/server/riders/members/members'
import { PAGE_SIZE, searchMembers } from '@/server/pages/riders/members'
import { latestNumbers } from '@/server/setups/latestNumbers'

const db = database()
const everyone = { typed: '', withoutNumbers: false, page: 1 }
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const at = new Date('2026-03-29T00:59:30.123Z')
const landmark: Evidence = { kind: 'landmarkAtMark', landmark: 'hipCrest', at: { seatHeight: '9' } }
const set: Evidence = { kind: 'set', at: { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' } }

async function newMember(name = `Test ${id().slice(0, 8)}`): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name }, at)
  return memberId
}

async function newSetup(memberId: string, bikeId = 'bike-1'): Promise<string> {
  const started = await startSetup(db, scope, { id: id(), memberId, bikeId }, at)
  if (started.outcome !== 'kept') throw new Error(started.outcome)
  return started.id
}

afterAll(closeDatabase)

test(
  'the demo hall: about thirty members, twenty-four bikes of three types, ten with numbers ' + 'that fit their bike',
  async () => {
    const all = await listBikes(db, scope)
    const bikes = all.filter((b) => /^bike-/.test(b.id))
    expect(bikes.map((b) => b.number)).toEqual(Array.from({ length: 24 }, (_, i) => i + 1))
    expect(new Set(bikes.map((b) => b.type.name))).toEqual(new Set(['Sorrel', 'Meadowsweet', 'Bracken']))
    const ids = Array.from({ length: 30 }, (_, i) => `member-${String(i + 1).padStart(2, '0')}`)
    expect(await Promise.all(ids.map((one) => findMember(db, scope, one)))).not.toContain(null)
    expect([...(await latestNumbers(db, scope, ids)).keys()].sort()).toEqual(ids.slice(0, 10))
  },
)

test('rows come back as they were seen, in order; the same row sent twice is one row', async () => {
  const setupId = await newSetup(await newMember())
  const first = { id: id(), row: landmark }
  await appendEvidence(db, scope, setupId, first, at)
  await appendEvidence(db, scope, setupId, first, at)
  await appendEvidence(db, scope, setupId, { id: id(), row: set }, at)
  expect((await listEvidence(db, scope, setupId)).map((r) => r.row)).toEqual([landmark, set])
})

test('a withdrawn row is not handed out; withdrawing twice, or another set-up’s row, changes nothing', async () => {
  const memberId = await newMember()
  const [mine, other] = [await newSetup(memberId), await newSetup(memberId, 'bike-2')]
  const row = { id: id(), row: landmark }
  await appendEvidence(db, scope, mine, row, at)
  await withdrawEvidence(db, scope, other, row.id, at)
  expect(await listEvidence(db, scope, mine)).toHaveLength(1)
  await withdrawEvidence(db, scope, mine, row.id, at)
  await withdrawEvidence(db, scope, mine, row.id, at)
  expect(await listEvidence(db, scope, mine)).toEqual([])
})

test('a finished set-up gives the member numbers, with date to the millisecond in UTC and who', async () => {
  const memberId = await newMember()
  const setupId = await newSetup(memberId)
  expect((await listOpenSetups(db, scope, memberId)).map((o) => o.id)).toEqual([setupId])
  await appendEvidence(db, scope, setupId, { id: id(), row: landmark }, at)
  await finishSetup(db, scope, setupId, { id: id(), marks: set.at! }, at)
  const [saved] = await listFinishedSetups(db, scope, memberId)
  expect(saved).toMatchObject({
    marks: set.at,
    finishedBy: 'Ines Harrow',
    bikeNumber: 1,
    finishedAt: at,
    evidence: [landmark, set],
  })
  expect((await latestNumbers(db, scope, [memberId])).get(memberId)?.marks).toEqual(set.at)
  expect(await listOpenSetups(db, scope, memberId)).toEqual([])
})

test('a set-up of an unknown member or at an unknown bike is not begun; what fails half-way is undone', async () => {
  const memberId = id()
  const begin = (rider: string, bikeId: string) => startSetup(db, scope, { id: id(), memberId: rider, bikeId }, at)
  expect(await begin('nobody', 'bike-1')).toEqual({ outcome: 'gone' })
  expect(await begin(await newMember(), 'bike-99')).toEqual({ outcome: 'gone' })
  const setupId = await newSetup(await newMember())
  await expect(
    db.transaction(async (tx) => {
      await addMember(tx, scope, { id: memberId, name: 'Half Done' }, at)
      await appendEvidence(tx, { ...scope, userId: 'nobody' }, setupId, { id: id(), row: landmark }, at)
    }),
  ).rejects.toMatchObject({ cause: { errno: 1452 } })
  expect(await findMember(db, scope, memberId)).toBeNull()
})

test('names keep every letter, and members of one name are found', async () => {
  const name = `Ægir Ōmura-O’Dell 真理 ${id().slice(0, 6)}`
  const memberId = await newMember(name)
  expect((await findMember(db, scope, memberId))?.name).toBe(name)
  expect(await findMembersByName(db, scope, name)).toEqual([{ id: memberId, name }])
})

test('a bike’s latest rider of the day counts; who sits down elsewhere has moved; null frees the bike', async () => {
  const classId = await openFloor(db, scope, { day: '2031-01-01', from: at, to: at }, at)
  const [a, b] = [await newMember('A'), await newMember('B')]
  const sit = (bikeId: string, memberId: string | null) =>
    assignBike(db, scope, { id: id(), bikeId, memberId, classId }, at)
  const seats = async () =>
    Object.fromEntries((await listAssignments(db, scope, classId)).map((s) => [s.bikeId, s.name]))
  await sit('bike-1', a)
  await sit('bike-1', b)
  expect(await seats()).toEqual({ 'bike-1': 'B' })
  await sit('bike-2', b)
  expect(await seats()).toEqual({ 'bike-2': 'B' })
  await sit('bike-2', null)
  expect(await seats()).toEqual({})
  const nextDay = await openFloor(db, scope, { day: '2031-01-02', from: at, to: at }, at)
  expect(await openFloor(db, scope, { day: '2031-01-02', from: at, to: at }, at)).toBe(nextDay)
  expect(await listAssignments(db, scope, nextDay)).toEqual([])
})

test('a note is stored once, reported with its time and side, and gone when taken back', async () => {
  const memberId = await newMember()
  const note = {
    id: id(),
    memberId,
    bikeId: 'bike-2',
    region: 'knees',
    sign: 'kneesOut',
    side: 'left' as const,
    createdAt: at,
  }
  await addNote(db, scope, note)
  await addNote(db, scope, note)
  expect(await listNotesOfMember(db, scope, memberId)).toMatchObject([
    {
      id: note.id,
      memberId,
      bikeNumber: 2,
      region: 'knees',
      sign: 'kneesOut',
      side: 'left',
      createdAt: at,
      createdBy: 'Ines Harrow',
    },
  ])
  expect((await listNotesOfMembers(db, scope, [memberId], at)).some((n) => n.id === note.id)).toBe(true)
  await withdrawNote(db, scope, note.id, at)
  expect(await listNotesOfMember(db, scope, memberId)).toEqual([])
})

test('a set-up nobody has is null, not a fault', async () => {
  expect(await findSetup(db, scope, 'none')).toBeNull()
  expect(await listEvidence(db, scope, 'none')).toEqual([])
  expect(await listFinishedSetups(db, scope, 'none')).toEqual([])
})

describe('an id belongs to one content', () => {
  test(
    'a row of evidence: again it changes nothing, with another content or in another set-up ' + 'it is told',
    async () => {
      const memberId = await newMember()
      const [mine, other] = [await newSetup(memberId), await newSetup(memberId, 'bike-2')]
      const rowId = id()
      expect(await appendEvidence(db, scope, mine, { id: rowId, row: landmark }, at)).toEqual({ outcome: 'kept' })
      expect(await appendEvidence(db, scope, mine, { id: rowId, row: landmark }, at)).toEqual({ outcome: 'kept' })
      expect(await appendEvidence(db, scope, mine, { id: rowId, row: set }, at)).toEqual({ outcome: 'idTaken' })
      expect(await appendEvidence(db, scope, other, { id: rowId, row: landmark }, at)).toEqual({ outcome: 'idTaken' })
      expect(await finishSetup(db, scope, other, { id: rowId, marks: set.at! }, at)).toEqual({ outcome: 'idTaken' })
      expect(await listEvidence(db, scope, other)).toEqual([])
      expect((await findSetup(db, scope, other))?.finishedAt).toBeNull()
    },
  )

  test(
    'a member whose spelling was corrected after a lost answer: the answer reports which name was stored, ' +
      'and renamed once',
    async () => {
      const memberId = id()
      const add = (name: string) => addMember(db, scope, { id: memberId, name }, at)
      expect(await add('Tova Kestrand')).toEqual({ outcome: 'kept' })
      expect(await add('Tova Kestrand')).toEqual({ outcome: 'kept' })
      expect(await add('Tove Kestrand')).toEqual({ outcome: 'idTaken', name: 'Tova Kestrand' })
      expect(await renameMember(db, scope, memberId, { from: 'Tova Kestrand', to: 'Tove Kestrand' })).toBe(true)
      expect(await renameMember(db, scope, memberId, { from: 'Tova Kestrand', to: 'Somebody Else' })).toBe(false)
      expect((await findMember(db, scope, memberId))?.name).toBe('Tove Kestrand')
    },
  )

  test('a note, also after it was taken back; a bike’s rider, also after the bike was given to another', async () => {
    const [a, b] = [await newMember(), await newMember()]
    const note = {
      id: id(),
      memberId: a,
      bikeId: 'bike-2',
      region: 'knees',
      sign: 'kneesOut',
      side: 'left' as const,
      createdAt: at,
    }
    expect(await addNote(db, scope, note)).toEqual({ outcome: 'kept' })
    await withdrawNote(db, scope, note.id, at)
    expect(await addNote(db, scope, note)).toEqual({ outcome: 'kept' })
    expect(await listNotesOfMember(db, scope, a)).toEqual([])
    expect(await addNote(db, scope, { ...note, side: 'right' })).toEqual({ outcome: 'idTaken' })

    const classId = await openFloor(db, scope, { day: '2031-02-01', from: at, to: at }, at)
    const first = { id: id(), bikeId: 'bike-1', memberId: a, classId }
    await assignBike(db, scope, first, at)
    await assignBike(db, scope, { ...first, id: id(), memberId: b }, at)
    expect(await assignBike(db, scope, first, at)).toEqual({ outcome: 'kept' })
    expect(await assignBike(db, scope, { ...first, bikeId: 'bike-2' }, at)).toEqual({ outcome: 'idTaken' })
    expect((await listAssignments(db, scope, classId)).map((s) => [s.bikeId, s.memberId])).toEqual([['bike-1', b]])
  })
})

describe('the list of members', () => {
  test(
    'is searched on the server: every word typed stands in the name, accents, capitals and ' + 'wildcards do not count',
    async () => {
      const mark = id().slice(0, 8)
      const memberId = await newMember(`Zoë Marsh-Åkerley ${mark}`)
      const found = async (typed: string) =>
        (await searchMembers(db, scope, { ...everyone, typed })).members.map((m) => m.id)
      expect(await found(`${mark} zoe ake`)).toEqual([memberId])
      expect(await found(`${mark} bram`)).toEqual([])
      expect(await found(`${mark} %`)).toEqual([])
      expect(await found(`${mark} _`)).toEqual([])
    },
  )

  test('comes a page at a time with the latest numbers; those without are counted and can be requested', async () => {
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
        scope,
        setupId,
        { id: id(), marks: { ...set.at, seatHeight } },
        new Date(at.getTime() + Number(seatHeight)),
      )
    }
    const open = await newSetup(memberIds[4])
    const first = await searchMembers(db, scope, { ...everyone, typed: mark })
    expect(first).toMatchObject({ total: 62, page: 1, pages: 2 })
    expect(first.members.map((m) => m.id)).toEqual(memberIds.slice(0, PAGE_SIZE))
    expect(first.members[3].numbers).toMatchObject({ marks: { seatHeight: '6' }, bikeNumber: 2 })
    expect(first.members[4]).toMatchObject({ numbers: null, openSetupId: open })
    expect((await searchMembers(db, scope, { ...everyone, typed: mark, page: 99 })).members.map((m) => m.id)).toEqual(
      memberIds.slice(PAGE_SIZE),
    )
    expect((await searchMembers(db, scope, { typed: mark, withoutNumbers: true, page: 1 })).total).toBe(61)
    const { counts } = await searchMembers(db, scope, everyone)
    expect(counts.all - counts.withoutNumbers).toBeGreaterThanOrEqual(11)
  })
})

test('on a type that nobody measured a set-up begins as unsure as a guess; a tape on the type ends that', async () => {
  const line = id()
  const document = { bikeType: { ...HOLES_BIKE, name: `Guessed ${line.slice(0, 6)}` }, equipment: DEFAULT_EQUIPMENT }
  const written = await writeVersion(db, scope, { id: line, baseId: null, document }, at)
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  const number = 2700
  await addBikes(db, scope, written.lineId, [number])
  const bike = (await listBikes(db, scope)).find((one) => one.number === number)!
  const begin = async () => {
    const [memberId, setupId] = [id(), id()]
    await addMember(db, scope, { id: memberId, name: `Guess ${memberId.slice(0, 6)}` }, at)
    await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, at)
    return (await findSetup(db, scope, setupId))!.machineCalibration
  }
  const guessed = await begin()
  expect(isUnmeasured(guessed)).toBe(true)
  const spread = (machine: typeof guessed) =>
    advise({ bikeType: document.bikeType, bike: machine, evidence: [{ kind: 'stature', mm: 1700 }] }).belief
      .kneeFlexionDeg.sd
  const expectedErrorMm = { saddleHeightMm: 1, setbackMm: 1, reachMm: 1, stackMm: 1 }
  const calibration = { rmsMm: 1, readings: 6, sdMm: { seatHeight: 1, seatSlide: 1, barHeight: 1 }, expectedErrorMm }
  await db.update(bikeType).set({ calibration }).where(eq(bikeType.id, bike.typeId))
  const measured = await begin()
  expect(isUnmeasured(measured)).toBe(false)
  // 25 mm of height are some ten degrees of knee: the chances beside the marks are wider by as much.
  expect(spread(guessed)).toBeGreaterThan(spread(measured) + 1)
})
