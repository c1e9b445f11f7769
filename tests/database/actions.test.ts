/** @jest-environment node */
import { createRng } from '@/core/rng'
import { contactPoints, resolveMarks } from '@/core/bike/contactPoints'
import type { Evidence } from '@/core/evidence/registry'
import { tapeAt, trueTypeFor } from '@/core/simulated/simulatedTape'
import {
  addMachines,
  resolveFault,
  replaceTapeReadings,
  exportTypes,
  finishCalibration,
  importTypeFile,
  addBikeReading,
  addTapeReading,
  recordInspection,
  removeMachine,
  saveType,
  withdrawBikeReading,
  compareTapeReading,
} from '@/interface/bikes/actions'
import { POST as postOutbox } from '@/app/api/outbox/route'
import type { Marks } from '@/core/conventions'
import { assignBike } from '@/interface/class/actions'
import { addMember } from '@/interface/members/actions'
import { continueSetup, startSetup } from '@/interface/setup/actions'
import { EQUIPMENT, TYPES } from '@/scripts/netloftHall'
import type { Scope } from '@/server/accounts/scope'
import { findBike, listBikes } from '@/server/bikes/bikes'
import { findChangeSince } from '@/server/bikes/bikeReadings'
import { listVersions } from '@/server/bikes/versions'
import { listAssignments } from '@/server/classes/assignments'
import { openFloor } from '@/server/classes/classes'
import { listNotesOfMember } from '@/server/classes/notes'
import { closeDatabase, database } from '@/server/db/connection'
import { evidence as evidenceTable } from '@/server/db/tables/riders'
import { listEvidence } from '@/server/setups/evidence'
import { listFinishedSetups, findSetup } from '@/server/setups/setups'
import { studioDay } from '@/server/studio/day'

/** Who is signed in is the session's business; here it is always the same manager. */
let who = 'bram-okell'
jest.mock('@/server/accounts/session', () => {
  const currentUser = async () => ({ userId: who, name: 'Bram Okell', studioId: 'netloft-hall', role: 'manager' })
  return { currentUser, authorize: currentUser }
})

const scope: Scope = { studioId: 'netloft-hall', userId: 'bram-okell', role: 'manager' }
const db = database()
const id = () => crypto.randomUUID()
const row: Evidence = { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: '7', seatSlide: 'D' } }
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' }

/** What a device sends, through the route that takes it. */
async function tell(
  entry: object,
  headers: Record<string, string> = {},
): Promise<{ status: number; outcome: string; say?: string; code?: string }> {
  const request = new Request('http://127.0.0.1/api/outbox', {
    method: 'POST',
    headers: { 'content-type': 'application/json', host: '127.0.0.1', ...headers },
    body: JSON.stringify({ author: 'bram-okell', madeAtMs: Date.now(), ...entry }),
  })
  const response = await postOutbox(request)
  const said = (await response.json()) as { outcome?: string; say?: string; code?: string }
  return {
    status: response.status,
    outcome: response.status === 200 ? 'kept' : response.status === 422 ? 'refused' : String(response.status),
    say: said.say,
    code: said.code,
  }
}
const keep = (setupId: string, rowId: string, seen: Evidence) =>
  tell({ op: 'appendEvidence', id: rowId, setupId, row: seen })
const withdraw = (setupId: string, rowId: string) => tell({ op: 'withdrawEvidence', id: id(), setupId, rowId })
const save = (setupId: string, rowId: string, numbers: Marks) =>
  tell({ op: 'finishSetup', id: rowId, setupId, marks: numbers })
const note = (noteId: string, memberId: string, bikeId: string, sign: string, side: string) =>
  tell({ op: 'addNote', id: noteId, memberId, bikeId, sign, side })
const unnote = (noteId: string) => tell({ op: 'withdrawNote', id: id(), noteId })
const rowsNow = (setupId: string) => listEvidence(db, scope, setupId)

