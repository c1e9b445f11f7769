/** @jest-environment node */
import { createRng } from '@/core/base/rng'
import { contactPoints, resolveMarks } from '@/core/bikes/bike/contactPoints'
import type { Evidence } from '@/core/riders/evidence/registry'
import { tapeAt, trueTypeFor } from '@/core/simulated/simulatedTape'
import { POST as postOutbox } from '@/app/api/outbox/route'
import type { Marks } from '@/core/base/conventions'
import { query, command } from '@/interface/commands/command'
import { EQUIPMENT, TYPES } from '@/scripts/netloftHall'
import type { Scope } from '@/server/platform/accounts/scope'
import { findBike, listBikes } from '@/server/bikes/bikes'
import { findChangeSince } from '@/server/bikes/bikeReadings'
import { listVersions } from '@/server/bikes/versions'
import { listAssignments } from '@/server/classes/assignments'
import { openFloor } from '@/server/classes/classes'
import { giveConsent } from '@/server/riders/consent'
import { listNotesOfMember } from '@/server/classes/notes'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { evidence as evidenceTable } from '@/server/setups/tables'
import { listEvidence } from '@/server/setups/evidence'
import { listFinishedSetups, findSetup } from '@/server/setups/setups'
import { studioDay } from '@/core/messages/words/dates'

