/** @jest-environment node */
import { eq } from 'drizzle-orm'
import type { BikeType } from '@/core/bikes/bike/bike'
import { contactPoints, resolveMarks } from '@/core/bikes/bike/contactPoints'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import type { Marks } from '@/core/base/conventions'
import { INSPECTION_ITEMS } from '@/core/bikes/bike/inspection'
import { parseTypeFile, serializeTypeFile, type BikeTypeDocument } from '@/core/operations/typeFile'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { bike } from '@/server/bikes/tables'
import { addBikeReading, listBikeReadings, withdrawBikeReading } from '@/server/bikes/bikeReadings'
import { listSetupsBetween } from '@/server/setups/finishedSetups'
import { addBikes, findBike, listBikes, availableBikes } from '@/server/bikes/bikes'
import { resolveFault, listFaults, recordInspection, lastInspections } from '@/server/bikes/inspections'
import { addTapeReading, replaceTapeReadings, listTapeReadings, withdrawTapeReading } from '@/server/bikes/tapeReadings'
import { importTypes, listVersions, listTypes, writeVersion } from '@/server/bikes/versions'
import { finishSetup } from '@/server/setups/evidence'
import { listFinishedSetups, startSetup } from '@/server/setups/setups'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database, withTransaction } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const at = new Date('2026-05-04T06:07:08.009Z')
let number = 500

const document = (name: string): BikeTypeDocument => ({
  bikeType: { ...HOLES_BIKE, name },
  equipment: DEFAULT_EQUIPMENT,
})
const write = (w: BikeTypeDocument, baseId: string | null, versionId = id()) =>
  writeVersion(db, scope, { id: versionId, baseId, document: w }, at)

async function newType(name = `Type ${id().slice(0, 8)}`): Promise<{ id: string; lineId: string; name: string }> {
  const written = await write(document(name), null)
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  return { ...written, name }
}
async function newBike(lineId: string): Promise<string> {
  number += 1
  await addBikes(db, scope, lineId, [number])
  return (await listBikes(db, scope)).find((b) => b.number === number)!.id
}

afterAll(closeDatabase)

test(
  'a version is written once under its id, put in force on the line’s bikes, and the ' + 'earlier one stays',
  async () => {
    const type = await newType()
    const bikeId = await newBike(type.lineId)
    const better = { ...document(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm: 172.5 } }
    const versionId = id()
    expect(await write(better, type.id, versionId)).toEqual({ outcome: 'kept', id: versionId, lineId: type.lineId })
    expect(await write(better, type.id, versionId)).toEqual({ outcome: 'kept', id: versionId, lineId: type.lineId })
    expect((await listVersions(db, scope, type.lineId)).map((t) => [t.version, t.bikeType.crankMm])).toEqual([
      [2, 172.5],
      [1, 170],
    ])
    expect((await findBike(db, scope, bikeId))?.type.crankMm).toBe(172.5)
  },
)

test('two managers edit one type: the second learns who was first, and nothing is overwritten', async () => {
  const type = await newType()
  const both = await Promise.all(
    [170, 172.5].map((crankMm) =>
      write({ ...document(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm } }, type.id),
    ),
  )
  expect(both.map((w) => w.outcome).sort()).toEqual(['kept', 'versionConflict'])
  expect(both.find((w) => w.outcome === 'versionConflict')).toMatchObject({ createdBy: 'Ines Harrow' })
  expect(await listVersions(db, scope, type.lineId)).toHaveLength(2)
})

test('a name another type has is refused, whatever its capitals', async () => {
  expect(await write(document(' sorrel '), null)).toEqual({ outcome: 'sameName' })
  const type = await newType()
  expect(await write(document('Bracken'), type.id)).toEqual({ outcome: 'sameName' })
})

