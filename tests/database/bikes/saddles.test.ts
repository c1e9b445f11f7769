/** @jest-environment node */
import type { SaddleModel } from '@/core/bikes/saddles/saddle'
import { formatWider } from '@/core/messages/bikes/saddles'
import type { Scope } from '@/server/platform/accounts/scope'
import { addBikeReading } from '@/server/bikes/bikeReadings'
import { addBikes, findBike, listBikes } from '@/server/bikes/bikes'
import { listCare } from '@/server/bikes/care'
import { fitSaddle, fittingOf, listSaddles } from '@/server/bikes/saddles'
import { addClass } from '@/server/classes/classes'
import { assignBike } from '@/server/classes/assignments'
import { runCommand } from '@/server/commands/runCommand'
import { reasonsOf } from '@/server/pages/comfort/reasons'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { giveConsent } from '@/server/riders/consent'
import { addMember } from '@/server/riders/members/members'
import { addNote } from '@/server/classes/notes'
import { findSetup, startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const ines: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const bram: Scope = { studioId: 'netloft-hall', userId: 'bram-okell', role: 'instructor' }
const id = () => crypto.randomUUID()
const now = new Date('1996-11-20T17:00:00Z')
const tag = id().slice(0, 6)
const model = (name: string, more: Partial<SaddleModel> = {}): SaddleModel => ({
  name: `${name} ${tag}`,
  widthMm: 150,
  lengthMm: 265,
  noseAheadMm: 135,
  shape: 'curved',
  relief: 'cutOut',
  padding: 'soft',
  board: 'frontHalf',
  ...more,
})
let number = 840

afterAll(closeDatabase)

async function newBike(): Promise<string> {
  number += 1
  await addBikes(db, ines, 'sorrel', [number])
  return (await listBikes(db, ines)).find((one) => one.number === number)!.id
}
const run = (scope: Scope, name: string, input: object, commandId = id()) =>
  runCommand(db, scope, { name, id: commandId, input, observedAt: now }, now)
async function newSaddle(made: SaddleModel): Promise<string> {
  const saddleId = id()
  expect(await run(ines, 'bikes.saveSaddle', { saddleId, model: made })).toEqual({ outcome: 'kept' })
  return saddleId
}

test('a saddle put on: its nose and shape count here, tape and tilt begin anew, set-ups carry it', async () => {
  const bikeId = await newBike()
  const row = { kind: 'tilt', deg: -3, floorDeg: 0, across: 'highestPoints' } as const
  await addBikeReading(db, ines, { id: id(), bikeId, row }, new Date(now.getTime() - 1000))
  expect((await findBike(db, ines, bikeId))!.machineCalibration.tiltDeg).toBe(-3)
  const saddleId = await newSaddle(model('Curve'))
  const fitId = id()
  expect(await run(bram, 'bikes.fitSaddle', { bikeId, saddleId }, fitId)).toEqual({ outcome: 'kept' })
  expect(await run(bram, 'bikes.fitSaddle', { bikeId, saddleId }, fitId)).toEqual({ outcome: 'kept' })
  const { machineCalibration, type } = (await findBike(db, ines, bikeId))!
  expect(machineCalibration.tiltDeg).toBeUndefined()
  const { noseAheadMm } = type.saddle
  expect(machineCalibration.saddle).toMatchObject({
    shape: 'curved',
    board: 'frontHalf',
    noseDeltaMm: 135 - noseAheadMm,
  })
  expect((await listCare(db, ines, bikeId)).map(({ part, deed, note }) => [part, deed, note])).toEqual([
    ['saddle', 'replaced', `Curve ${tag}`],
  ])
  expect(await fittingOf(db, ines, bikeId)).toMatchObject({ saddleId, by: 'Bram Okell' })
  const [memberId, setupId] = [id(), id()]
  await addMember(db, ines, { id: memberId, name: `Saddle ${tag}` }, now)
  await startSetup(db, ines, { id: setupId, memberId, bikeId }, now)
  expect((await findSetup(db, ines, setupId))!.machineCalibration.saddle?.shape).toBe('curved')
  // What the model is changes: the machine follows.
  await run(ines, 'bikes.saveSaddle', { saddleId, model: model('Curve', { shape: 'flat' }) })
  expect((await findBike(db, ines, bikeId))!.machineCalibration.saddle?.shape).toBe('flat')
  await run(bram, 'bikes.fitSaddle', { bikeId, saddleId: null })
  expect((await findBike(db, ines, bikeId))!.machineCalibration.saddle).toBeUndefined()
})

test('one piece is not on two machines at once, also when two people fit it together', async () => {
  const [first, second] = [await newBike(), await newBike()]
  const saddleId = await newSaddle(model('Single', { pieces: 1 }))
  const fit = (bikeId: string, scope: Scope) => fitSaddle(db, scope, { id: id(), bikeId, saddleId }, now)
  const results = await Promise.all([fit(first, ines), fit(second, bram)])
  expect(results.map(({ outcome }) => outcome).toSorted()).toEqual(['kept', 'taken'])
  const other = results[0].outcome === 'kept' ? second : first
  expect(await run(bram, 'bikes.fitSaddle', { bikeId: other, saddleId })).toMatchObject({
    outcome: 'refused',
    code: 'saddleTaken',
  })
  expect((await listSaddles(db, ines)).find((one) => one.id === saddleId)!.bikes).toHaveLength(1)
})

test('names are the studio’s own, sizes possible, and only a manager describes a saddle', async () => {
  await newSaddle(model('Named'))
  const again = { saddleId: id(), model: model('named') }
  expect(await run(ines, 'bikes.saveSaddle', again)).toMatchObject({ code: 'sameSaddleName' })
  expect(await run(bram, 'bikes.saveSaddle', { saddleId: id(), model: model('Other') })).toMatchObject({
    code: 'notAllowed',
  })
  const narrow = { saddleId: id(), model: model('Narrow', { widthMm: 20 }) }
  expect(await run(ines, 'bikes.saveSaddle', narrow)).toMatchObject({ outcome: 'refused' })
})

test('pressure on a saddle whose width is known: a bike with a wider one is an answer', async () => {
  const [bikeId, wideBike] = [await newBike(), await newBike()]
  const wideNumber = number
  const narrow = await newSaddle(model('Slim', { widthMm: 140 }))
  const wide = await newSaddle(model('Broad', { widthMm: 172 }))
  await fitSaddle(db, ines, { id: id(), bikeId, saddleId: narrow }, now)
  await fitSaddle(db, ines, { id: id(), bikeId: wideBike, saddleId: wide }, now)
  const [memberId, classId] = [id(), id()]
  await addMember(db, ines, { id: memberId, name: `Pressed ${tag}` }, now)
  await giveConsent(db, ines, memberId, 'spoken', now)
  const endsAt = new Date(now.getTime() + 45 * 60_000)
  await addClass(db, ines, { id: classId, title: 'Pressed', startsAt: now, endsAt, roomId: 'net-loft' }, now)
  await assignBike(db, ines, { id: id(), classId, bikeId, memberId }, now)
  const felt = { region: 'feltSaddle', sign: 'felt', side: 'both', score: 5 } as const
  await addNote(db, ines, { id: id(), classId, bikeId, memberId, ...felt, createdAt: now })
  const { wider, complaints } = await reasonsOf(db, ines, memberId, new Date(now.getTime() + 3_600_000))
  expect(complaints.map(({ what }) => what)).toEqual(['saddlePressure'])
  expect(wider!.ownMm).toBe(140)
  expect(wider!.bikes).toContainEqual(expect.objectContaining({ number: wideNumber, widthMm: 172 }))
  const broad = wider!.bikes.filter(({ name }) => name.startsWith('Broad'))
  expect(formatWider({ widthMm: 140 }, broad)).toBe(
    `Bike ${wideNumber} has a wider one: Broad ${tag}, 172 mm where this is 140 mm.`,
  )
})