/** Who is signed in is the session's business; here it is always the same manager. */
let who = 'bram-okell'
jest.mock('@/server/platform/accounts/session', () => {
  const currentUser = async () => ({ userId: who, name: 'Bram Okell', studioId: 'netloft-hall', role: 'manager' })
  return { currentUser, requireUser: currentUser }
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
  const added = await command('members.addMember', { typed: `Action ${id().slice(0, 8)}`, anyway: false }, id())
  if (added.outcome !== 'kept') throw new Error(added.say)
  await giveConsent(db, scope, added.memberId, 'spoken', new Date())
  return added.memberId
}

/** The studio's types as the text of a file. */
async function exported(): Promise<string> {
  const found = await query('bikes.exportTypes', {})
  if (found.outcome !== 'found') throw new Error(found.say)
  return found.text
}

/** A set-up begun, or taken up. */
async function begin(memberId: string, bikeId = 'bike-1'): Promise<string> {
  const started = await command('setups.startSetup', { memberId, bikeId })
  if (started.outcome !== 'kept') throw new Error(started.say)
  return started.setupId
}

afterAll(closeDatabase)
beforeEach(() => {
  who = 'bram-okell'
})

test('adding: spaces are tidied, empty and endless names refused, the same name needs a confirmation', async () => {
  const name = `Tidy ${id().slice(0, 8)}`
  expect(
    await command('members.addMember', { typed: `  ${name.replace(' ', '   ')} `, anyway: false }, id()),
  ).toMatchObject({ outcome: 'kept' })
  expect(await command('members.addMember', { typed: name, anyway: false }, id())).toEqual({
    outcome: 'refused',
    code: 'sameName',
    name,
    say: `there is already a ${name}. Add another one of that name?`,
  })
  expect(await command('members.addMember', { typed: name, anyway: true }, id())).toMatchObject({ outcome: 'kept' })
  expect(await command('members.addMember', { typed: '   ', anyway: false }, id())).toMatchObject({
    outcome: 'refused',
    say: 'a member needs a name',
  })
  expect(await command('members.addMember', { typed: 'x'.repeat(200), anyway: false }, id())).toMatchObject({
    outcome: 'refused',
  })
  expect(await command('members.addMember', { typed: name, anyway: true }, 'not an id')).toMatchObject({
    outcome: 'refused',
  })
})

test('adding twice under one id, as after a lost answer, adds once', async () => {
  const [one, name] = [id(), `Once ${id().slice(0, 8)}`]
  expect(await command('members.addMember', { typed: name, anyway: false }, one)).toEqual({
    outcome: 'kept',
    memberId: one,
  })
  expect(await command('members.addMember', { typed: name, anyway: false }, one)).toEqual({
    outcome: 'kept',
    memberId: one,
  })
})

test(
  'beginning again at the same bike takes up what was left open; unknown people and bikes ' + 'begin nothing',
  async () => {
    const rider = await member()
    const first = await begin(rider)
    expect(await begin(rider)).toBe(first)
    expect(await begin(rider, 'bike-2')).not.toBe(first)
    expect(await command('setups.startSetup', { memberId: 'nobody', bikeId: 'bike-1' })).toMatchObject({
      outcome: 'refused',
    })
    expect(await command('setups.startSetup', { memberId: rider, bikeId: 'bike-99' })).toMatchObject({
      outcome: 'refused',
    })
  },
)

test('rows are held to the wire format and to the bike’s own marks, and reported in words', async () => {
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

test('labels are stored as the scale spells them', async () => {
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
  expect(await command('places.assignBike', { classId, bikeId: 'bike-5', memberId: rider }, id())).toEqual({
    outcome: 'kept',
  })
  expect((await listAssignments(db, scope, classId)).find((s) => s.bikeId === 'bike-5')?.memberId).toBe(rider)
  expect(await command('places.assignBike', { classId, bikeId: 'bike-5', memberId: null }, id())).toEqual({
    outcome: 'kept',
  })
  expect((await listAssignments(db, scope, classId)).find((s) => s.bikeId === 'bike-5')).toBeUndefined()
  expect(
    await command('places.assignBike', { classId: 'no-class', bikeId: 'bike-5', memberId: rider }, id()),
  ).toMatchObject({ outcome: 'refused' })
  expect(await command('places.assignBike', { classId, bikeId: 'bike-77', memberId: rider }, id())).toMatchObject({
    outcome: 'refused',
  })
  expect(await command('places.assignBike', { classId, bikeId: 'bike-5', memberId: 'nobody' }, id())).toMatchObject({
    outcome: 'refused',
  })
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
    await command(
      'bikes.recordInspection',
      { bikeId: 'bike-12', wrong: [{ id: `${look.slice(0, 33)}-0`, item: 'stop', note: ' lever bent ' }] },
      look,
    ),
  ).toEqual({ outcome: 'kept' })
  expect(await command('setups.startSetup', { memberId, bikeId: 'bike-12' })).toMatchObject({ outcome: 'refused' })
  expect(
    await command('places.assignBike', { classId: await floorOfToday(), bikeId: 'bike-12', memberId }, id()),
  ).toMatchObject({
    outcome: 'refused',
    say: 'bike 12 is out of use until its fault is mended',
  })
  expect(await command('bikes.resolveFault', { bikeId: 'bike-12', faultId: `${look.slice(0, 33)}-0` })).toEqual({
    outcome: 'kept',
  })
  expect(await command('setups.startSetup', { memberId, bikeId: 'bike-12' })).toMatchObject({ outcome: 'kept' })
  expect(await command('bikes.recordInspection', { bikeId: 'bike-12', wrong: [] }, 'not an id!')).toMatchObject({
    outcome: 'refused',
  })
})

test(
  'a machine’s tape: the first sets its offset, one that disagrees gives the reason, and stored again ' +
    'counts alone',
  async () => {
    await command('bikes.addMachines', { lineId: 'sorrel', typed: '350' })
    const bikeId = (await listBikes(db, scope)).find((b) => b.number === 350)!.id
    const marks = { seatHeight: '8', seatSlide: 'D' }
    const { lengths } = contactPoints(TYPES.sorrel, undefined, resolveMarks(TYPES.sorrel, marks).positions)
    const tape = (mm: number) => ({
      marks,
      lengths: { saddleHeightMm: Math.round(lengths.saddleHeightMm + mm), setbackMm: Math.round(lengths.setbackMm) },
    })
    expect(await query('bikes.compareTapeReading', { bikeId, row: tape(4), shown: 'metric' })).toEqual({
      outcome: 'found',
      says: [],
    })
    expect(await command('bikes.addBikeReading', { bikeId, reading: { kind: 'tape', ...tape(4) } }, id())).toEqual({
      outcome: 'kept',
    })
    const offset = async () => (await findBike(db, scope, bikeId))!.machineCalibration.offsetsMm!.seatHeight!
    expect(Math.abs((await offset()) - 4)).toBeLessThan(1.5)
    expect(await query('bikes.compareTapeReading', { bikeId, row: tape(-9), shown: 'metric' })).toMatchObject({
      says: [
        expect.stringMatching(
          /^Saddle height reads 1[123] mm less than this bike’s last tape: the post may have slipped\.$/,
        ),
      ],
    })
    const later = id()
    expect(
      await command(
        'bikes.addBikeReading',
        { bikeId, reading: { kind: 'tape', ...tape(-9), resetsBaseline: true } },
        later,
      ),
    ).toEqual({
      outcome: 'kept',
    })
    expect(await offset()).toBeLessThan(-6)
    expect(await findChangeSince(db, scope, bikeId, new Date(Date.now() - 60_000))).not.toBeNull()
    expect(await findChangeSince(db, scope, bikeId, new Date(Date.now() + 60_000))).toBeNull()
    expect(await command('bikes.withdrawBikeReading', { bikeId, readingId: later })).toEqual({ outcome: 'kept' })
    expect(await offset()).toBeGreaterThan(2)
    expect(
      await query('bikes.compareTapeReading', {
        bikeId,
        row: { marks: { seatHeight: '99' }, lengths: { stackMm: 700 } },
        shown: 'metric',
      }),
    ).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/no mark 99/),
    })
    expect(
      await query('bikes.compareTapeReading', { bikeId, row: { marks, lengths: { stackMm: -5 } }, shown: 'metric' }),
    ).toMatchObject({
      outcome: 'refused',
    })
  },
)