async function member(): Promise<string> {
  const added = await addMember(id(), `Action ${id().slice(0, 8)}`, false)
  if (added.outcome !== 'kept') throw new Error(added.say)
  return added.id
}

/** A set-up begun, or taken up. */
async function begin(memberId: string, bikeId = 'bike-1'): Promise<string> {
  const started = await startSetup(memberId, bikeId)
  if (started.outcome !== 'kept') throw new Error(started.say)
  return started.id
}

afterAll(closeDatabase)
beforeEach(() => {
  who = 'bram-okell'
})

test('adding: spaces are tidied, empty and endless names refused in words, the same name asked about', async () => {
  const name = `Tidy ${id().slice(0, 8)}`
  expect(await addMember(id(), `  ${name.replace(' ', '   ')} `, false)).toMatchObject({ outcome: 'kept' })
  expect(await addMember(id(), name, false)).toEqual({
    outcome: 'refused',
    offer: 'addAnyway',
    say: `There is already a ${name}. Add another one of that name?`,
  })
  expect(await addMember(id(), name, true)).toMatchObject({ outcome: 'kept' })
  expect(await addMember(id(), '   ', false)).toEqual({ outcome: 'refused', say: 'A member needs a name.' })
  expect(await addMember(id(), 'x'.repeat(200), false)).toMatchObject({ outcome: 'refused' })
  expect(await addMember('not an id', name, true)).toMatchObject({ outcome: 'refused' })
})

test('adding twice under one id, as after a lost answer, adds once', async () => {
  const [one, name] = [id(), `Once ${id().slice(0, 8)}`]
  expect(await addMember(one, name, false)).toEqual({ outcome: 'kept', id: one })
  expect(await addMember(one, name, false)).toEqual({ outcome: 'kept', id: one })
})

test(
  'beginning again at the same bike takes up what was left open; unknown people and bikes ' + 'begin nothing',
  async () => {
    const rider = await member()
    const first = await begin(rider)
    expect(await begin(rider)).toBe(first)
    expect(await begin(rider, 'bike-2')).not.toBe(first)
    expect(await startSetup('nobody', 'bike-1')).toMatchObject({ outcome: 'refused' })
    expect(await startSetup(rider, 'bike-99')).toMatchObject({ outcome: 'refused' })
  },
)

test('rows are held to the wire format and to the bike’s own marks, and told in words', async () => {
  const setupId = await begin(await member())
  expect(await keep(setupId, id(), row)).toMatchObject({ outcome: 'kept' })
  expect(await keep(setupId, id(), { ...row, at: { seatHeight: '99' } })).toMatchObject({
    outcome: 'refused',
    say: 'the seat height has no mark 99; the nearest are 15 and 14',
  })
  expect(await keep(setupId, id(), { kind: 'stature', mm: 17_000 })).toMatchObject({
    outcome: 'refused',
    say: 'mm is out of range: at most 2500 is possible',
  })
  expect(await keep(setupId, id(), { kind: 'gaze', seen: 'far' } as unknown as Evidence)).toMatchObject({
    outcome: 'refused',
  })
  expect(await keep('none', id(), row)).toMatchObject({ outcome: 'refused' })
  expect((await rowsNow(setupId)).map((r) => r.row)).toEqual([row])
})

test('labels are kept as the scale spells them', async () => {
  const setupId = await begin(await member(), 'bike-3')
  await keep(setupId, id(), { kind: 'set', at: { seatHeight: '+2.50' } })
  expect((await rowsNow(setupId))[0].row.at).toEqual({ seatHeight: '2.5' })
})

