/** @jest-environment node */
import { eq } from 'drizzle-orm'
import type { BikeType } from '@/core/bike/bike'
import { placeAt, positionsOf } from '@/core/bike/place'
import { USUAL_SHEET } from '@/core/bike/sheet'
import type { Marks } from '@/core/conventions'
import { INSPECTION_ITEMS } from '@/core/bike/inspection'
import { readTypeFile, typeFileOf, type WholeType } from '@/core/operations/typeFile'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { addBikes, bikeById, bikesOf, offered } from '@/server/bikes/bikes'
import {
  addBikeReading,
  clearFault,
  faultsOf,
  recordInspection,
  lastInspections,
  readingsOf,
  savedBetween,
  withdrawBikeReading,
} from '@/server/bikes/machines'
import { recomputeMachine } from '@/server/bikes/machineCalibration'
import * as tables from '@/server/db/schema'
import {
  addTypeReading,
  importTypes,
  replaceTypeReadings,
  typeLine,
  typeReadings,
  typesOf,
  withdrawTypeReading,
  writeVersion,
} from '@/server/bikes/types'
import { closeDatabase, database, withTransaction } from '@/server/db/connection'
import { addMember } from '@/server/members/members'
import { finishSetup, savedSetups, startSetup } from '@/server/setups/setups'

const db = database()
const [studioId, by] = ['netloft-hall', 'ines-harrow']
const id = () => crypto.randomUUID()
const at = new Date('2026-05-04T06:07:08.009Z')
let number = 500

const whole = (name: string): WholeType => ({ bikeType: { ...HOLES_BIKE, name }, sheet: USUAL_SHEET })
const write = (w: WholeType, baseId: string | null, versionId = id()) =>
  writeVersion(db, { id: versionId, studioId, baseId, whole: w, calibration: null, at, by })

async function newType(name = `Type ${id().slice(0, 8)}`): Promise<{ id: string; lineId: string; name: string }> {
  const written = await write(whole(name), null)
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  return { ...written, name }
}
async function newBike(typeId: string): Promise<string> {
  number += 1
  await addBikes(db, { studioId, typeId, numbers: [number], own: {} })
  return (await bikesOf(db, studioId)).find((b) => b.number === number)!.id
}

afterAll(closeDatabase)

test('a version is written once under its id, put in force on the line’s bikes, and the earlier one stays', async () => {
  const type = await newType()
  const bikeId = await newBike(type.id)
  const better = { ...whole(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm: 172.5 } }
  const versionId = id()
  expect(await write(better, type.id, versionId)).toEqual({ outcome: 'kept', id: versionId, lineId: type.lineId })
  expect(await write(better, type.id, versionId)).toEqual({ outcome: 'kept', id: versionId, lineId: type.lineId })
  expect((await typeLine(db, type.lineId)).map((t) => [t.version, t.bikeType.crankMm])).toEqual([
    [2, 172.5],
    [1, 170],
  ])
  expect((await bikeById(db, bikeId))?.type.crankMm).toBe(172.5)
})

test('two managers edit one type: the second is told who was first, and nothing is overwritten', async () => {
  const type = await newType()
  const both = await Promise.all(
    [170, 172.5].map((crankMm) =>
      write({ ...whole(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm } }, type.id),
    ),
  )
  expect(both.map((w) => w.outcome).sort()).toEqual(['kept', 'versionConflict'])
  expect(both.find((w) => w.outcome === 'versionConflict')).toMatchObject({ by: 'Ines Harrow' })
  expect(await typeLine(db, type.lineId)).toHaveLength(2)
})

test('a name another type has is refused, whatever its capitals', async () => {
  expect(await write(whole(' sorrel '), null)).toEqual({ outcome: 'sameName' })
  const type = await newType()
  expect(await write(whole('Bracken'), type.id)).toEqual({ outcome: 'sameName' })
})

