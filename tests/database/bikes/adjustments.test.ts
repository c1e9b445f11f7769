/** @jest-environment node */
import type { Marks } from '@/core/base/conventions'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import type { BikeType } from '@/core/bikes/bike/bike'
import { nextDesignPoint } from '@/core/bikes/calibration/nextDesignPoint'
import type { TapeReading } from '@/core/bikes/calibration/readings'
import { createRng } from '@/core/base/rng'
import type { Evidence } from '@/core/riders/evidence/registry'
import { tapeAt } from '@/core/simulated/simulatedTape'
import { NO_SLIDE_BIKE, SIX_BIKE } from '@/core/testing/furtherTypes'
import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import { addBikeReading } from '@/server/bikes/bikeReadings'
import { addBikes, findBike, listBikes } from '@/server/bikes/bikes'
import { calibrateType } from '@/server/bikes/calibrateType'
import { addTapeReading } from '@/server/bikes/tapeReadings'
import { findType, listTypes, writeVersion } from '@/server/bikes/versions'
import { runCommand } from '@/server/commands/runCommand'
import { archiveText } from '@/server/files/archiveExport'
import { importArchive } from '@/server/files/archiveImport'
import { memberListStream } from '@/server/files/exportMembers'
import { previewList } from '@/server/files/files'
import { checkMembers, importMembers } from '@/server/files/importMembers'
import { storeUpload } from '@/server/files/uploads'
import { movable, moveOutlook } from '@/server/pages/setups/movable'
import type { Database } from '@/server/platform/db/connection'
import type { Scope } from '@/server/platform/accounts/scope'
import { addMember } from '@/server/riders/members/members'
import { appendEvidence, finishSetup } from '@/server/setups/evidence'
import { currentEntries } from '@/server/setups/register'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))
jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))

const now = new Date('2026-05-04T06:07:08.000Z')
const id = () => crypto.randomUUID()
const going = new AbortController().signal
const SIX_MARKS: Marks = {
  seatHeight: '8',
  seatSlide: 'D',
  barHeight: '6',
  barSlide: '0',
  frameHeight: 'B',
  crankLength: '165',
}
const { seatSlide: _, frameHeight: __, crankLength: ___, ...FIXED_MARKS } = SIX_MARKS

/** A studio of its own with the two types, and a second one to bring its archive into. */
let here: EmptyStudio
let there: EmptyStudio
let db: Database
let scope: Scope
const bikeOf: Record<string, string> = {}

async function newType(bikeType: BikeType, numbers: number[]): Promise<string> {
  const document = { bikeType, equipment: DEFAULT_EQUIPMENT }
  const written = await writeVersion(db, scope, { id: id(), baseId: null, document }, now)
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  await addBikes(db, scope, written.lineId, numbers)
  for (const one of await listBikes(db, scope)) bikeOf[one.number] = one.id
  return written.id
}
let sixId: string
let fixedId: string

beforeAll(async () => {
  here = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_axes_${process.pid}`)
  there = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_axes_b_${process.pid}`)
  db = here.db
  scope = here.scope
  sixId = await newType(SIX_BIKE, [1, 2])
  fixedId = await newType(NO_SLIDE_BIKE, [3])
})
afterAll(async () => {
  await here.close()
  await there.close()
})

async function setUpOn(number: number, marks: Marks, name = `Rider ${id().slice(0, 6)}`): Promise<string> {
  const [memberId, setupId, bikeId] = [id(), id(), bikeOf[number]]
  await addMember(db, scope, { id: memberId, name }, now)
  await startSetup(db, scope, { id: setupId, memberId, bikeId }, now)
  const knee: Evidence = { kind: 'kneeAngle', deg: 33, by: 'goniometer', at: marks }
  await appendEvidence(db, scope, setupId, { id: id(), row: knee }, now)
  expect(await finishSetup(db, scope, setupId, { id: id(), marks }, now)).toMatchObject({ outcome: 'kept' })
  return memberId
}

test.each([
  ['of six adjustments', () => sixId, SIX_BIKE, 1],
  ['without a seat slide', () => fixedId, NO_SLIDE_BIKE, 3],
] as const)(
  'a type %s goes under the tape, and its machine gets its own offset',
  async (_name, typeId, guess, number) => {
    const random = createRng(4)
    const readings: TapeReading[] = []
    for (let k = 0; k < 9; k++) {
      const row = tapeAt(guess, nextDesignPoint(guess, readings).marks, random, 1)
      readings.push(row)
      await addTapeReading(db, scope, { id: id(), typeId: typeId(), row }, now)
    }
    expect(await calibrateType(db, scope, { id: id(), typeId: typeId() }, now)).toMatchObject({ outcome: 'kept' })
    const before = (await findBike(db, scope, bikeOf[number]))!
    expect(before.machineCalibration?.sdMm).not.toHaveProperty('crankLength')
    const raised = tapeAt(before.type, readings[0].marks, random, 0)
    const lengths = { ...raised.lengths, saddleHeightMm: raised.lengths.saddleHeightMm! + 9 }
    const row = { kind: 'tape', marks: raised.marks, lengths } as const
    await addBikeReading(db, scope, { id: id(), bikeId: bikeOf[number], row }, now)
    const after = (await findBike(db, scope, bikeOf[number]))!
    expect(after.machineCalibration!.offsetsMm!.seatHeight!).toBeGreaterThan(1)
  },
)