test('tilt and saddle line are stored, the floor taken off; what cannot be is refused', async () => {
  expect(
    await command(
      'bikes.addBikeReading',
      { bikeId: 'bike-8', reading: { kind: 'tilt', deg: -1.5, floorDeg: -0.5, across: 'highestPoints' } },
      id(),
    ),
  ).toEqual({ outcome: 'kept' })
  expect((await findBike(db, scope, 'bike-8'))!.machineCalibration.tiltDeg).toBe(-1)
  expect(
    await command(
      'bikes.addBikeReading',
      { bikeId: 'bike-8', reading: { kind: 'tilt', deg: 80, floorDeg: 0, across: 'highestPoints' } },
      id(),
    ),
  ).toMatchObject({
    outcome: 'refused',
    say: 'an angle here is at most 30°',
  })
  expect(
    await command(
      'bikes.addBikeReading',
      { bikeId: 'bike-8', reading: { kind: 'saddleLine', mm: 200, afterClosing: true } },
      id(),
    ),
  ).toMatchObject({
    outcome: 'refused',
  })
  expect(
    await command('bikes.addBikeReading', { bikeId: 'bike-8', reading: { kind: 'weight', kg: 40 } as never }, id()),
  ).toMatchObject({
    outcome: 'refused',
    say: 'this kind of reading is not known',
  })
  expect(
    await command(
      'bikes.addBikeReading',
      { bikeId: 'no-bike', reading: { kind: 'saddleLine', mm: 2, afterClosing: true } },
      id(),
    ),
  ).toMatchObject({
    outcome: 'refused',
  })
})