test('saving needs every mark; saved twice it is saved once; afterwards nothing is added or taken back', async () => {
  const rider = await member()
  const setupId = await begin(rider)
  const look = id()
  await keep(setupId, look, row)
  expect(await save(setupId, id(), { seatHeight: '7' })).toMatchObject({
    outcome: 'refused',
    say: 'not every scale has its mark yet',
  })
  expect(await save(setupId, id(), { ...marks, seatSlide: 'Z' })).toMatchObject({ outcome: 'refused' })
  const numbers = id()
  expect(await save(setupId, numbers, marks)).toMatchObject({ outcome: 'kept' })
  expect(await save(setupId, numbers, marks)).toMatchObject({ outcome: 'kept' })
  expect(await listFinishedSetups(db, scope, rider)).toMatchObject([{ marks, finishedBy: 'Bram Okell' }])
  expect(await keep(setupId, id(), row)).toMatchObject({ outcome: 'refused' })
  expect(await withdraw(setupId, look)).toMatchObject({ outcome: 'refused' })
  expect((await findSetup(db, scope, setupId))?.finishedAt).not.toBeNull()
})

const floorOfToday = () => {
  const now = new Date()
  return openFloor(db, scope, { day: studioDay(now, 'Europe/Oslo'), from: now, to: now }, now)
}

test('who sits where holds for its class; unknown classes, bikes and members are refused', async () => {
  const rider = await member()
  const classId = await floorOfToday()
  expect(await assignBike(id(), classId, 'bike-5', rider)).toEqual({ outcome: 'kept' })
  expect((await listAssignments(db, scope, classId)).find((s) => s.bikeId === 'bike-5')?.memberId).toBe(rider)
  expect(await assignBike(id(), classId, 'bike-5', null)).toEqual({ outcome: 'kept' })
  expect((await listAssignments(db, scope, classId)).find((s) => s.bikeId === 'bike-5')).toBeUndefined()
  expect(await assignBike(id(), 'no-class', 'bike-5', rider)).toMatchObject({ outcome: 'refused' })
  expect(await assignBike(id(), classId, 'bike-77', rider)).toMatchObject({ outcome: 'refused' })
  expect(await assignBike(id(), classId, 'bike-5', 'nobody')).toMatchObject({ outcome: 'refused' })
})

test(
  'a note keeps its region, side and author; unknown signs and sides are refused; taken ' + 'back it is gone',
  async () => {
    const rider = await member()
    const made = id()
    expect(await note(made, rider, 'bike-2', 'kneesOut', 'left')).toMatchObject({ outcome: 'kept' })
    expect(await listNotesOfMember(db, scope, rider)).toMatchObject([
      { region: 'knees', sign: 'kneesOut', side: 'left', createdBy: 'Bram Okell' },
    ])
    expect(await note(id(), rider, 'bike-2', 'levitating', 'left')).toMatchObject({ outcome: 'refused' })
    expect(await note(id(), rider, 'bike-2', 'kneesOut', 'up' as 'left')).toMatchObject({ outcome: 'refused' })
    await unnote(made)
    expect(await listNotesOfMember(db, scope, rider)).toEqual([])
  },
)

test('a bike out of use takes no set-up and no rider, until its fault is mended', async () => {
  const memberId = await member()
  const look = id()
  expect(
    await recordInspection(look, 'bike-12', [{ id: `${look.slice(0, 33)}-0`, item: 'stop', note: ' lever bent ' }]),
  ).toEqual({ outcome: 'kept' })
  expect(await startSetup(memberId, 'bike-12')).toMatchObject({ outcome: 'refused' })
  expect(await assignBike(id(), await floorOfToday(), 'bike-12', memberId)).toEqual({
    outcome: 'refused',
    say: 'bike 12 is out of use until its fault is mended',
  })
  expect(await resolveFault('bike-12', `${look.slice(0, 33)}-0`)).toEqual({ outcome: 'kept' })
  expect(await startSetup(memberId, 'bike-12')).toMatchObject({ outcome: 'kept' })
  expect(await recordInspection('not an id!', 'bike-12', [])).toMatchObject({ outcome: 'refused' })
})

