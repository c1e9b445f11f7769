/** @jest-environment node */
import { asc, eq } from 'drizzle-orm'
import type { BikeType } from '@/core/bike/bike'
import { USUAL_SHEET } from '@/core/bike/sheet'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { addBikes, bikesOf } from '@/server/bikes/bikes'
import { importTypes, typeLine, typesOf, writeVersion } from '@/server/bikes/types'
import { closeDatabase, database, withTransaction } from '@/server/db/connection'
import { bikeAssignment, evidence, setup } from '@/server/db/schema'
import { addMember } from '@/server/members/members'
import { assignBike } from '@/server/notes/notes'
import { appendEvidence, finishSetup, openSetupsOf, startSetup, withdrawEvidence } from '@/server/setups/setups'

const db = database()
const [studioId, by] = ['netloft-hall', 'ines-harrow']
const id = () => crypto.randomUUID()
const at = new Date('2026-06-07T08:09:10.011Z')
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '8', barSlide: '3' }
const ROUNDS = 8
let number = 600

const bikeType = (name: string): BikeType => ({ ...HOLES_BIKE, name })
/** The same, several times, each on ground of its own. */
async function everyRound(race: (round: number) => Promise<void>): Promise<void> {
  for (let round = 0; round < ROUNDS; round++) await race(round)
}
async function newMember(): Promise<string> {
  const memberId = id()
  await addMember(db, { id: memberId, studioId, name: `Race ${memberId.slice(0, 8)}`, at, by })
  return memberId
}
const newSetup = (memberId: string, setupId = id()) =>
  startSetup(db, { id: setupId, memberId, bike: { id: 'bike-1', typeId: 'sorrel', own: {} }, at, by })

afterAll(closeDatabase)

test('one member, six bikes at once: they sit on one', () =>
  everyRound(async (round) => {
    const [memberId, day] = [await newMember(), `2032-01-0${round + 1}`]
    await Promise.all(
      [1, 2, 3, 4, 5, 6].map((n) =>
        withTransaction(db, (tx) => assignBike(tx, { id: id(), bikeId: `bike-${n}`, memberId, day, at, by })),
      ),
    )
    expect(await db.select().from(bikeAssignment).where(eq(bikeAssignment.day, day))).toHaveLength(1)
  }))

test('two members, one bike, back and forth: one sits there, none twice', () =>
  everyRound(async (round) => {
    const [a, b, day] = [await newMember(), await newMember(), `2032-02-0${round + 1}`]
    const words = [
      [a, 1],
      [b, 1],
      [a, 2],
      [b, 2],
      [a, 1],
      [b, 2],
    ] as const
    await Promise.all(
      words.map(([memberId, n]) =>
        withTransaction(db, (tx) => assignBike(tx, { id: id(), bikeId: `bike-${n}`, memberId, day, at, by })),
      ),
    )
    const seated = await db.select().from(bikeAssignment).where(eq(bikeAssignment.day, day))
    expect(new Set(seated.map((s) => s.memberId)).size).toBe(seated.length)
    expect(new Set(seated.map((s) => s.bikeId)).size).toBe(seated.length)
    expect(seated.length).toBeGreaterThan(0)
  }))

test('a set-up begun from six pages at once is one set-up', () =>
  everyRound(async () => {
    const memberId = await newMember()
    const ids = await Promise.all(Array.from({ length: 6 }, () => newSetup(memberId)))
    expect(new Set(ids).size).toBe(1)
    expect(await openSetupsOf(db, memberId)).toHaveLength(1)
  }))

test('two types of one name: one is kept, the other told', () =>
  everyRound(async () => {
    const name = `Twin ${id().slice(0, 8)}`
    const both = await Promise.all(
      [name, name.toUpperCase()].map((n) =>
        writeVersion(db, {
          id: id(),
          studioId,
          baseId: null,
          whole: { bikeType: bikeType(n), sheet: USUAL_SHEET },
          calibration: null,
          at,
          by,
        }),
      ),
    )
    expect(both.map((w) => w.outcome).sort()).toEqual(['kept', 'sameName'])
  }))

test('a file brought in twice at once brings each type in once', () =>
  everyRound(async () => {
    const names = [1, 2, 3].map((n) => `Brought ${n} ${id().slice(0, 8)}`)
    const file = { studioId, types: names.map((name) => ({ bikeType: bikeType(name), sheet: USUAL_SHEET })), at, by }
    const told = await Promise.all([importTypes(db, file), importTypes(db, file)])
    expect(told.map((t) => t.added.length).sort()).toEqual([0, 3])
    const found = (await typesOf(db, studioId)).filter((t) => names.includes(t.bikeType.name))
    expect(found).toHaveLength(3)
    for (const { lineId } of found) expect(await typeLine(db, lineId)).toHaveLength(1)
  }))

test('rows that arrive while the numbers are saved stand before them, or are told that they came too late', () =>
  everyRound(async () => {
    const setupId = await newSetup(await newMember())
    const first = id()
    await withTransaction(db, (tx) =>
      appendEvidence(tx, setupId, { id: first, row: { kind: 'stature', mm: 1700 } }, at, by),
    )
    const rows = Array.from(
      { length: 8 },
      (_, i) => () =>
        withTransaction(db, (tx) =>
          appendEvidence(tx, setupId, { id: id(), row: { kind: 'stature', mm: 1701 + i } }, at, by),
        ),
    )
    const saves = ['8', '9'].map(
      (seatHeight) => () =>
        withTransaction(db, (tx) => finishSetup(tx, setupId, { id: id(), marks: { ...marks, seatHeight } }, at, by)),
    )
    const takesBack = () => withTransaction(db, (tx) => withdrawEvidence(tx, setupId, first, at, by))
    const outcomes = await Promise.all(
      [...rows.slice(0, 4), saves[0], takesBack, saves[1], ...rows.slice(4)].map((act) => act()),
    )
    const saved = outcomes.filter((o, i) => (i === 4 || i === 6) && o.outcome === 'kept')
    expect(saved).toHaveLength(1)
    const stored = await db
      .select({ id: evidence.id })
      .from(evidence)
      .where(eq(evidence.setupId, setupId))
      .orderBy(asc(evidence.position))
    const [{ numbersId }] = await db.select({ numbersId: setup.numbersId }).from(setup).where(eq(setup.id, setupId))
    expect(stored.at(-1)!.id).toBe(numbersId)
    const kept = outcomes.filter((o, i) => o.outcome === 'kept' && ![4, 5, 6].includes(i)).length
    expect(stored).toHaveLength(1 + kept + 1)
  }))

test('machines added twice at once under overlapping numbers: each list wholly or not at all', () =>
  everyRound(async () => {
    const from = (number += 6)
    const lists = [
      [from, from + 1, from + 2],
      [from + 2, from + 3, from + 4],
    ]
    const taken = await Promise.all(
      lists.map((numbers) => addBikes(db, { studioId, typeId: 'sorrel', numbers, own: {} })),
    )
    const there = (await bikesOf(db, studioId)).map((b) => b.number)
    const whole = lists.filter((numbers) => numbers.every((n) => there.includes(n)))
    expect(whole).toHaveLength(1)
    expect(taken.map((t) => t.length).sort()).toEqual([0, 1])
    expect(there.filter((n) => n >= from && n < from + 6)).toHaveLength(3)
  }))
