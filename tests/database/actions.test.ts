/** @jest-environment node */
import { randomFrom } from '@/core/belief/random'
import { placeAt, positionsOf } from '@/core/bike/place'
import type { Evidence } from '@/core/evidence/evidence'
import { tapeAt, trueTypeFor } from '@/core/simulated/simulatedTape'
import { addMachines, clear, exportTypes, finishCalibration, importFile, keepMeasured, keepTape, lookOver, removeMachine, saveType, takeBackMeasured, weighTape } from '@/interface/bikes/actions'
import { note, sit, unnote } from '@/interface/floor/actions'
import { add } from '@/interface/members/actions'
import { begin, keep, rowsNow, save, withdraw } from '@/interface/setup/actions'
import { SHEETS, TYPES } from '@/scripts/netloftHall'
import { bikeById, bikesOf } from '@/server/bikes/bikes'
import { changedSince } from '@/server/bikes/machines'
import { typeLine } from '@/server/bikes/types'
import { closeDatabase, database } from '@/server/db/connection'
import { notesOn, seatedOn } from '@/server/notes/notes'
import { savedSetups, setupById } from '@/server/setups/setups'
import { studioDay } from '@/server/studio/day'

/** Who is signed in is the session's business; here it is always the same instructor, or nobody. */
let nobody = false
jest.mock('@/server/accounts/session', () => ({
  signedIn: async () => {
    if (nobody) throw new Error('sent to sign in')
    return { id: 'bram-okell', name: 'Bram Okell' }
  },
}))

const db = database()
const id = () => crypto.randomUUID()
const row: Evidence = { kind: 'kneeByEye', seen: 'slightBend', at: { seatHeight: '7', seatSlide: 'D' } }
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' }

async function member(): Promise<string> {
  const added = await add(id(), `Action ${id().slice(0, 8)}`, false)
  if (added.outcome !== 'added') throw new Error(added.say)
  return added.id
}

afterAll(closeDatabase)
beforeEach(() => {
  nobody = false
})

test('adding: spaces are tidied, empty and endless names refused in words, the same name asked about', async () => {
  const name = `Tidy ${id().slice(0, 8)}`
  expect(await add(id(), `  ${name.replace(' ', '   ')} `, false)).toMatchObject({ outcome: 'added' })
  expect(await add(id(), name, false)).toEqual({ outcome: 'sameName', say: `There is already a ${name}. Add another one of that name?` })
  expect(await add(id(), name, true)).toMatchObject({ outcome: 'added' })
  expect(await add(id(), '   ', false)).toEqual({ outcome: 'refused', say: 'A member needs a name.' })
  expect(await add(id(), 'x'.repeat(200), false)).toMatchObject({ outcome: 'refused' })
  expect(await add('not an id', name, true)).toMatchObject({ outcome: 'refused' })
})

test('adding twice under one id, as after a lost answer, adds once', async () => {
  const [one, name] = [id(), `Once ${id().slice(0, 8)}`]
  expect(await add(one, name, false)).toEqual({ outcome: 'added', id: one })
  expect(await add(one, name, false)).toEqual({ outcome: 'added', id: one })
})

test('beginning again at the same bike takes up what was left open; unknown people and bikes begin nothing', async () => {
  const rider = await member()
  const first = await begin(rider, 'bike-1')
  expect(await begin(rider, 'bike-1')).toBe(first)
  expect(await begin(rider, 'bike-2')).not.toBe(first)
  expect(await begin('nobody', 'bike-1')).toBeNull()
  expect(await begin(rider, 'bike-99')).toBeNull()
})

test('rows are held to the wire format and to the bike’s own marks, and told in words', async () => {
  const setupId = (await begin(await member(), 'bike-1'))!
  expect(await keep(setupId, id(), row)).toEqual({ outcome: 'kept' })
  expect(await keep(setupId, id(), { ...row, at: { seatHeight: '99' } })).toEqual({ outcome: 'refused', say: 'the seat height has no mark 99; the nearest are 15 and 14' })
  expect(await keep(setupId, id(), { kind: 'stature', mm: 17_000 })).toEqual({ outcome: 'refused', say: 'mm is out of range: at most 2500 is possible' })
  expect(await keep(setupId, id(), { kind: 'wish', posture: 'low' } as unknown as Evidence)).toMatchObject({ outcome: 'refused' })
  expect(await keep('none', id(), row)).toMatchObject({ outcome: 'refused' })
  expect((await rowsNow(setupId)).map((r) => r.row)).toEqual([row])
})