test(
  'types: saved, refused in the form’s words, changed meanwhile; exported and brought in ' + 'again without change',
  async () => {
    const name = `Yarrow ${id().slice(0, 6)}`
    const document = { bikeType: { ...TYPES.sorrel, name }, equipment: EQUIPMENT.sorrel }
    const first = id()
    const saved = await command('bikes.saveType', { baseId: null, document }, first)
    expect(saved.outcome).toBe('kept')
    expect(await command('bikes.saveType', { baseId: null, document }, id())).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/already; give this one another name/),
    })
    expect(
      await command(
        'bikes.saveType',
        { baseId: first, document: { ...document, bikeType: { ...document.bikeType, crankMm: 3 } } },
        id(),
      ),
    ).toMatchObject({
      outcome: 'refused',
      say: 'Crank: is out of range: at least 50 is possible',
    })
    expect(
      await command(
        'bikes.saveType',
        { baseId: first, document: { ...document, bikeType: { ...document.bikeType, crankMm: 175 } } },
        id(),
      ),
    ).toMatchObject({
      outcome: 'kept',
    })
    expect(
      await command(
        'bikes.saveType',
        { baseId: first, document: { ...document, bikeType: { ...document.bikeType, crankMm: 165 } } },
        id(),
      ),
    ).toMatchObject({
      outcome: 'refused',
      say: expect.stringMatching(/^Bram Okell changed this type on .* while you were editing it/),
    })
    expect(await command('bikes.importTypes', { text: await exported() })).toMatchObject({
      outcome: 'kept',
      imported: { added: [], changed: [] },
    })
    expect(await command('bikes.importTypes', { text: '{"format":1}' })).toMatchObject({
      outcome: 'refused',
      code: 'fileIssues',
      issues: expect.arrayContaining([{ pointer: '/types', reason: 'is missing' }]),
    })
  },
)

test('machines by their numbers: ranges, taken ones, and what is no number', async () => {
  expect(await command('bikes.addMachines', { lineId: 'sorrel', typed: '301-303' })).toEqual({
    outcome: 'kept',
    count: 3,
  })
  expect(await command('bikes.addMachines', { lineId: 'sorrel', typed: '303 304' })).toMatchObject({
    outcome: 'refused',
    say: 'there is a bike 303 already; none was added',
  })
  expect(await command('bikes.addMachines', { lineId: 'sorrel', typed: 'A' })).toMatchObject({
    outcome: 'refused',
    say: '“A” is not a bike number. Use 1 to 999',
  })
  expect(await command('bikes.addMachines', { lineId: 'sorrel', typed: '' })).toMatchObject({ outcome: 'refused' })
  const added = (await listBikes(db, scope)).find((b) => b.number === 303)!
  expect(await command('bikes.removeMachine', { bikeId: added.id })).toEqual({ outcome: 'kept' })
  expect(await command('bikes.removeMachine', { bikeId: added.id })).toMatchObject({ outcome: 'refused' })
  expect(await command('bikes.removeMachine', { bikeId: 'bike-1' })).toMatchObject({
    outcome: 'refused',
    say: expect.stringMatching(/this bike has records/),
  })
  expect(await command('bikes.addMachines', { lineId: 'nothing', typed: '310' })).toMatchObject({ outcome: 'refused' })
})

