/** @jest-environment node */
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import type { Scope } from '@/server/platform/accounts/scope'
import { addBikes, findBike, listBikes, listRetiredBikes, renumberBike, returnBike } from '@/server/bikes/bikes'
import { retireBike } from '@/server/classes/retireBike'
import { recordInspection } from '@/server/bikes/inspections'
import { deleteType, listTypes, writeVersion } from '@/server/bikes/versions'
import { afterClass } from '@/server/pages/classes/after'
import { assignBike, listAssignments } from '@/server/classes/assignments'
import { addClass, changeClassFacts, findClass, listClasses, repeatClass } from '@/server/classes/classes'
import { floorBefore } from '@/server/pages/classes/floor'
import { followUp, listHandedToMe } from '@/server/classes/followUps'
import { addNote } from '@/server/classes/notes'
import { bookRider, changeRider, listRoster } from '@/server/classes/roster'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { listPlaces } from '@/server/classes/rooms/rooms'
import { startSetup } from '@/server/setups/setups'
import { listTeachers } from '@/server/studio/people'
import { today } from '@/server/pages/classes/today'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const elsewhere: Scope = { ...scope, studioId: 'nowhere' }
const id = () => crypto.randomUUID()
/** Long past, so that nothing here is of the demo's weeks. */
const now = new Date('2005-03-07T16:00:00Z')
const minutes = (n: number) => new Date(now.getTime() + n * 60_000)
afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Day ${memberId.slice(0, 6)}` }, now)
  return memberId
}
async function newClass(fromMin: number, bikeId?: string, memberId?: string): Promise<string> {
  const classId = id()
  const span = { startsAt: minutes(fromMin), endsAt: minutes(fromMin + 45) }
  await addClass(db, scope, { id: classId, title: 'Everyday', ...span, roomId: 'net-loft' }, now)
  if (bikeId && memberId) {
    await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
    await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
  }
  return classId
}
async function newBike(number: number): Promise<string> {
  await addBikes(db, scope, 'sorrel', [number])
  return (await listBikes(db, scope)).find((one) => one.number === number)!.id
}

test('a bike retires: offered nowhere, seats and number free, records preserved; it can come back', async () => {
  const [bikeId, memberId] = [await newBike(971), await rider()]
  await recordInspection(
    db,
    scope,
    { id: id(), bikeId, good: [], faults: [{ id: id(), item: 'pins', note: 'worn out' }] },
    now,
  )
  const [over, coming] = [await newClass(-300, bikeId, memberId), await newClass(60, bikeId, memberId)]
  await changeRider(db, scope, coming, [memberId], { pinnedBikeId: bikeId })
  expect(await retireBike(db, scope, bikeId, now)).toEqual({ outcome: 'kept', riders: 1 })
  expect(await retireBike(db, scope, bikeId, now)).toEqual({ outcome: 'kept', riders: 0 })
  expect((await listBikes(db, scope)).some((one) => one.id === bikeId)).toBe(false)
  expect((await listRetiredBikes(db, scope)).find((one) => one.id === bikeId)).toMatchObject({
    number: 971,
    type: 'Sorrel',
    retiredAt: now,
  })
  expect(await listAssignments(db, scope, coming)).toEqual([])
  expect((await listRoster(db, scope, coming))[0].pinnedBikeId).toBeNull()
  expect(await listAssignments(db, scope, over)).toHaveLength(1)
  expect(await afterClass(db, scope, (await findClass(db, scope, over))!, now)).toMatchObject({ riders: 1 })
  expect((await today(db, scope, now)).outOfUse.map((one) => one.bikeId)).not.toContain(bikeId)
  expect((await listPlaces(db, scope)).some((place) => place.bikeId === bikeId)).toBe(false)
  const seat = { id: id(), classId: coming, bikeId, memberId }
  expect(await assignBike(db, scope, seat, now)).toEqual({ outcome: 'gone' })
  expect(await startSetup(db, scope, { id: id(), memberId, bikeId }, now)).toEqual({ outcome: 'outOfUse' })

  const successor = await newBike(971)
  expect(await returnBike(db, scope, bikeId)).toEqual({ outcome: 'numberTaken' })
  expect(await renumberBike(db, scope, successor, 972)).toEqual({ outcome: 'kept' })
  expect(await returnBike(db, scope, bikeId)).toEqual({ outcome: 'kept' })
  expect(await renumberBike(db, scope, successor, 971)).toEqual({ outcome: 'numberTaken' })
  expect(await renumberBike(db, elsewhere, successor, 973)).toEqual({ outcome: 'gone' })
  expect(await retireBike(db, elsewhere, successor, now)).toEqual({ outcome: 'gone' })
  expect((await findBike(db, scope, successor))?.number).toBe(972)
})

test('a type nothing uses is deleted with its versions; one with a bike, even a retired one, stays', async () => {
  const document = (name: string) => ({ bikeType: { ...HOLES_BIKE, name }, equipment: DEFAULT_EQUIPMENT })
  const name = `Type ${id().slice(0, 6)}`
  const made = await writeVersion(db, scope, { id: id(), baseId: null, document: document(name) }, now)
  if (made.outcome !== 'kept') throw new Error(made.outcome)
  await writeVersion(db, scope, { id: id(), baseId: made.id, document: document(`${name} b`) }, now)
  expect(await addBikes(db, scope, made.lineId, [981])).toEqual({ outcome: 'kept' })
  const bikeId = (await listBikes(db, scope)).find(({ number }) => number === 981)!.id
  await retireBike(db, scope, bikeId, now)
  expect(await deleteType(db, scope, made.lineId)).toEqual({ outcome: 'inUse' })
  expect((await listTypes(db, scope)).some(({ lineId }) => lineId === made.lineId)).toBe(true)

  const unused = await writeVersion(db, scope, { id: id(), baseId: null, document: document(`${name} c`) }, now)
  if (unused.outcome !== 'kept') throw new Error(unused.outcome)
  await writeVersion(db, scope, { id: id(), baseId: unused.id, document: document(`${name} d`) }, now)
  expect(await deleteType(db, elsewhere, unused.lineId)).toEqual({ outcome: 'gone' })
  expect(await deleteType(db, scope, unused.lineId)).toEqual({ outcome: 'kept' })
  expect(await deleteType(db, scope, unused.lineId)).toEqual({ outcome: 'gone' })
})

test('a class is renamed, moved, given a teacher and repeated; the slower of two is rejected', async () => {
  const classId = await newClass(600)
  const of = (await findClass(db, scope, classId))!
  const { title, startsAt, endsAt, roomId, teacherId } = of
  const from = { title, startsAt, endsAt, roomId, teacherId }
  const [teacher] = await listTeachers(db, scope)
  const to = { ...from, title: 'Moved', startsAt: minutes(660), endsAt: minutes(720), teacherId: teacher.id }
  // The form shows whole minutes.
  const seen = { ...from, startsAt: new Date(startsAt.getTime() - 30_000) }
  expect(await changeClassFacts(db, scope, classId, { from: seen, to })).toEqual({ outcome: 'kept' })
  expect(await changeClassFacts(db, scope, classId, { from, to })).toEqual({ outcome: 'kept' })
  expect(await findClass(db, scope, classId)).toMatchObject({ ...to, teacher: teacher.name })
  const late = { from, to: { ...from, title: 'Late' } }
  expect(await changeClassFacts(db, scope, classId, late)).toEqual({ outcome: 'changed' })
  for (const wrong of [{ teacherId: 'nobody' }, { roomId: 'nowhere' }])
    expect(await changeClassFacts(db, scope, classId, { from: to, to: { ...to, ...wrong } })).toEqual({
      outcome: 'gone',
    })
  expect(await changeClassFacts(db, elsewhere, classId, { from: to, to })).toEqual({ outcome: 'gone' })

  const weeks = [1, 2].map((week) => ({ id: id(), startsAt: minutes(660 + week * 7 * 1440) }))
  const moved = (await findClass(db, scope, classId))!
  for (let twice = 0; twice < 2; twice++)
    expect(await repeatClass(db, scope, moved, weeks, now)).toEqual({ outcome: 'kept' })
  const all = await listClasses(db, scope, minutes(700), minutes(3 * 7 * 1440))
  expect(all.map((one) => [one.title, one.teacher, one.endsAt.getTime() - one.startsAt.getTime()])).toEqual([
    ['Moved', teacher.name, 3_600_000],
    ['Moved', teacher.name, 3_600_000],
  ])
})

test('a line after class is ticked, put to the rider’s next class, or handed on, and can be taken back', async () => {
  const memberId = await rider()
  const first = await newClass(-120, 'bike-3', memberId)
  const next = await newClass(1440, 'bike-3', memberId)
  const note = { id: id(), memberId, bikeId: 'bike-3', classId: first, sign: 'kneesIn', region: 'knees', side: 'both' }
  await addNote(db, scope, { ...note, createdAt: minutes(-100) } as never)
  const key = { classId: first, memberId, kind: 'noted' as const }
  const say = (state: 'done' | 'nextClass' | 'handed' | null, handedTo: string | null = null) =>
    followUp(db, scope, key, { state, handedTo, said: 'knees in' }, now)
  const after = async (classId: string) => afterClass(db, scope, (await findClass(db, scope, classId))!, now)
  const line = async () => (await after(first)).rows.find(({ kind }) => kind === 'noted')!.followUp
  const watched = async () =>
    (await floorBefore(db, scope, (await findClass(db, scope, next))!, true, now)).tiles.find(
      ({ bikeId }) => bikeId === 'bike-3',
    )!.watchFor
  expect(await line()).toBeNull()
  expect(await say('done')).toEqual({ outcome: 'kept' })
  expect(await line()).toEqual({ state: 'done', handedTo: null, to: null, by: 'Ines Harrow' })
  expect(await watched()).not.toContain('from the last class: knees in')

  expect(await say('nextClass')).toEqual({ outcome: 'kept' })
  expect(await watched()).toContain('from the last class: knees in')
  expect((await after(next)).put).toMatchObject([
    { memberId, subjects: [{ kind: 'words', words: 'knees in' }], classId: first },
  ])
  expect((await after(first)).put).toEqual([])

  const colleague = (await listTeachers(db, scope)).find((one) => one.id !== scope.userId)!
  expect(await say('handed', colleague.id)).toEqual({ outcome: 'kept' })
  expect(await line()).toMatchObject({ state: 'handed', to: colleague.name })
  const theirs: Scope = { ...scope, userId: colleague.id, role: 'instructor' }
  expect((await listHandedToMe(db, theirs)).map(({ said }) => said)).toContain('knees in')
  expect((await today(db, theirs, now)).due).toContainEqual(
    expect.objectContaining({
      memberId,
      subject: { kind: 'handed', by: 'Ines Harrow', said: 'knees in' },
      fromClassId: first,
    }),
  )
  expect((await listHandedToMe(db, scope)).map(({ memberId: whose }) => whose)).not.toContain(memberId)
  expect(await say('handed', 'nobody')).toEqual({ outcome: 'gone' })
  expect(await followUp(db, elsewhere, key, { state: 'done', handedTo: null, said: '' }, now)).toEqual({
    outcome: 'gone',
  })
  expect(await say(null)).toEqual({ outcome: 'kept' })
  expect(await line()).toBeNull()
})