test(
  'a machine’s tape: the first sets its offset, one that disagrees says why, and kept anew ' + 'counts alone',
  async () => {
    await addMachines('sorrel', '350')
    const bikeId = (await listBikes(db, scope)).find((b) => b.number === 350)!.id
    const marks = { seatHeight: '8', seatSlide: 'D' }
    const { lengths } = contactPoints(TYPES.sorrel, undefined, resolveMarks(TYPES.sorrel, marks).positions)
    const tape = (mm: number) => ({
      marks,
      lengths: { saddleHeightMm: Math.round(lengths.saddleHeightMm + mm), setbackMm: Math.round(lengths.setbackMm) },
    })
    expect(await compareTapeReading(bikeId, tape(4), 'metric')).toEqual({ outcome: 'kept', says: [] })
    expect(await addBikeReading(id(), bikeId, { kind: 'tape', ...tape(4) })).toEqual({ outcome: 'kept' })
    const offset = async () => (await findBike(db, scope, bikeId))!.machineCalibration.offsetsMm!.seatHeight!
    expect(Math.abs((await offset()) - 4)).toBeLessThan(1.5)
    expect(await compareTapeReading(bikeId, tape(-9), 'metric')).toMatchObject({
      says: [
        expect.stringMatching(
          /^Saddle height reads 1[123] mm less than this bike’s last tape: the post may have slipped\.$/,
        ),
      ],
    })
    const later = id()
    expect(await addBikeReading(later, bikeId, { kind: 'tape', ...tape(-9), resetsBaseline: true })).toEqual({
      outcome: 'kept',
    })
    expect(await offset()).toBeLessThan(-6)
    expect(await findChangeSince(db, scope, bikeId, new Date(Date.now() - 60_000))).not.toBeNull()
    expect(await findChangeSince(db, scope, bikeId, new Date(Date.now() + 60_000))).toBeNull()
    expect(await withdrawBikeReading(bikeId, later)).toEqual({ outcome: 'kept' })
    expect(await offset()).toBeGreaterThan(2)
    expect(
      await compareTapeReading(bikeId, { marks: { seatHeight: '99' }, lengths: { stackMm: 700 } }, 'metric'),
    ).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/no mark 99/),
    })
    expect(await compareTapeReading(bikeId, { marks, lengths: { stackMm: -5 } }, 'metric')).toMatchObject({
      outcome: 'refused',
    })
  },
)

test('tilt and saddle line are kept, the floor taken off; what cannot be is refused', async () => {
  expect(
    await addBikeReading(id(), 'bike-8', { kind: 'tilt', deg: -1.5, floorDeg: -0.5, across: 'highestPoints' }),
  ).toEqual({ outcome: 'kept' })
  expect((await findBike(db, scope, 'bike-8'))!.machineCalibration.tiltDeg).toBe(-1)
  expect(await addBikeReading(id(), 'bike-8', { kind: 'tilt', deg: 80, floorDeg: 0, across: 'highestPoints' })).toEqual(
    {
      outcome: 'refused',
      say: 'an angle here is at most 30°',
    },
  )
  expect(await addBikeReading(id(), 'bike-8', { kind: 'saddleLine', mm: 200, afterClosing: true })).toMatchObject({
    outcome: 'refused',
  })
  expect(await addBikeReading(id(), 'bike-8', { kind: 'weight', kg: 40 } as never)).toEqual({
    outcome: 'refused',
    say: 'this kind of reading is not known',
  })
  expect(await addBikeReading(id(), 'no-bike', { kind: 'saddleLine', mm: 2, afterClosing: true })).toMatchObject({
    outcome: 'refused',
  })
})