test('a saved set-up keeps the version it was made on', async () => {
  const type = await newType()
  const bikeId = await newBike(type.id)
  const [memberId, setupId, rowId] = [id(), id(), id()]
  await addMember(db, { id: memberId, studioId, name: `Keeps ${memberId.slice(0, 6)}`, at, by })
  await startSetup(db, { id: setupId, memberId, bike: (await bikeById(db, bikeId))!, at, by })
  await finishSetup(
    db,
    setupId,
    { id: rowId, marks: { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' } },
    at,
    by,
  )
  const bigger = {
    marks: [
      { label: '1', mm: 0 },
      { label: '2', mm: 30 },
    ],
    halfMarks: false,
  }
  await write(
    {
      ...whole(type.name),
      bikeType: {
        ...HOLES_BIKE,
        name: type.name,
        axes: { ...HOLES_BIKE.axes, seatHeight: { directionDeg: 107, scale: bigger } },
      },
    },
    type.id,
  )
  const [saved] = await savedSetups(db, memberId)
  expect(saved.type.axes.seatHeight).toEqual(HOLES_BIKE.axes.seatHeight)
  expect(await savedBetween(db, bikeId, new Date(at.getTime() - 1), at)).toEqual([
    { memberId, name: expect.stringMatching(/^Keeps/), at },
  ])
  expect(await savedBetween(db, bikeId, at, new Date(at.getTime() + 1))).toEqual([])
})

test('re-importing one’s own export changes nothing; something new comes in whole', async () => {
  const types = await typesOf(db, studioId)
  const read = readTypeFile(typeFileOf(types))
  if (read.outcome !== 'read') throw new Error('refused')
  const again = await importTypes(db, { studioId, types: read.types, at, by })
  expect(again).toEqual({ added: [], changed: [], unchanged: types.map((t) => t.bikeType.name) })
  expect(await typesOf(db, studioId)).toEqual(types)
  const name = `Fresh ${id().slice(0, 8)}`
  expect(await importTypes(db, { studioId, types: [whole(name)], at, by })).toEqual({
    added: [name],
    changed: [],
    unchanged: [],
  })
  expect(
    await importTypes(db, {
      studioId,
      types: [{ ...whole(name), bikeType: { ...HOLES_BIKE, name, crankMm: 165 } }],
      at,
      by,
    }),
  ).toMatchObject({ changed: [name] })
})

test('an import that the database refuses half-way leaves nothing', async () => {
  const before = await typesOf(db, studioId)
  const names = [`Half ${id().slice(0, 8)}`, `Done ${id().slice(0, 8)}`]
  await expect(importTypes(db, { studioId: 'no-such-studio', types: names.map(whole), at, by })).rejects.toThrow()
  expect(await typesOf(db, studioId)).toEqual(before)
})

test('corrected readings take the place of all, in their order, once; not where one was taken back meanwhile or an id is taken', async () => {
  const type = await newType()
  const tape = (stackMm: number) => ({ marks: { seatHeight: '3' }, lengths: { stackMm } })
  const [first, second] = [id(), id()]
  for (const [i, readingId] of [first, second].entries())
    await addTypeReading(db, { id: readingId, typeId: type.id, row: tape(1000 + i), at, by })
  const replaced = [
    { id: first, newId: id(), row: tape(700) },
    { id: second, newId: id(), row: tape(701) },
  ]
  const replace = (all = replaced) => replaceTypeReadings(db, { typeId: type.id, replaced: all, at, by })
  const stand = async () => (await typeReadings(db, type.id)).map((r) => r.row.lengths.stackMm)
  expect(await Promise.all([replace(), replace()])).toEqual([{ outcome: 'kept' }, { outcome: 'kept' }])
  expect(await stand()).toEqual([700, 701])
  expect(await replace([{ ...replaced[0], row: tape(5) }, replaced[1]])).toEqual({ outcome: 'idTaken' })
  await withdrawTypeReading(db, replaced[1].newId, at)
  const again = replaced.map(({ newId, row }) => ({ id: newId, newId: id(), row }))
  expect(await replace(again)).toEqual({ outcome: 'gone' })
  expect(await stand()).toEqual([700])
  expect(await replaceTypeReadings(db, { typeId: (await newType()).id, replaced: again.slice(0, 1), at, by })).toEqual({
    outcome: 'gone',
  })
})

test('tape readings come back in order; a withdrawn one does not; one id counts once', async () => {
  const type = await newType()
  const ids = [id(), id()]
  for (const [i, readingId] of [...ids, ids[0]].entries())
    await addTypeReading(db, {
      id: readingId,
      typeId: type.id,
      row: { marks: { seatHeight: '3' }, lengths: { stackMm: 700 + i } },
      at,
      by,
    })
  expect((await typeReadings(db, type.id)).map((r) => r.row.lengths.stackMm)).toEqual([700, 701])
  await withdrawTypeReading(db, ids[0], at)
  expect((await typeReadings(db, type.id)).map((r) => r.id)).toEqual([ids[1]])
})

test('numbers already taken are named, and then none is added', async () => {
  const type = await newType()
  const before = await bikesOf(db, studioId)
  expect(await addBikes(db, { studioId, typeId: type.id, numbers: [901, 1, 902, 2], own: {} })).toEqual([1, 2])
  expect(await bikesOf(db, studioId)).toHaveLength(before.length)
})

test('a faulty bike is not offered until cleared; who found it, and when it was looked over, is known', async () => {
  const type = await newType()
  const bikeId = await newBike(type.id)
  const [lookId, faultId] = [id(), id()]
  const look = {
    id: lookId,
    bikeId,
    good: INSPECTION_ITEMS.slice(1),
    faults: [{ id: faultId, item: 'pins' as const, note: 'seat pin worn' }],
    at,
    by,
  }
  await recordInspection(db, look)
  await recordInspection(db, look)
  expect(await bikeById(db, bikeId)).toMatchObject({ openFaults: 1 })
  expect(offered(await bikesOf(db, studioId)).some((b) => b.id === bikeId)).toBe(false)
  expect(await faultsOf(db, bikeId)).toMatchObject([
    { item: 'pins', note: 'seat pin worn', foundBy: 'Ines Harrow', clearedAt: null },
  ])
  expect((await lastInspections(db)).get(bikeId)).toEqual(at)
  await clearFault(db, bikeId, faultId, at, by)
  expect(offered(await bikesOf(db, studioId)).some((b) => b.id === bikeId)).toBe(true)
})

test('what was measured on a machine comes back as it was; a mistake is withdrawn', async () => {
  const bikeId = await newBike((await newType()).id)
  const [tilt, line] = [id(), id()]
  await addBikeReading(db, {
    id: tilt,
    bikeId,
    row: { kind: 'tilt', deg: -1.4, floorDeg: 0.2, across: 'highestPoints' },
    at,
    by,
  })
  await addBikeReading(db, { id: line, bikeId, row: { kind: 'saddleLine', mm: 1, afterClosing: true }, at, by })
  expect((await readingsOf(db, bikeId)).map((r) => r.row.kind)).toEqual(['tilt', 'saddleLine'])
  await withdrawBikeReading(db, bikeId, line, at)
  expect(await readingsOf(db, bikeId)).toMatchObject([{ id: tilt, by: 'Ines Harrow', row: { deg: -1.4 } }])
})

test('a deadlock is done again, a real fault is not', async () => {
  const fails = (errno: number, times: number) => {
    let tries = 0
    const work = async () => {
      tries += 1
      if (tries <= times) throw Object.assign(new Error('undone'), { cause: { errno } })
      return tries
    }
    return withTransaction(db, work)
  }
  expect(await fails(1213, 2)).toBe(3)
  await expect(fails(1213, 9)).rejects.toThrow('undone')
  await expect(fails(1062, 1)).rejects.toThrow('undone')
})

describe('an id belongs to one content', () => {
  test('a look over a bike, the answer lost, what is wrong corrected: told, and nothing of it half kept', async () => {
    const bikeId = await newBike((await newType()).id)
    const [lookId, faultId] = [id(), id()]
    const wrong = (item: 'pins' | 'saddle', fault = faultId) => ({
      id: lookId,
      bikeId,
      good: INSPECTION_ITEMS.filter((i) => i !== item),
      faults: [{ id: fault, item, note: '' }],
      at,
      by,
    })
    expect(await recordInspection(db, wrong('pins'))).toEqual({ outcome: 'kept' })
    expect(await recordInspection(db, wrong('saddle'))).toEqual({ outcome: 'idTaken' })
    expect(await recordInspection(db, { ...wrong('saddle', id()) })).toEqual({ outcome: 'idTaken' })
    expect(await recordInspection(db, { ...wrong('saddle'), id: id() })).toEqual({ outcome: 'idTaken' })
    expect((await faultsOf(db, bikeId)).map((f) => f.item)).toEqual(['pins'])
    expect(await recordInspection(db, { ...wrong('saddle', id()), id: id() })).toEqual({ outcome: 'kept' })
    expect((await faultsOf(db, bikeId)).map((f) => f.item).sort()).toEqual(['pins', 'saddle'])
  })

  test('a version, a tape toward a calibration, a reading of a machine', async () => {
    const type = await newType()
    const bikeId = await newBike(type.id)
    expect(
      await write({ ...whole(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm: 165 } }, null, type.id),
    ).toEqual({ outcome: 'idTaken' })
    const [tapeId, readingId] = [id(), id()]
    const tape = (stackMm: number) =>
      addTypeReading(db, {
        id: tapeId,
        typeId: type.id,
        row: { marks: { seatHeight: '3' }, lengths: { stackMm } },
        at,
        by,
      })
    const tilt = (deg: number) =>
      addBikeReading(db, {
        id: readingId,
        bikeId,
        row: { kind: 'tilt', deg, floorDeg: 0, across: 'highestPoints' },
        at,
        by,
      })
    expect([await tape(700), await tape(700), await tape(710)].map((w) => w.outcome)).toEqual([
      'kept',
      'kept',
      'idTaken',
    ])
    expect([await tilt(-1), await tilt(-1), await tilt(-2)].map((w) => w.outcome)).toEqual(['kept', 'kept', 'idTaken'])
  })
})

describe('a machine’s own offsets are computed from its readings and the version in force', () => {
  const lengthsAt = (type: BikeType, offsetMm: number, marks: Marks) => {
    const { lengths } = placeAt(type, { offsetsMm: { seatHeight: offsetMm } }, positionsOf(type, marks).positions)
    return { saddleHeightMm: lengths.saddleHeightMm, setbackMm: lengths.setbackMm }
  }
  const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }

  test('an edit of the equipment only keeps what the tape found; another geometry fits the same tape anew', async () => {
    const type = await newType()
    const bikeId = await newBike(type.id)
    const definition = { ...HOLES_BIKE, name: type.name }
    await addBikeReading(db, {
      id: id(),
      bikeId,
      row: { kind: 'tape', marks, lengths: lengthsAt(definition, 6, marks) },
      at,
      by,
    })
    await withTransaction(db, (tx) => recomputeMachine(tx, bikeId))
    const measured = (await bikeById(db, bikeId))!.own
    expect(measured.offsetsMm!.seatHeight).toBeCloseTo(6, 0)
    expect(measured.sdMm!.seatHeight).toBeLessThan(3)

    const equipment = await write({ bikeType: definition, sheet: { ...USUAL_SHEET, stop: 'lever' } }, type.id)
    expect((await bikeById(db, bikeId))!.own).toEqual(measured)
    if (equipment.outcome !== 'kept') throw new Error(equipment.outcome)

    const higher = { ...definition, seatOrigin: { ...definition.seatOrigin, yMm: definition.seatOrigin.yMm + 6 } }
    const geometry = await write({ bikeType: higher, sheet: USUAL_SHEET }, equipment.id)
    expect((await bikeById(db, bikeId))!.own.offsetsMm!.seatHeight).toBeCloseTo(0, 0)
    const [stored] = await db.select({ from: tables.bike.ownFrom }).from(tables.bike).where(eq(tables.bike.id, bikeId))
    expect(stored.from).toMatchObject({
      typeId: geometry.outcome === 'kept' && geometry.id,
      readings: [expect.any(String)],
    })
  })

  test('a new calibration of the type makes unmeasured machines surer, and leaves measured ones as they are', async () => {
    const type = await newType()
    const [plain, taped] = [await newBike(type.id), await newBike(type.id)]
    const definition = { ...HOLES_BIKE, name: type.name }
    await addBikeReading(db, {
      id: id(),
      bikeId: taped,
      row: { kind: 'tape', marks, lengths: lengthsAt(definition, 3, marks) },
      at,
      by,
    })
    const calibration = {
      rmsMm: 1,
      readings: 9,
      sdMm: { seatHeight: 4 },
      expectedErrorMm: { saddleHeightMm: 4, setbackMm: 1, reachMm: 1, stackMm: 1 },
    }
    await writeVersion(db, {
      id: id(),
      studioId,
      baseId: type.id,
      whole: { bikeType: definition, sheet: USUAL_SHEET },
      calibration,
      at,
      by,
    })
    const own = async (bikeId: string) => (await bikeById(db, bikeId))!.own
    expect((await own(plain)).offsetsMm).toBeUndefined()
    expect((await own(plain)).sdMm!.seatHeight).toBeCloseTo(Math.hypot(6, 4), 1)
    expect((await own(taped)).sdMm!.seatHeight).toBeLessThan(5)
    expect((await own(taped)).offsetsMm!.seatHeight).toBeCloseTo(3, 0)
  })
})