test('labels are kept as the scale spells them', async () => {
  const setupId = (await begin(await member(), 'bike-3'))!
  await keep(setupId, id(), { kind: 'set', at: { seatHeight: '+2.50' } })
  expect((await rowsNow(setupId))[0].row.at).toEqual({ seatHeight: '2.5' })
})

test('saving needs every mark; saved twice it is saved once; afterwards nothing is added or taken back', async () => {
  const rider = await member()
  const setupId = (await begin(rider, 'bike-1'))!
  const look = id()
  await keep(setupId, look, row)
  expect(await save(setupId, id(), { seatHeight: '7' })).toEqual({ outcome: 'refused', say: 'not every scale has its mark yet' })
  expect(await save(setupId, id(), { ...marks, seatSlide: 'Z' })).toMatchObject({ outcome: 'refused' })
  const numbers = id()
  expect(await save(setupId, numbers, marks)).toEqual({ outcome: 'kept' })
  expect(await save(setupId, numbers, marks)).toEqual({ outcome: 'kept' })
  expect(await savedSetups(db, rider)).toMatchObject([{ marks, by: 'Bram Okell' }])
  expect(await keep(setupId, id(), row)).toMatchObject({ outcome: 'refused' })
  expect(await withdraw(setupId, look)).toMatchObject({ outcome: 'refused' })
  expect((await setupById(db, setupId))?.finishedAt).not.toBeNull()
})

test('who sits where holds for the studio’s day; unknown bikes and members are refused', async () => {
  const rider = await member()
  const today = studioDay(new Date(), 'Europe/Oslo')
  expect(await sit(id(), 'bike-5', rider)).toEqual({ outcome: 'kept' })
  expect((await seatedOn(db, today)).find((s) => s.bikeId === 'bike-5')?.memberId).toBe(rider)
  expect(await sit(id(), 'bike-5', null)).toEqual({ outcome: 'kept' })
  expect((await seatedOn(db, today)).find((s) => s.bikeId === 'bike-5')).toBeUndefined()
  expect(await sit(id(), 'bike-77', rider)).toMatchObject({ outcome: 'refused' })
  expect(await sit(id(), 'bike-5', 'nobody')).toMatchObject({ outcome: 'refused' })
})

test('a note keeps its region, side and author; unknown signs and sides are refused; taken back it is gone', async () => {
  const rider = await member()
  const made = id()
  expect(await note(made, rider, 'bike-2', 'kneesOut', 'left')).toEqual({ outcome: 'kept' })
  expect(await notesOn(db, rider)).toMatchObject([{ region: 'knees', sign: 'kneesOut', side: 'left', by: 'Bram Okell' }])
  expect(await note(id(), rider, 'bike-2', 'levitating', 'left')).toMatchObject({ outcome: 'refused' })
  expect(await note(id(), rider, 'bike-2', 'kneesOut', 'up' as 'left')).toMatchObject({ outcome: 'refused' })
  await unnote(made)
  expect(await notesOn(db, rider)).toEqual([])
})

test('signed out, no action does anything', async () => {
  nobody = true
  for (const act of [() => add(id(), 'X', true), () => begin('member-01', 'bike-1'), () => keep('a', 'b', row), () => withdraw('a', 'b'), () => save('a', 'b', marks), () => sit(id(), 'bike-1', null), () => note(id(), 'member-01', 'bike-1', 'kneesOut', 'left'), () => unnote('a'), () => rowsNow('a')]) {
    await expect(act()).rejects.toThrow('sent to sign in')
  }
})

test('a bike out of use takes no set-up and no rider, until its fault is mended', async () => {
  const memberId = await member()
  const look = id()
  expect(await lookOver(look, 'bike-12', [{ id: `${look.slice(0, 33)}-0`, item: 'stop', note: ' lever bent ' }])).toEqual({ outcome: 'kept' })
  expect(await begin(memberId, 'bike-12')).toBeNull()
  expect(await sit(id(), 'bike-12', memberId)).toEqual({ outcome: 'refused', say: 'bike 12 is out of use until its fault is mended' })
  expect(await clear('bike-12', `${look.slice(0, 33)}-0`)).toEqual({ outcome: 'kept' })
  expect(await begin(memberId, 'bike-12')).not.toBeNull()
  expect(await lookOver('not an id!', 'bike-12', [])).toMatchObject({ outcome: 'refused' })
})