test(
  'types: saved, refused in the form’s words, changed meanwhile; exported and brought in ' + 'again without change',
  async () => {
    const name = `Yarrow ${id().slice(0, 6)}`
    const document = { bikeType: { ...TYPES.sorrel, name }, equipment: EQUIPMENT.sorrel }
    const first = id()
    const saved = await saveType(first, null, document)
    expect(saved.outcome).toBe('kept')
    expect(await saveType(id(), null, document)).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/already; give this one another name/),
    })
    expect(await saveType(id(), first, { ...document, bikeType: { ...document.bikeType, crankMm: 3 } })).toEqual({
      outcome: 'refused',
      say: 'Crank: is out of range: at least 50 is possible',
    })
    expect(
      await saveType(id(), first, { ...document, bikeType: { ...document.bikeType, crankMm: 175 } }),
    ).toMatchObject({
      outcome: 'kept',
    })
    expect(
      await saveType(id(), first, { ...document, bikeType: { ...document.bikeType, crankMm: 165 } }),
    ).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/^Bram Okell changed this type on .* while you were editing it/),
    })
    expect(await importTypeFile(await exportTypes())).toMatchObject({
      outcome: 'kept',
      say: 'Nothing to import: all these types are here already.',
    })
    expect(await importTypeFile('{"format":1}')).toMatchObject({
      outcome: 'refused',
      lines: expect.arrayContaining(['/types: is missing']),
    })
  },
)

test('machines by their numbers: ranges, taken ones, and what is no number', async () => {
  expect(await addMachines('sorrel', '301-303')).toEqual({ outcome: 'kept', count: 3 })
  expect(await addMachines('sorrel', '303 304')).toEqual({
    outcome: 'refused',
    say: 'there is a bike 303 already; none was added',
  })
  expect(await addMachines('sorrel', 'A')).toMatchObject({
    outcome: 'refused',
    say: '“A” is not a bike number. Use 1 to 999',
  })
  expect(await addMachines('sorrel', '')).toMatchObject({ outcome: 'refused' })
  const added = (await listBikes(db, scope)).find((b) => b.number === 303)!
  expect(await removeMachine(added.id)).toEqual({ outcome: 'kept' })
  expect(await removeMachine(added.id)).toMatchObject({ outcome: 'refused' })
  expect(await removeMachine('bike-1')).toMatchObject({
    outcome: 'refused',
    say: expect.stringMatching(/this bike has records/),
  })
  expect(await addMachines('nothing', '310')).toMatchObject({ outcome: 'refused' })
})

test('calibration: refused with one mark, kept as a version with how sure it is, also on the machines', async () => {
  const name = `Sedge ${id().slice(0, 6)}`
  const typeId = id()
  const saved = await saveType(typeId, null, { bikeType: { ...TYPES.sorrel, name }, equipment: EQUIPMENT.sorrel })
  if (saved.outcome !== 'kept') throw new Error(saved.say)
  await addMachines(saved.lineId, '401')
  const random = createRng(4)
  const truth = trueTypeFor({ ...TYPES.sorrel, name }, { originMm: 10, directionDeg: 1, spacingShare: 0.02 }, random)
  const settings = [
    ['1', 'A', '1', '1'],
    ['15', 'H', '11', '6'],
    ['1', 'H', '11', '1'],
    ['15', 'A', '1', '6'],
    ['8', 'D', '6', '3'],
    ['1', 'A', '11', '6'],
    ['15', 'H', '1', '1'],
  ]
  for (const [i, [seatHeight, seatSlide, barHeight, barSlide]] of settings.entries()) {
    if (i === 1)
      expect(await finishCalibration(id(), typeId)).toMatchObject({
        outcome: 'refused',
        say: expect.stringMatching(/read at 1 only/),
      })
    expect(
      await addTapeReading(id(), typeId, tapeAt(truth, { seatHeight, seatSlide, barHeight, barSlide }, random, 1)),
    ).toEqual({ outcome: 'kept' })
  }
  expect(await finishCalibration(id(), typeId)).toEqual({ outcome: 'kept', lineId: saved.lineId })
  const [bike] = (await listBikes(db, scope)).filter((b) => b.number === 401)
  expect(bike.type.seatOrigin.xMm).toBeCloseTo(truth.seatOrigin.xMm, -1)
  expect(bike.machineCalibration.sdMm!.seatHeight).toBeGreaterThan(1)
  expect(await finishCalibration(id(), typeId)).toMatchObject({
    outcome: 'refused',
    say: expect.stringMatching(/changed this type meanwhile/),
  })
  // What only touches the equipment keeps what the tape found; another geometry does not.
  const [latest] = await listVersions(db, scope, saved.lineId)
  await saveType(id(), latest.id, { bikeType: latest.bikeType, equipment: { ...latest.equipment, stop: 'lever' } })
  const [edited] = await listVersions(db, scope, saved.lineId)
  expect(edited).toMatchObject({ version: 3, calibration: latest.calibration, equipment: { stop: 'lever' } })
  await saveType(id(), edited.id, {
    bikeType: { ...edited.bikeType, gripOrigin: { ...edited.bikeType.gripOrigin, yMm: 640 } },
    equipment: edited.equipment,
  })
  expect((await listVersions(db, scope, saved.lineId))[0].calibration).toBeNull()
})

