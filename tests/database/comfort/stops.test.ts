/** @jest-environment node */
import type { Scope } from '@/server/platform/accounts/scope'
import { findBike } from '@/server/bikes/bikes'
import { assignBike } from '@/server/classes/assignments'
import { addClass, findClass } from '@/server/classes/classes'
import { floorBefore } from '@/server/pages/classes/floor'
import { addNote } from '@/server/classes/notes'
import { bookRider } from '@/server/classes/roster'
import { listSeats } from '@/server/classes/seats'
import { outdatedSheet, recordSheet } from '@/server/pages/classes/sheet'
import { watchData } from '@/server/pages/classes/watch'
import { addComplaint, closeComplaint } from '@/server/comfort/complaints'
import { stopsOf } from '@/server/comfort/stops'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { recordEntry } from '@/server/setups/register'
import { nextSeat, riderContext } from '@/server/pages/comfort/riderContext'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
/** Long past, so that nothing here is of the demo's weeks. */
const now = new Date('2004-04-05T16:00:00Z')
const minutes = (n: number) => new Date(now.getTime() + n * 60_000)

afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Stop ${memberId.slice(0, 6)}` }, now)
  return memberId
}

/** A class in a quarter of an hour with these riders on bikes 1, 2, … */
async function classOf(memberIds: readonly string[]): Promise<string> {
  const classId = id()
  await addClass(
    db,
    scope,
    { id: classId, title: 'Stopping', startsAt: minutes(15), endsAt: minutes(60), roomId: 'net-loft' },
    now,
  )
  for (const [i, memberId] of memberIds.entries()) {
    await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
    await assignBike(db, scope, { id: id(), classId, bikeId: `bike-${i + 1}`, memberId }, now)
  }
  return classId
}

test('an open red flag stops a rider on every view until it is over; the desk sees no health', async () => {
  const [flagged, sharp, well] = [await rider(), await rider(), await rider()]
  const classId = await classOf([flagged, sharp, well])
  const note = {
    id: id(),
    memberId: flagged,
    bikeId: 'bike-1',
    classId,
    sign: 'redFlag',
    region: 'chest',
    side: 'both',
  }
  await addNote(db, scope, { ...note, createdAt: now } as never)
  const complaint = id()
  await addComplaint(
    db,
    scope,
    { id: complaint, memberId: sharp, what: 'frontKnee', strength: 4, quality: ['sharp'] },
    now,
  )
  expect(Object.fromEntries(await stopsOf(db, scope, [flagged, sharp, well], now))).toEqual({
    [flagged]: 'Chest pain or fainting',
    [sharp]: 'sharp pain',
  })
  const ofClass = (await findClass(db, scope, classId))!
  const stopOn = async (sees: boolean) =>
    (await floorBefore(db, scope, ofClass, sees, now)).tiles.flatMap(({ rider: one, stop }) =>
      one && stop ? [one.id] : [],
    )
  expect((await stopOn(true)).sort()).toEqual([flagged, sharp].sort())
  expect(await stopOn(false)).toEqual([])
  const { queue } = await floorBefore(db, scope, ofClass, true, now)
  expect(queue.find(({ memberId }) => memberId === sharp)!.stop).toBe('sharp pain')
  expect((await watchData(db, scope, ofClass, now)).bikes.find((bike) => bike.rider?.id === sharp)!.stop).toBe(
    'sharp pain',
  )
  expect(await riderContext(db, scope, sharp, now)).toMatchObject({
    stop: 'sharp pain',
    lines: ['The front of the knee, 4 of 10'],
    seat: { bikeId: 'bike-2', title: 'Stopping' },
  })
  expect(await riderContext(db, { ...scope, role: 'desk' }, sharp, now)).toMatchObject({ stop: null, lines: [] })

  await closeComplaint(db, scope, complaint, now)
  // A flag that was recorded as a complaint stops by that, and no longer once it is over.
  const recorded = id()
  await addComplaint(db, scope, { id: recorded, memberId: flagged, what: 'chest', strength: 10, noteId: note.id }, now)
  expect([...(await stopsOf(db, scope, [flagged, sharp], now))]).toEqual([[flagged, 'chest pain']])
  await closeComplaint(db, scope, recorded, now)
  expect([...(await stopsOf(db, scope, [flagged, sharp], now))]).toEqual([])
})

test('tonight’s seat is the earliest that has not ended', async () => {
  const memberId = await rider()
  await classOf([memberId])
  expect((await nextSeat(db, scope, memberId, now))!.number).toBe(1)
  expect((await nextSeat(db, scope, memberId, minutes(59)))!.number).toBe(1)
  expect(await nextSeat(db, scope, memberId, minutes(61))).toBeNull()
  expect(await nextSeat(db, scope, memberId, new Date(now.getTime() - 86_400_000))).toBeNull()
})

test('a printed sheet is up to date until a place or a number changes', async () => {
  const memberId = await rider()
  const classId = await classOf([memberId])
  const print = async (at: Date) => recordSheet(db, scope, classId, await listSeats(db, scope, classId), at)
  expect(await outdatedSheet(db, scope, classId)).toBeNull()
  await print(now)
  expect(await outdatedSheet(db, scope, classId)).toBeNull()
  await assignBike(db, scope, { id: id(), classId, bikeId: 'bike-4', memberId }, now)
  expect(await outdatedSheet(db, scope, classId)).toEqual(now)
  await print(minutes(1))
  expect(await outdatedSheet(db, scope, classId)).toBeNull()
  const bike = (await findBike(db, scope, 'bike-4'))!
  await recordEntry(
    db,
    scope,
    {
      id: id(),
      memberId,
      lineId: bike.lineId,
      typeId: bike.typeId,
      marks: { seatHeight: '7', seatSlide: 'C', barHeight: '5', barSlide: '2' },
      purpose: 'usual',
      source: 'imported',
      certainty: 'told',
    },
    now,
  )
  expect(await outdatedSheet(db, scope, classId)).toEqual(minutes(1))
})