test('a machine’s tape: the first sets its offset, one that disagrees says why, and kept anew counts alone', async () => {
  const marks = { seatHeight: '8', seatSlide: 'D' }
  const { lengths } = placeAt(TYPES.sorrel, undefined, positionsOf(TYPES.sorrel, marks).positions)
  const tape = (mm: number) => ({ marks, lengths: { saddleHeightMm: Math.round(lengths.saddleHeightMm + mm), setbackMm: Math.round(lengths.setbackMm) } })
  expect(await weighTape('bike-10', tape(4), 'metric')).toEqual({ outcome: 'kept', says: [] })
  expect(await keepMeasured(id(), 'bike-10', { kind: 'tape', ...tape(4) })).toEqual({ outcome: 'kept' })
  const offset = async () => (await bikeById(db, 'bike-10'))!.own.offsetsMm!.seatHeight!
  expect(Math.abs((await offset()) - 4)).toBeLessThan(1.5)
  expect(await weighTape('bike-10', tape(-9), 'metric')).toMatchObject({ says: [expect.stringMatching(/^Saddle height reads 1[123] mm less than this bike’s last tape: the post may have slipped\.$/)] })
  const later = id()
  expect(await keepMeasured(later, 'bike-10', { kind: 'tape', ...tape(-9) }, true)).toEqual({ outcome: 'kept' })
  expect(await offset()).toBeLessThan(-6)
  expect(await changedSince(db, 'bike-10', new Date(Date.now() - 60_000))).not.toBeNull()
  expect(await changedSince(db, 'bike-10', new Date(Date.now() + 60_000))).toBeNull()
  expect(await takeBackMeasured('bike-10', later)).toEqual({ outcome: 'kept' })
  expect(await offset()).toBeGreaterThan(2)
  expect(await weighTape('bike-10', { marks: { seatHeight: '99' }, lengths: { stackMm: 700 } }, 'metric')).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/no mark 99/) })
  expect(await weighTape('bike-10', { marks, lengths: { stackMm: -5 } }, 'metric')).toMatchObject({ outcome: 'refused' })
})

test('tilt and saddle line are kept, the floor taken off; what cannot be is refused', async () => {
  expect(await keepMeasured(id(), 'bike-8', { kind: 'tilt', deg: -1.5, floorDeg: -0.5, across: 'highestPoints' })).toEqual({ outcome: 'kept' })
  expect((await bikeById(db, 'bike-8'))!.own.tiltDeg).toBe(-1)
  expect(await keepMeasured(id(), 'bike-8', { kind: 'tilt', deg: 80, floorDeg: 0, across: 'highestPoints' })).toEqual({ outcome: 'refused', say: 'an angle beyond 30° cannot be' })
  expect(await keepMeasured(id(), 'bike-8', { kind: 'saddleLine', mm: 200, afterClosing: true })).toMatchObject({ outcome: 'refused' })
  expect(await keepMeasured(id(), 'bike-8', { kind: 'weight', kg: 40 } as never)).toEqual({ outcome: 'refused', say: 'this reading is of no known kind' })
  expect(await keepMeasured(id(), 'no-bike', { kind: 'saddleLine', mm: 2, afterClosing: true })).toMatchObject({ outcome: 'refused' })
})

test('types: saved, refused in the form’s words, changed meanwhile; exported and brought in again without change', async () => {
  const name = `Yarrow ${id().slice(0, 6)}`
  const whole = { bikeType: { ...TYPES.sorrel, name }, sheet: SHEETS.sorrel }
  const first = id()
  const saved = await saveType(first, null, whole)
  expect(saved.outcome).toBe('kept')
  expect(await saveType(id(), null, whole)).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/already; give this one another name/) })
  expect(await saveType(id(), first, { ...whole, bikeType: { ...whole.bikeType, crankMm: 3 } })).toEqual({ outcome: 'refused', say: 'Crank: is out of range: at least 50 is possible' })
  expect(await saveType(id(), first, { ...whole, bikeType: { ...whole.bikeType, crankMm: 175 } })).toMatchObject({ outcome: 'kept' })
  expect(await saveType(id(), first, { ...whole, bikeType: { ...whole.bikeType, crankMm: 165 } })).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/^Bram Okell changed this type on .* while you were at it/) })
  expect(await importFile(await exportTypes())).toMatchObject({ outcome: 'kept', say: expect.stringMatching(/^unchanged: /) })
  expect(await importFile('{"format":1}')).toMatchObject({ outcome: 'refused', faults: expect.arrayContaining(['/types: is missing']) })
})