describe('what a device sends', () => {
  test('is taken only from who tapped it, from a page of this server, as JSON of its size', async () => {
    const setupId = await begin(await member())
    const entry = { op: 'appendEvidence', id: id(), setupId, row }
    who = 'ines-harrow'
    expect(await tell(entry)).toMatchObject({ status: 409 })
    who = 'bram-okell'
    expect(await tell(entry, { origin: 'http://elsewhere.example' })).toMatchObject({ status: 403 })
    expect(await tell(entry, { 'content-type': 'text/plain' })).toMatchObject({ status: 422 })
    expect(await tell({ ...entry, padding: 'x'.repeat(30_000) })).toMatchObject({ status: 422 })
    expect(await tell({ ...entry, op: 'constructor' })).toMatchObject({ status: 422, code: 'malformed' })
    expect(await rowsNow(setupId)).toEqual([])
    expect(await tell(entry, { origin: 'http://127.0.0.1' })).toMatchObject({ status: 200 })
  })

  test.each([null, 7, [], 'x', { nested: true }, undefined])(
    '%p where a text belongs is refused in words, never a fault',
    async (odd) => {
      const setupId = await begin(await member())
      for (const entry of [
        { op: 'appendEvidence', id: odd, setupId, row },
        { op: 'appendEvidence', id: id(), setupId: odd, row },
        { op: 'appendEvidence', id: id(), setupId, row: odd },
        { op: 'withdrawEvidence', id: id(), setupId, rowId: odd },
        { op: 'finishSetup', id: id(), setupId, marks: odd },
        { op: 'addNote', id: id(), memberId: odd, bikeId: odd, sign: odd, side: odd },
        { op: 'withdrawNote', id: id(), noteId: odd },
        { op: odd, id: id() },
      ])
        expect([200, 422]).toContain((await tell(entry)).status)
      expect((await findSetup(db, scope, setupId))?.finishedAt).toBeNull()
    },
  )

  test('the second to save is told who saved what, and may go on with a new set-up from their own rows', async () => {
    const rider = await member()
    const setupId = await begin(rider)
    await keep(setupId, id(), row)
    const both = await Promise.all([save(setupId, id(), marks), save(setupId, id(), { ...marks, seatHeight: '8' })])
    expect(both.map((b) => b.outcome).sort()).toEqual(['kept', 'refused'])
    const told = both.find((b) => b.outcome === 'refused')!
    expect(told).toMatchObject({
      code: 'finished',
      say: expect.stringMatching(/^Bram Okell saved [78] · D · 8 · 3 here at \d\d:\d\d\./),
    })
    expect(await listFinishedSetups(db, scope, rider)).toHaveLength(1)
    const rows = [
      { id: id(), row },
      {
        id: id(),
        row: { kind: 'kneeAngle', deg: 33, by: 'goniometer', at: { seatHeight: '8', seatSlide: 'D' } } as Evidence,
      },
    ]
    const next = await continueSetup(setupId, rows)
    if (next.outcome !== 'kept') throw new Error(next.say)
    expect(next.id).not.toBe(setupId)
    expect(await continueSetup(setupId, rows)).toEqual(next)
    expect(await rowsNow(next.id)).toEqual(rows)
  })

  test('a set-up holds five hundred rows; the next is refused in words', async () => {
    const setupId = await begin(await member())
    await db.insert(evidenceTable).values(
      Array.from({ length: 500 }, () => ({
        id: id(),
        studioId: scope.studioId,
        setupId,
        row,
        createdAt: new Date(),
        createdBy: 'bram-okell',
      })),
    )
    expect(await keep(setupId, id(), row)).toMatchObject({ outcome: 'refused', code: 'full' })
  })

  test('a note made an hour ago without network keeps its time; a clock in the future does not', async () => {
    const rider = await member()
    const hourAgo = Date.now() - 3_600_000
    await tell({
      op: 'addNote',
      id: id(),
      memberId: rider,
      bikeId: 'bike-2',
      sign: 'kneesOut',
      side: 'left',
      madeAtMs: hourAgo,
    })
    await tell({
      op: 'addNote',
      id: id(),
      memberId: rider,
      bikeId: 'bike-2',
      sign: 'rocking',
      side: 'both',
      madeAtMs: Date.now() + 9e9,
    })
    const [later, earlier] = await listNotesOfMember(db, scope, rider)
    expect(earlier.createdAt.getTime()).toBe(hourAgo)
    expect(later.createdAt.getTime()).toBeLessThanOrEqual(Date.now())
  })
})

