/** @jest-environment node */
import type { Role } from '@/server/platform/db/roles'
import type { Scope } from '@/server/platform/accounts/scope'
import { addBikeReading } from '@/server/bikes/bikeReadings'
import { addBikes, findBike, listBikes } from '@/server/bikes/bikes'
import { listCare, setCareIntervals } from '@/server/bikes/care'
import { addClass } from '@/server/classes/classes'
import { assignBike } from '@/server/classes/assignments'
import { runCommand } from '@/server/commands/runCommand'
import { careOfBikes } from '@/server/pages/bikes/care'
import { inspectionRound } from '@/server/pages/bikes/inspectionRound'
import { machinePage } from '@/server/pages/bikes/machine'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { finishSetup } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const person = (userId: string, role: Role): Scope => ({ studioId: 'netloft-hall', userId, role })
const [ines, bram, desk] = [
  person('ines-harrow', 'manager'),
  person('bram-okell', 'instructor'),
  person('tove-sandry', 'desk'),
]
const id = () => crypto.randomUUID()
const now = new Date('1997-03-10T17:00:00Z')
const after = (days: number) => new Date(now.getTime() + 86_400_000 * days)
const MARKS = { seatHeight: '8', seatSlide: 'C', barHeight: '5', barSlide: '2' }
let number = 870

afterAll(closeDatabase)

async function newBike(): Promise<string> {
  number += 1
  await addBikes(db, ines, 'sorrel', [number])
  return (await listBikes(db, ines)).find((one) => one.number === number)!.id
}
const record = (scope: Scope, bikeId: string, part: string, deed = 'done', at = now, careId = id(), note = '') =>
  runCommand(
    db,
    scope,
    { name: 'bikes.recordCare', id: careId, input: { bikeId, part, deed, note }, observedAt: at },
    at,
  )
const stateOf = async (bikeId: string, part: string, at: Date) =>
  (await careOfBikes(db, ines, at)).get(bikeId)!.find((one) => one.part === part)

/** A ride on the bike on a day. */
async function ride(bikeId: string, at: Date): Promise<void> {
  const [memberId, classId] = [id(), id()]
  await addMember(db, ines, { id: memberId, name: `Care ${memberId.slice(0, 6)}` }, at)
  const endsAt = new Date(at.getTime() + 45 * 60_000)
  await addClass(db, ines, { id: classId, title: 'Care', startsAt: at, endsAt, roomId: 'net-loft' }, at)
  await assignBike(db, ines, { id: id(), classId, bikeId, memberId }, at)
}

test('a part is due by the rides since it was seen to, or by the days; who did it stands in the history', async () => {
  const bikeId = await newBike()
  expect(await stateOf(bikeId, 'barClamp', now)).toMatchObject({ outcome: 'never' })
  expect(await record(bram, bikeId, 'barClamp', 'done', now, id(), ' 9 Nm ')).toEqual({ outcome: 'kept' })
  await setCareIntervals(db, ines, { bikeId, intervals: { barClamp: { days: 30, rides: 2 } } })
  await ride(bikeId, after(-1))
  expect(await stateOf(bikeId, 'barClamp', after(1))).toMatchObject({ outcome: 'good', ridesLeft: 2 })
  await ride(bikeId, after(1))
  await ride(bikeId, after(2))
  // A class that is still to come is no ride.
  expect(await stateOf(bikeId, 'barClamp', after(1.5))).toMatchObject({ outcome: 'soon', ridesLeft: 1 })
  expect(await stateOf(bikeId, 'barClamp', after(3))).toMatchObject({ outcome: 'due', by: 'rides' })
  await record(bram, bikeId, 'barClamp', 'done', after(4))
  expect(await stateOf(bikeId, 'barClamp', after(5))).toMatchObject({ outcome: 'good' })
  expect(await stateOf(bikeId, 'barClamp', after(40))).toMatchObject({ outcome: 'due', by: 'days' })
  const [, first] = await listCare(db, ines, bikeId)
  expect(first).toMatchObject({ part: 'barClamp', deed: 'done', note: '9 Nm', createdBy: 'Bram Okell' })
  const round = await inspectionRound(db, bram, after(40))
  expect(round.bikes.find((one) => one.id === bikeId)!.care[0]).toMatchObject({ part: 'barClamp', outcome: 'due' })
})