test('calibration: refused with one mark, stored as a version with how sure it is, also on the machines', async () => {
  const name = `Sedge ${id().slice(0, 6)}`
  const typeId = id()
  const saved = await command(
    'bikes.saveType',
    { baseId: null, document: { bikeType: { ...TYPES.sorrel, name }, equipment: EQUIPMENT.sorrel } },
    typeId,
  )
  if (saved.outcome !== 'kept') throw new Error(saved.say)
  await command('bikes.addMachines', { lineId: saved.lineId, typed: '401' })
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
      expect(await command('bikes.finishCalibration', { typeId }, id())).toMatchObject({
        outcome: 'refused',
        say: expect.stringMatching(/read at 1 only/),
      })
    expect(
      await command(
        'bikes.addTapeReading',
        { typeId, row: tapeAt(truth, { seatHeight, seatSlide, barHeight, barSlide }, random, 1) },
        id(),
      ),
    ).toEqual({ outcome: 'kept' })
  }
  expect(await command('bikes.finishCalibration', { typeId }, id())).toEqual({ outcome: 'kept', lineId: saved.lineId })
  const [bike] = (await listBikes(db, scope)).filter((b) => b.number === 401)
  expect(bike.type.seatOrigin.xMm).toBeCloseTo(truth.seatOrigin.xMm, -1)
  expect(bike.machineCalibration.sdMm!.seatHeight).toBeGreaterThan(1)
  expect(await command('bikes.finishCalibration', { typeId }, id())).toMatchObject({
    outcome: 'refused',
    say: expect.stringMatching(/changed this type meanwhile/),
  })
  // What only touches the equipment keeps what the tape found; another geometry does not.
  const [latest] = await listVersions(db, scope, saved.lineId)
  await command(
    'bikes.saveType',
    { baseId: latest.id, document: { bikeType: latest.bikeType, equipment: { ...latest.equipment, stop: 'lever' } } },
    id(),
  )
  const [edited] = await listVersions(db, scope, saved.lineId)
  expect(edited).toMatchObject({ version: 3, calibration: latest.calibration, equipment: { stop: 'lever' } })
  await command(
    'bikes.saveType',
    {
      baseId: edited.id,
      document: {
        bikeType: { ...edited.bikeType, gripOrigin: { ...edited.bikeType.gripOrigin, yMm: 640 } },
        equipment: edited.equipment,
      },
    },
    id(),
  )
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

  test('the second to save learns who saved what, and may go on with a new set-up from their own rows', async () => {
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
    const next = await command('setups.continueSetup', { setupId, rows })
    if (next.outcome !== 'kept') throw new Error(next.say)
    expect(next.setupId).not.toBe(setupId)
    expect(await command('setups.continueSetup', { setupId, rows })).toEqual(next)
    expect(await rowsNow(next.setupId)).toEqual(rows)
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
    const added = await command(
      'members.addMember',
      { typed: `Jo\u200b\u0000 \u202e${mark}\ufeff`, anyway: false },
      id(),
    )
    expect(added.outcome).toBe('kept')
    expect(await command('members.addMember', { typed: `Jo ${mark}`, anyway: false }, id())).toMatchObject({
      code: 'sameName',
    })
    for (const nothing of ['\u200b\u200d', '\u0000', '⠀', '...'])
      expect(await command('members.addMember', { typed: nothing, anyway: true }, id())).toMatchObject({
        outcome: 'refused',
        say: 'a member needs a name',
      })
    for (const odd of [null, 7, {}, []])
      expect(await command('members.addMember', { typed: odd as unknown as string, anyway: true }, id())).toMatchObject(
        { outcome: 'refused' },
      )
  })

  test('one item wrong three hundred times is one fault too many; a tape without lengths is no evidence', async () => {
    const faults = Array.from({ length: 300 }, () => ({ id: id(), item: 'pins' as const, note: '' }))
    expect(await command('bikes.recordInspection', { bikeId: 'bike-8', wrong: faults }, id())).toMatchObject({
      outcome: 'refused',
      say: 'one item is in the list twice',
    })
    expect(await command('bikes.recordInspection', { bikeId: 'bike-8', wrong: [null] as never }, id())).toMatchObject({
      outcome: 'refused',
    })
    expect(
      await command('bikes.addTapeReading', { typeId: 'sorrel', row: { marks: { seatHeight: '3' } } as never }, id()),
    ).toMatchObject({
      outcome: 'refused',
    })
    expect(
      await command(
        'bikes.addTapeReading',
        { typeId: 'sorrel', row: { marks: { seatHeight: '3' }, lengths: {} } },
        id(),
      ),
    ).toMatchObject({
      outcome: 'refused',
    })
    expect(await command('bikes.addTapeReading', { typeId: 'sorrel', row: null as never }, id())).toMatchObject({
      outcome: 'refused',
    })
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
      expect(
        await command('bikes.replaceTapeReadings', { typeId: 'sorrel', replaced: replaced as never }),
      ).toMatchObject({ outcome: 'refused' })
    expect(
      await command('bikes.replaceTapeReadings', {
        typeId: 'no-such-type',
        replaced: [{ id: id(), newId: id(), row: { marks: { seatHeight: '3' }, lengths: { stackMm: 700 } } }],
      }),
    ).toMatchObject({ outcome: 'refused' })
  })
})