describe('odd input is refused in words', () => {
  test('names: what cannot be seen is taken out, and what is then left must be readable', async () => {
    const mark = id().slice(0, 8)
    const added = await addMember(id(), `Jo\u200b\u0000 \u202e${mark}\ufeff`, false)
    expect(added.outcome).toBe('kept')
    expect(await addMember(id(), `Jo ${mark}`, false)).toMatchObject({ offer: 'addAnyway' })
    for (const nothing of ['\u200b\u200d', '\u0000', '⠀', '...'])
      expect(await addMember(id(), nothing, true)).toMatchObject({ outcome: 'refused', say: 'A member needs a name.' })
    for (const odd of [null, 7, {}, []])
      expect(await addMember(id(), odd as unknown as string, true)).toMatchObject({ outcome: 'refused' })
  })

  test('one item wrong three hundred times is one fault too many; a tape without lengths says nothing', async () => {
    const faults = Array.from({ length: 300 }, () => ({ id: id(), item: 'pins' as const, note: '' }))
    expect(await recordInspection(id(), 'bike-8', faults)).toEqual({
      outcome: 'refused',
      say: 'one item is in the list twice',
    })
    expect(await recordInspection(id(), 'bike-8', [null] as never)).toMatchObject({ outcome: 'refused' })
    expect(await addTapeReading(id(), 'sorrel', { marks: { seatHeight: '3' } } as never)).toMatchObject({
      outcome: 'refused',
    })
    expect(await addTapeReading(id(), 'sorrel', { marks: { seatHeight: '3' }, lengths: {} })).toMatchObject({
      outcome: 'refused',
    })
    expect(await addTapeReading(id(), 'sorrel', null as never)).toMatchObject({ outcome: 'refused' })
    const wrong = [
      null,
      [],
      [null],
      'all',
      [{ id: 1, newId: id() }],
      [{ id: id(), newId: id(), row: null }],
      [{ id: id(), newId: id(), row: { marks: { seatHeight: '3' }, lengths: {} } }],
    ]
    for (const replaced of wrong)
      expect(await replaceTapeReadings('sorrel', replaced as never)).toMatchObject({ outcome: 'refused' })
    expect(
      await replaceTapeReadings('no-such-type', [
        { id: id(), newId: id(), row: { marks: { seatHeight: '3' }, lengths: { stackMm: 700 } } },
      ]),
    ).toMatchObject({ outcome: 'refused' })
  })
})