test('numbers with frame and cranks are kept whole; one that is missing is asked for', async () => {
  const memberId = await setUpOn(2, SIX_MARKS)
  const [entry] = await currentEntries(db, scope, [memberId])
  expect(entry.marks).toEqual(SIX_MARKS)
  const fixed = await setUpOn(3, FIXED_MARKS)
  expect((await currentEntries(db, scope, [fixed]))[0].marks).toEqual(FIXED_MARKS)
})

test('the frame is moved on the floor; cranks are none of its marks, and what it disturbs is told', async () => {
  const memberId = await setUpOn(2, SIX_MARKS)
  const bikeId = bikeOf[2]
  const input = { memberId, bikeId, axis: 'frameHeight', from: 'B', to: 'C', why: 'comfort' }
  const moved = await runCommand(db, scope, { name: 'register.moveMark', id: id(), input, observedAt: now }, now)
  expect(moved).toEqual({ outcome: 'kept' })
  expect((await currentEntries(db, scope, [memberId]))[0].marks).toEqual({ ...SIX_MARKS, frameHeight: 'C' })
  const shown = await movable(db, scope, { memberId, bikeId }, now)
  expect(shown).toMatchObject({ marks: { ...SIX_MARKS, frameHeight: 'C' } })
  const outlook = await moveOutlook(db, scope, { memberId, bikeId, axis: 'frameHeight', to: ['B'] }, now)
  // Where it was read at 33°; a frame 20 mm higher along the post straightens the knee by some 9.
  const { from, to } = outlook!.expects.B.kneeDeg
  expect(Math.abs(to - 33)).toBeLessThan(1.5)
  expect(to - from).toBeGreaterThan(6)
  expect(to - from).toBeLessThan(14)
})

const textOf = async (stream: ReadableStream<Uint8Array>) => new Response(stream).text()
async function asked(text: string) {
  const kept = await storeUpload(scope, new Blob([text]).stream() as ReadableStream<Uint8Array>, null)
  if (kept.outcome !== 'kept') throw new Error(kept.why)
  const types = (await listTypes(db, scope)).map(({ bikeType }) => bikeType)
  const preview = await previewList(kept.upload, types)
  if (typeof preview === 'string') throw new Error(preview)
  return { upload: kept.upload, format: preview.format, columns: preview.columns }
}

test('the list has a column for each adjustment, and reads what the bike calls it', async () => {
  const name = `Heather ${id().slice(0, 6)}`
  await setUpOn(2, SIX_MARKS, name)
  const [head, ...lines] = (await textOf(await memberListStream(db, scope))).split('\r\n')
  expect(head).toMatch(/seat height,seat slide,bar height,bar slide,frame height,crank length,how sure/)
  expect(head).not.toMatch(/saddle tilt|bar turn/)
  const own = lines.find((line) => line.includes(name))!
  expect(own).toMatch(/Six,usual,8,D,6,0,B,165,measured/)
  const list = ['name,bike type,seat height,seat slide,bar height,bar slide,Lift,cranks', 'Ling Moss,Six,7,C,5,1,D,160']
  const result = await importMembers(db, scope, await asked(list.join('\r\n')), now, () => undefined, going)
  expect(result).toMatchObject({ outcome: 'kept' })
  const check = async (text: string) => checkMembers(db, scope, await asked(text), now, () => undefined, going)
  const lacking = await check(list.join('\r\n').replace(',D,', ',,'))
  expect(JSON.stringify(lacking)).toMatch(/"column":"frameHeight","code":"missing"/)
  const wrong = await check(list.join('\r\n').replace('Six', 'Fixed'))
  expect(JSON.stringify(wrong)).toMatch(/"code":"noSuchAxis"/)
})

test('a type that gains an adjustment while riders have numbers: their numbers are worked out for it', async () => {
  const memberId = await setUpOn(3, FIXED_MARKS)
  const type = (await findType(
    db,
    scope,
    (await listTypes(db, scope)).find((one) => one.bikeType.name === 'Fixed')!.id,
  ))!
  const bikeType: BikeType = {
    ...type.bikeType,
    axes: { ...type.bikeType.axes, frameHeight: SIX_BIKE.axes.frameHeight! },
  }
  const document = { bikeType, equipment: DEFAULT_EQUIPMENT }
  await writeVersion(db, scope, { id: id(), baseId: type.id, document }, now)
  const shown = await movable(db, scope, { memberId, bikeId: bikeOf[3] }, now)
  expect(shown?.marks).toMatchObject({ seatHeight: '8', frameHeight: 'A' })
  expect((await currentEntries(db, scope, [memberId]))[0].marks).toEqual(FIXED_MARKS)
})

test('the archive carries every adjustment into another studio', async () => {
  let text = ''
  for await (const piece of archiveText(db, scope)) text += piece
  const kept = await storeUpload(there.scope, new Blob([text]).stream() as ReadableStream<Uint8Array>, null)
  if (kept.outcome !== 'kept') throw new Error(kept.why)
  const input = { upload: kept.upload, progress: () => undefined, signal: going }
  expect(await importArchive(there.db, there.scope, input)).toMatchObject({ outcome: 'kept' })
  const types = await listTypes(there.db, there.scope)
  expect(types.map(({ bikeType }) => Object.keys(bikeType.axes).length).toSorted()).toEqual([4, 6])
  let again = ''
  for await (const piece of archiveText(there.db, there.scope)) again += piece
  const marksIn = (archive: string) =>
    (JSON.parse(archive) as { register: { marks: Marks }[] }).register.map((row) => row.marks)
  expect(marksIn(again)).toEqual(marksIn(text))
})