test('machines by their numbers: ranges, taken ones, and what is no number', async () => {
  expect(await addMachines('sorrel', '301-303')).toEqual({ outcome: 'kept', count: 3 })
  expect(await addMachines('sorrel', '303 304')).toEqual({ outcome: 'refused', say: 'there is a bike 303 already; none was added' })
  expect(await addMachines('sorrel', 'A')).toMatchObject({ outcome: 'refused', say: '“A” is no bike number; 1 to 999 are' })
  expect(await addMachines('sorrel', '')).toMatchObject({ outcome: 'refused' })
  const added = (await bikesOf(db, 'netloft-hall')).find((b) => b.number === 303)!
  expect(await removeMachine(added.id)).toEqual({ outcome: 'kept' })
  expect(await removeMachine(added.id)).toMatchObject({ outcome: 'refused' })
  expect(await removeMachine('bike-1')).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/recorded on this bike already/) })
  expect(await addMachines('nothing', '310')).toMatchObject({ outcome: 'refused' })
})

test('calibration: refused with one mark, kept as a version with how sure it is, also on the machines', async () => {
  const name = `Sedge ${id().slice(0, 6)}`
  const typeId = id()
  const saved = await saveType(typeId, null, { bikeType: { ...TYPES.sorrel, name }, sheet: SHEETS.sorrel })
  if (saved.outcome !== 'kept') throw new Error(saved.say)
  await addMachines(saved.lineId, '401')
  const random = randomFrom(4)
  const truth = trueTypeFor({ ...TYPES.sorrel, name }, { originMm: 10, directionDeg: 1, pitchShare: 0.02 }, random)
  const settings = [['1', 'A', '1', '1'], ['15', 'H', '11', '6'], ['1', 'H', '11', '1'], ['15', 'A', '1', '6'], ['8', 'D', '6', '3'], ['1', 'A', '11', '6'], ['15', 'H', '1', '1']]
  for (const [i, [seatHeight, seatSlide, barHeight, barSlide]] of settings.entries()) {
    if (i === 1) expect(await finishCalibration(id(), typeId)).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/read at 1 only/) })
    expect(await keepTape(id(), typeId, tapeAt(truth, { seatHeight, seatSlide, barHeight, barSlide }, random, 1))).toEqual({ outcome: 'kept' })
  }
  expect(await finishCalibration(id(), typeId)).toEqual({ outcome: 'kept', lineId: saved.lineId })
  const [bike] = (await bikesOf(db, 'netloft-hall')).filter((b) => b.number === 401)
  expect(bike.type.seatOrigin.xMm).toBeCloseTo(truth.seatOrigin.xMm, -1)
  expect(bike.own.sdMm!.seatHeight).toBeGreaterThan(1)
  expect(await finishCalibration(id(), typeId)).toMatchObject({ outcome: 'refused', say: expect.stringMatching(/changed meanwhile/) })
  // What only touches the sheet keeps what the tape found; another geometry does not.
  const [latest] = await typeLine(db, saved.lineId)
  await saveType(id(), latest.id, { bikeType: latest.bikeType, sheet: { ...latest.sheet, stop: 'lever' } })
  const [sheet] = await typeLine(db, saved.lineId)
  expect(sheet).toMatchObject({ version: 3, calibration: latest.calibration, sheet: { stop: 'lever' } })
  await saveType(id(), sheet.id, { bikeType: { ...sheet.bikeType, gripOrigin: { ...sheet.bikeType.gripOrigin, yMm: 640 } }, sheet: sheet.sheet })
  expect((await typeLine(db, saved.lineId))[0].calibration).toBeNull()
})