test('a saved set-up keeps the version it was made on', async () => {
  const type = await newType()
  const bikeId = await newBike(type.lineId)
  const [memberId, setupId, rowId] = [id(), id(), id()]
  await addMember(db, scope, { id: memberId, name: `Keeps ${memberId.slice(0, 6)}` }, at)
  await startSetup(db, scope, { id: setupId, memberId, bikeId }, at)
  await finishSetup(
    db,
    scope,
    setupId,
    { id: rowId, marks: { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' } },
    at,
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
      ...document(type.name),
      bikeType: {
        ...HOLES_BIKE,
        name: type.name,
        axes: { ...HOLES_BIKE.axes, seatHeight: { directionDeg: 107, scale: bigger } },
      },
    },
    type.id,
  )
  const [saved] = await listFinishedSetups(db, scope, memberId)
  expect(saved.type.axes.seatHeight).toEqual(HOLES_BIKE.axes.seatHeight)
  expect(await listSetupsBetween(db, scope, bikeId, new Date(at.getTime() - 1), at)).toEqual([
    { memberId, name: expect.stringMatching(/^Keeps/), at },
  ])
  expect(await listSetupsBetween(db, scope, bikeId, at, new Date(at.getTime() + 1))).toEqual([])
})

test('re-importing one’s own export changes nothing; something new comes in whole', async () => {
  const types = await listTypes(db, scope)
  const read = parseTypeFile(serializeTypeFile(types))
  if (read.outcome !== 'read') throw new Error('refused')
  const again = await importTypes(db, scope, read.types, at)
  expect(again).toEqual({ added: [], changed: [], unchanged: types.map((t) => t.bikeType.name) })
  expect(await listTypes(db, scope)).toEqual(types)
  const name = `Fresh ${id().slice(0, 8)}`
  expect(await importTypes(db, scope, [document(name)], at)).toEqual({
    added: [name],
    changed: [],
    unchanged: [],
  })
  expect(
    await importTypes(db, scope, [{ ...document(name), bikeType: { ...HOLES_BIKE, name, crankMm: 165 } }], at),
  ).toMatchObject({ changed: [name] })
})

test('an import that the database refuses half-way leaves nothing', async () => {
  const before = await listTypes(db, scope)
  const first = document(`Half ${id().slice(0, 8)}`)
  // The first goes in; the second carries a number JSON has none of, and the column takes no nothing.
  const broken = { ...document(`Done ${id().slice(0, 8)}`), equipment: null as never }
  const writes: string[] = []
  const watched = new Proxy(db, {
    get: (target, key) =>
      key === 'transaction'
        ? (work: (tx: object) => Promise<unknown>) =>
            target.transaction(async (tx) => {
              const result = work(
                new Proxy(tx, {
                  get: (inner, name) => {
                    if (name === 'insert') writes.push(String(name))
                    const value = Reflect.get(inner, name) as unknown
                    return typeof value === 'function' ? value.bind(inner) : value
                  },
                }),
              )
              return result
            })
        : Reflect.get(target, key),
  })
  await expect(importTypes(watched, scope, [first, broken], at)).rejects.toThrow()
  // A line and a version of the first, the line of the second: it stopped at the fourth write.
  expect(writes).toHaveLength(4)
  expect(await listTypes(db, scope)).toEqual(before)
})

test(
  'corrected readings take the place of all, in their order, once; not where one was taken ' +
    'back meanwhile or an id is taken',
  async () => {
    const type = await newType()
    const tape = (stackMm: number) => ({ marks: { seatHeight: '3' }, lengths: { stackMm } })
    const [first, second] = [id(), id()]
    for (const [i, readingId] of [first, second].entries())
      await addTapeReading(db, scope, { id: readingId, typeId: type.id, row: tape(1000 + i) }, at)
    const replaced = [
      { id: first, newId: id(), row: tape(700) },
      { id: second, newId: id(), row: tape(701) },
    ]
    const replace = (all = replaced) => replaceTapeReadings(db, scope, { typeId: type.id, replaced: all }, at)
    const stand = async () => (await listTapeReadings(db, scope, type.id)).map((r) => r.row.lengths.stackMm)
    expect(await Promise.all([replace(), replace()])).toEqual([{ outcome: 'kept' }, { outcome: 'kept' }])
    expect(await stand()).toEqual([700, 701])
    expect(await replace([{ ...replaced[0], row: tape(5) }, replaced[1]])).toEqual({ outcome: 'idTaken' })
    await withdrawTapeReading(db, scope, replaced[1].newId, at)
    const again = replaced.map(({ newId, row }) => ({ id: newId, newId: id(), row }))
    expect(await replace(again)).toEqual({ outcome: 'gone' })
    expect(await stand()).toEqual([700])
    expect(
      await replaceTapeReadings(db, scope, { typeId: (await newType()).id, replaced: again.slice(0, 1) }, at),
    ).toEqual({
      outcome: 'gone',
    })
  },
)

test('tape readings come back in order; a withdrawn one does not; one id counts once', async () => {
  const type = await newType()
  const ids = [id(), id()]
  for (const [i, readingId] of [...ids, ids[0]].entries())
    await addTapeReading(
      db,
      scope,
      {
        id: readingId,
        typeId: type.id,
        row: { marks: { seatHeight: '3' }, lengths: { stackMm: 700 + i } },
      },
      at,
    )
  expect((await listTapeReadings(db, scope, type.id)).map((r) => r.row.lengths.stackMm)).toEqual([700, 701])
  await withdrawTapeReading(db, scope, ids[0], at)
  expect((await listTapeReadings(db, scope, type.id)).map((r) => r.id)).toEqual([ids[1]])
})

test('numbers already taken are named, and then none is added', async () => {
  const type = await newType()
  const before = await listBikes(db, scope)
  expect(await addBikes(db, scope, type.lineId, [901, 1, 902, 2])).toEqual({
    outcome: 'numbersTaken',
    numbers: [1, 2],
  })
  expect(await listBikes(db, scope)).toHaveLength(before.length)
})

test('a faulty bike is not offered until cleared; who found it, and when it was looked over, is known', async () => {
  const type = await newType()
  const bikeId = await newBike(type.lineId)
  const [lookId, faultId] = [id(), id()]
  const look = {
    id: lookId,
    bikeId,
    good: INSPECTION_ITEMS.slice(1),
    faults: [{ id: faultId, item: 'pins' as const, note: 'seat pin worn' }],
  }
  await recordInspection(db, scope, look, at)
  await recordInspection(db, scope, look, at)
  expect(await findBike(db, scope, bikeId)).toMatchObject({ openFaults: 1 })
  expect(availableBikes(await listBikes(db, scope)).some((b) => b.id === bikeId)).toBe(false)
  expect(await listFaults(db, scope, bikeId)).toMatchObject([
    { item: 'pins', note: 'seat pin worn', foundBy: 'Ines Harrow', resolvedAt: null },
  ])
  expect((await lastInspections(db, scope)).get(bikeId)).toEqual(at)
  await resolveFault(db, scope, { id: faultId, bikeId }, at)
  expect(availableBikes(await listBikes(db, scope)).some((b) => b.id === bikeId)).toBe(true)
})

test('what was measured on a machine comes back as it was; a mistake is withdrawn', async () => {
  const bikeId = await newBike((await newType()).lineId)
  const [tilt, line] = [id(), id()]
  await addBikeReading(
    db,
    scope,
    {
      id: tilt,
      bikeId,
      row: { kind: 'tilt', deg: -1.4, floorDeg: 0.2, across: 'highestPoints' },
    },
    at,
  )
  await addBikeReading(db, scope, { id: line, bikeId, row: { kind: 'saddleLine', mm: 1, afterClosing: true } }, at)
  expect((await listBikeReadings(db, scope, bikeId)).map((r) => r.row.kind)).toEqual(['tilt', 'saddleLine'])
  await withdrawBikeReading(db, scope, { id: line, bikeId }, at)
  expect(await listBikeReadings(db, scope, bikeId)).toMatchObject([
    { id: tilt, createdBy: 'Ines Harrow', row: { deg: -1.4 } },
  ])
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
  test('a look over a bike, the answer lost, the mistake corrected: reported, and nothing half stored', async () => {
    const bikeId = await newBike((await newType()).lineId)
    const [lookId, faultId] = [id(), id()]
    const wrong = (item: 'pins' | 'saddle', fault = faultId) => ({
      id: lookId,
      bikeId,
      good: INSPECTION_ITEMS.filter((i) => i !== item),
      faults: [{ id: fault, item, note: '' }],
    })
    expect(await recordInspection(db, scope, wrong('pins'), at)).toEqual({ outcome: 'kept' })
    expect(await recordInspection(db, scope, wrong('saddle'), at)).toEqual({ outcome: 'idTaken' })
    expect(await recordInspection(db, scope, { ...wrong('saddle', id()) }, at)).toEqual({ outcome: 'idTaken' })
    expect(await recordInspection(db, scope, { ...wrong('saddle'), id: id() }, at)).toEqual({ outcome: 'idTaken' })
    expect((await listFaults(db, scope, bikeId)).map((f) => f.item)).toEqual(['pins'])
    expect(await recordInspection(db, scope, { ...wrong('saddle', id()), id: id() }, at)).toEqual({ outcome: 'kept' })
    expect((await listFaults(db, scope, bikeId)).map((f) => f.item).sort()).toEqual(['pins', 'saddle'])
  })

  test('a version, a tape toward a calibration, a reading of a machine', async () => {
    const type = await newType()
    const bikeId = await newBike(type.lineId)
    expect(
      await write(
        { ...document(type.name), bikeType: { ...HOLES_BIKE, name: type.name, crankMm: 165 } },
        null,
        type.id,
      ),
    ).toEqual({ outcome: 'idTaken' })
    const [tapeId, readingId] = [id(), id()]
    const tape = (stackMm: number) =>
      addTapeReading(
        db,
        scope,
        {
          id: tapeId,
          typeId: type.id,
          row: { marks: { seatHeight: '3' }, lengths: { stackMm } },
        },
        at,
      )
    const tilt = (deg: number) =>
      addBikeReading(
        db,
        scope,
        {
          id: readingId,
          bikeId,
          row: { kind: 'tilt', deg, floorDeg: 0, across: 'highestPoints' },
        },
        at,
      )
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
    const { lengths } = contactPoints(
      type,
      { offsetsMm: { seatHeight: offsetMm } },
      resolveMarks(type, marks).positions,
    )
    return { saddleHeightMm: lengths.saddleHeightMm, setbackMm: lengths.setbackMm }
  }
  const marks = { seatHeight: '8', seatSlide: 'D', barHeight: '6', barSlide: '0' }

  test(
    'an edit of the equipment only keeps what the tape found; another geometry fits the same ' + 'tape anew',
    async () => {
      const type = await newType()
      const bikeId = await newBike(type.lineId)
      const definition = { ...HOLES_BIKE, name: type.name }
      await addBikeReading(
        db,
        scope,
        {
          id: id(),
          bikeId,
          row: { kind: 'tape', marks, lengths: lengthsAt(definition, 6, marks) },
        },
        at,
      )
      const measured = (await findBike(db, scope, bikeId))!.machineCalibration
      expect(measured.offsetsMm!.seatHeight).toBeCloseTo(6, 0)
      expect(measured.sdMm!.seatHeight).toBeLessThan(3)

      const equipment = await write(
        { bikeType: definition, equipment: { ...DEFAULT_EQUIPMENT, stop: 'lever' } },
        type.id,
      )
      expect((await findBike(db, scope, bikeId))!.machineCalibration).toEqual(measured)
      if (equipment.outcome !== 'kept') throw new Error(equipment.outcome)

      const higher = { ...definition, seatOrigin: { ...definition.seatOrigin, yMm: definition.seatOrigin.yMm + 6 } }
      const geometry = await write({ bikeType: higher, equipment: DEFAULT_EQUIPMENT }, equipment.id)
      expect((await findBike(db, scope, bikeId))!.machineCalibration.offsetsMm!.seatHeight).toBeCloseTo(0, 0)
      const [stored] = await db.select({ from: bike.machineCalibrationSource }).from(bike).where(eq(bike.id, bikeId))
      expect(stored.from).toMatchObject({
        typeId: geometry.outcome === 'kept' && geometry.id,
        readings: [expect.any(String)],
      })
    },
  )

  test(
    'a new calibration of the type makes unmeasured machines surer, and leaves measured ones ' + 'as they are',
    async () => {
      const type = await newType()
      const [plain, taped] = [await newBike(type.lineId), await newBike(type.lineId)]
      const definition = { ...HOLES_BIKE, name: type.name }
      await addBikeReading(
        db,
        scope,
        {
          id: id(),
          bikeId: taped,
          row: { kind: 'tape', marks, lengths: lengthsAt(definition, 3, marks) },
        },
        at,
      )
      const calibration = {
        rmsMm: 1,
        readings: 9,
        sdMm: { seatHeight: 4 },
        expectedErrorMm: { saddleHeightMm: 4, setbackMm: 1, reachMm: 1, stackMm: 1 },
      }
      await writeVersion(
        db,
        scope,
        { id: id(), baseId: type.id, document: { bikeType: definition, equipment: DEFAULT_EQUIPMENT }, calibration },
        at,
      )
      const machine = async (bikeId: string) => (await findBike(db, scope, bikeId))!.machineCalibration
      expect((await machine(plain)).offsetsMm).toBeUndefined()
      expect((await machine(plain)).sdMm!.seatHeight).toBeCloseTo(Math.hypot(6, 4), 1)
      expect((await machine(taped)).sdMm!.seatHeight).toBeLessThan(5)
      expect((await machine(taped)).offsetsMm!.seatHeight).toBeCloseTo(3, 0)
    },
  )
})
