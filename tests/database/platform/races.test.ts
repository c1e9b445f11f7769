/** @jest-environment node */
import { asc, eq } from 'drizzle-orm'
import type { BikeType } from '@/core/bikes/bike/bike'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { importTypes, listVersions, listTypes, writeVersion } from '@/server/bikes/versions'
import { assignBike } from '@/server/classes/assignments'
import { openFloor } from '@/server/classes/classes'
import { appendEvidence, finishSetup, withdrawEvidence } from '@/server/setups/evidence'
import { listOpenSetups, startSetup } from '@/server/setups/setups'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database, withTransaction } from '@/server/platform/db/connection'
import { bikeAssignment } from '@/server/classes/tables'
import { evidence, setup } from '@/server/setups/tables'
import { addMember } from '@/server/riders/members/members'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
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
  await addMember(db, scope, { id: memberId, name: `Race ${memberId.slice(0, 8)}` }, at)
  return memberId
}
const newClass = (day: string) => openFloor(db, scope, { day, from: at, to: at }, at)
async function newSetup(memberId: string): Promise<string> {
  const started = await startSetup(db, scope, { id: id(), memberId, bikeId: 'bike-1' }, at)
  if (started.outcome !== 'kept') throw new Error(started.outcome)
  return started.id
}

afterAll(closeDatabase)

test('one member, six bikes at once: they sit on one', () =>
  everyRound(async (round) => {
    const [memberId, classId] = [await newMember(), await newClass(`2032-01-0${round + 1}`)]
    await Promise.all(
      [1, 2, 3, 4, 5, 6].map((n) => assignBike(db, scope, { id: id(), bikeId: `bike-${n}`, memberId, classId }, at)),
    )
    expect(await db.select().from(bikeAssignment).where(eq(bikeAssignment.classId, classId))).toHaveLength(1)
  }))

test('two members, one bike, back and forth: one sits there, none twice', () =>
  everyRound(async (round) => {
    const [a, b, classId] = [await newMember(), await newMember(), await newClass(`2032-02-0${round + 1}`)]
    const words = [
      [a, 1],
      [b, 1],
      [a, 2],
      [b, 2],
      [a, 1],
      [b, 2],
    ] as const
    await Promise.all(
      words.map(([memberId, n]) => assignBike(db, scope, { id: id(), bikeId: `bike-${n}`, memberId, classId }, at)),
    )
    const seated = await db.select().from(bikeAssignment).where(eq(bikeAssignment.classId, classId))
    expect(new Set(seated.map((s) => s.memberId)).size).toBe(seated.length)
    expect(new Set(seated.map((s) => s.bikeId)).size).toBe(seated.length)
    expect(seated.length).toBeGreaterThan(0)
  }))

test('a set-up begun from six pages at once is one set-up', () =>
  everyRound(async () => {
    const memberId = await newMember()
    const ids = await Promise.all(Array.from({ length: 6 }, () => newSetup(memberId)))
    expect(new Set(ids).size).toBe(1)
    expect(await listOpenSetups(db, scope, memberId)).toHaveLength(1)
  }))

test('two types of one name: one is stored, the other refused', () =>
  everyRound(async () => {
    const name = `Twin ${id().slice(0, 8)}`
    const both = await Promise.all(
      [name, name.toUpperCase()].map((n) =>
        writeVersion(
          db,
          scope,
          { id: id(), baseId: null, document: { bikeType: bikeType(n), equipment: DEFAULT_EQUIPMENT } },
          at,
        ),
      ),
    )
    expect(both.map((w) => w.outcome).sort()).toEqual(['kept', 'sameName'])
  }))

test('a file brought in twice at once brings each type in once', () =>
  everyRound(async () => {
    const names = [1, 2, 3].map((n) => `Brought ${n} ${id().slice(0, 8)}`)
    const types = names.map((name) => ({ bikeType: bikeType(name), equipment: DEFAULT_EQUIPMENT }))
    const told = await Promise.all([importTypes(db, scope, types, at), importTypes(db, scope, types, at)])
    expect(told.map((t) => t.added.length).sort()).toEqual([0, 3])
    const found = (await listTypes(db, scope)).filter((t) => names.includes(t.bikeType.name))
    expect(found).toHaveLength(3)
    for (const { lineId } of found) expect(await listVersions(db, scope, lineId)).toHaveLength(1)
  }))

test('rows that arrive while the numbers are saved come before them, or are answered as too late', () =>
  everyRound(async () => {
    const setupId = await newSetup(await newMember())
    const first = id()
    await withTransaction(db, (tx) =>
      appendEvidence(tx, scope, setupId, { id: first, row: { kind: 'stature', mm: 1700 } }, at),
    )
    const rows = Array.from(
      { length: 8 },
      (_, i) => () =>
        withTransaction(db, (tx) =>
          appendEvidence(tx, scope, setupId, { id: id(), row: { kind: 'stature', mm: 1701 + i } }, at),
        ),
    )
    const saves = ['8', '9'].map(
      (seatHeight) => () =>
        withTransaction(db, (tx) => finishSetup(tx, scope, setupId, { id: id(), marks: { ...marks, seatHeight } }, at)),
    )
    const takesBack = () => withTransaction(db, (tx) => withdrawEvidence(tx, scope, setupId, first, at))
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
    const taken = await Promise.all(lists.map((numbers) => addBikes(db, scope, 'sorrel', numbers)))
    const there = (await listBikes(db, scope)).map((b) => b.number)
    const added = lists.filter((numbers) => numbers.every((n) => there.includes(n)))
    expect(added).toHaveLength(1)
    expect(taken.map((t) => t.outcome).sort()).toEqual(['kept', 'numbersTaken'])
    expect(there.filter((n) => n >= from && n < from + 6)).toHaveLength(3)
  }))