test('the studio’s intervals hold where a machine has none; desk and instructor set none', async () => {
  const bikeId = await newBike()
  const set = (scope: Scope, input: object) =>
    runCommand(db, scope, { name: 'bikes.setCareIntervals', id: id(), input, observedAt: now }, now)
  expect(await record(desk, bikeId, 'pins')).toMatchObject({ code: 'notAllowed' })
  expect(await set(bram, { bikeId: null, intervals: {} })).toMatchObject({ code: 'notAllowed' })
  await record(bram, bikeId, 'pins')
  try {
    expect(await set(ines, { bikeId: null, intervals: { pins: { days: 3 } } })).toEqual({ outcome: 'kept' })
    expect(await stateOf(bikeId, 'pins', after(4))).toMatchObject({ outcome: 'due' })
    await set(ines, { bikeId, intervals: { pins: { days: 90 } } })
    expect(await stateOf(bikeId, 'pins', after(4))).toMatchObject({ outcome: 'good' })
    expect(await set(ines, { bikeId, intervals: { pins: { days: 0 } } })).toMatchObject({ outcome: 'refused' })
    expect(await set(ines, { bikeId: id(), intervals: {} })).toMatchObject({ code: 'noSuchBike' })
  } finally {
    await set(ines, { bikeId: null, intervals: {} })
  }
})

test('a new saddle opens what tape and board said, lists who was set up, and comes back when taken back', async () => {
  const bikeId = await newBike()
  const tape = async (at: Date) => {
    const row = { kind: 'tape', marks: MARKS, lengths: { saddleHeightMm: 745, setbackMm: 30 } } as const
    await addBikeReading(db, ines, { id: id(), bikeId, row }, at)
  }
  const tilt = { kind: 'tilt', deg: -3, floorDeg: 0, across: 'highestPoints' } as const
  await tape(now)
  await addBikeReading(db, ines, { id: id(), bikeId, row: tilt }, now)
  const [memberId, setupId] = [id(), id()]
  await addMember(db, ines, { id: memberId, name: 'Rowan Oldsaddle' }, now)
  await startSetup(db, ines, { id: setupId, memberId, bikeId }, now)
  await finishSetup(db, ines, setupId, { id: id(), marks: MARKS }, now)
  const measured = (await findBike(db, ines, bikeId))!.machineCalibration
  expect(measured).toMatchObject({ tiltDeg: -3, offsetsMm: expect.anything() })
  const careId = id()
  // Straps open nothing.
  await record(bram, bikeId, 'straps', 'replaced', after(1))
  expect((await findBike(db, ines, bikeId))!.machineCalibration).toEqual(measured)
  expect(await record(bram, bikeId, 'saddle', 'replaced', after(2), careId)).toEqual({ outcome: 'kept' })
  expect(await record(bram, bikeId, 'saddle', 'replaced', after(2), careId)).toEqual({ outcome: 'kept' })
  const opened = (await findBike(db, ines, bikeId))!.machineCalibration
  expect(opened.offsetsMm).toBeUndefined()
  expect(opened.tiltDeg).toBeUndefined()
  expect(opened.sdMm!.seatHeight!).toBeGreaterThan(measured.sdMm!.seatHeight!)
  const page = (await machinePage(db, ines, bikeId, after(3)))!
  expect(page.opened).toEqual([{ part: 'saddle', at: after(2) }])
  expect(page.doubtful.map(({ name }) => name)).toEqual(['Rowan Oldsaddle'])
  await tape(after(4))
  expect((await findBike(db, ines, bikeId))!.machineCalibration.offsetsMm).toBeDefined()
  await runCommand(
    db,
    bram,
    { name: 'bikes.withdrawCare', id: id(), input: { bikeId, careId }, observedAt: after(5) },
    after(5),
  )
  expect((await findBike(db, ines, bikeId))!.machineCalibration.tiltDeg).toBe(-3)
  expect((await listCare(db, ines, bikeId)).map(({ part }) => part)).toEqual(['straps'])
})
