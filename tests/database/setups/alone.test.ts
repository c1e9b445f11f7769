/** @jest-environment node */
import { eq } from 'drizzle-orm'
import type { Evidence } from '@/core/riders/evidence/registry'
import { changeCode, codesOfBikes, findCode, normalizeCode, printedCode } from '@/server/bikes/codes'
import { openCode } from '@/server/bikes/codeLimits'
import { listBikes, type StudioBike } from '@/server/bikes/bikes'
import { recordInspection } from '@/server/bikes/inspections'
import { retireBike } from '@/server/classes/retireBike'
import { CODE_COMMANDS, COMMANDS, OWN_COMMANDS, QUERIES } from '@/server/commands/registry'
import { runCodeCommand, runCommand } from '@/server/commands/runCommand'
import { machineCodePage } from '@/server/pages/bikes/machineCode'
import { aloneItems } from '@/server/pages/classes/alone'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { listAloneSetups, pruneAloneSetups } from '@/server/setups/aloneSetups'
import { appendEvidence, listEvidence } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'
import { aloneSetup } from '@/server/setups/tables'
import { addBikes } from '@/server/bikes/bikes'
import { listTypes } from '@/server/bikes/versions'
import { createRng } from '@/core/base/rng'
import { simulateAlone } from '@/core/simulated/simulatedAlone'
import { drawRider, POPULATIONS } from '@/core/simulated/simulatedRider'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const desk: Scope = { ...scope, userId: 'tove-lind', role: 'desk' }
const now = new Date('2026-11-20T17:00:00Z')
const id = () => crypto.randomUUID()
let bike: StudioBike
let code: string
let rows: Evidence[]

async function newBike(number: number): Promise<StudioBike> {
  const [type] = await listTypes(db, scope)
  await addBikes(db, scope, type.lineId, [number])
  return (await listBikes(db, scope)).find((one) => one.number === number)!
}
const codeOf = async ({ id: bikeId }: StudioBike) => (await codesOfBikes(db, scope, [bikeId], now)).get(bikeId)!

beforeAll(async () => {
  // What other tests left behind.
  await db.delete(aloneSetup)
  bike = await newBike(701)
  code = await codeOf(bike)
  rows = [...simulateAlone(drawRider(POPULATIONS.own, bike.type, createRng(7)), { samples: 400 }).evidence]
})
afterAll(async () => {
  await db.delete(aloneSetup).where(eq(aloneSetup.studioId, scope.studioId))
  await closeDatabase()
})

const sent = (more: object = {}) => ({ name: 'Maren', device: id(), rows, agrees: true, ...more })
const leave = (input: object, at: StudioBike = bike, key = id()) =>
  runCodeCommand(db, { studioId: scope.studioId, bikeId: at.id }, { name: 'alone.leave', id: key, input }, now)

test('a code is read as somebody types it; one of the alphabet’s other letters is none', () => {
  expect(normalizeCode(` ${printedCode(code).toUpperCase()} `)).toBe(code)
  expect(normalizeCode(code.slice(1))).toBeNull()
  expect(normalizeCode('abcde fghjl'.replace('l', '1'))).toBeNull()
})

test('two who print at once make one code a machine; a changed one opens nothing, and says so', async () => {
  const other = await newBike(702)
  const [first, second] = await Promise.all([codeOf(other), codeOf(other)])
  expect(first).toBe(second)
  await changeCode(db, scope, other.id, now)
  const next = await codeOf(other)
  expect(next).not.toBe(first)
  expect(await findCode(db, first)).toMatchObject({ state: 'changed' })
  expect(await machineCodePage(db, (await findCode(db, first))!)).toEqual({ state: 'changed', studio: 'Netloft Hall' })
  expect(await findCode(db, next)).toMatchObject({ state: 'inForce', bikeId: other.id })
  await retireBike(db, scope, other.id, now)
  expect(await findCode(db, next)).toMatchObject({ state: 'retired' })
})

test('what is left behind comes first in the class’s list; the look begins with it, and it is gone', async () => {
  const key = id()
  expect(await leave(sent(), bike, key)).toEqual({ outcome: 'kept' })
  expect(await leave(sent(), bike, key)).toMatchObject({ outcome: 'kept' })
  const [item] = await aloneItems(db, scope, 'Europe/London', now)
  expect(item).toMatchObject({ id: key, name: 'Maren', number: 701, isToday: true })
  expect(await aloneItems(db, desk, 'Europe/London', now)).toEqual([])

  const memberId = id()
  await addMember(db, scope, { id: memberId, name: 'Ysbet Setalone' }, now)
  const look = { name: 'alone.look', id: id(), input: { aloneId: key, memberId } }
  const begun = (await runCommand(db, scope, look, now)) as unknown as { outcome: string; setupId: string }
  expect(begun.outcome).toBe('kept')
  const stored = (await listEvidence(db, scope, begun.setupId)).map(({ row }) => row)
  expect(stored).toEqual(expect.arrayContaining(rows))
  expect(await listAloneSetups(db, scope, now)).toEqual([])
  expect(await runCommand(db, scope, { ...look, id: id() }, now)).toMatchObject({ code: 'lookedAtAlready' })
})

test('what is known of a member outranks what they tapped alone: a pregnancy stays known', async () => {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: 'Ysbet Knownwell' }, now)
  const setupId = id()
  await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, now)
  const known = { kind: 'rider', experience: 'regular', pregnant: true } as const
  await appendEvidence(db, scope, setupId, { id: id(), row: known }, now)
  const key = id()
  await leave(sent(), bike, key)
  const look = { name: 'alone.look', id: id(), input: { aloneId: key, memberId } }
  expect(await runCommand(db, scope, look, now)).toMatchObject({ setupId })
  const stored = (await listEvidence(db, scope, setupId)).map(({ row }) => row)
  expect(stored.findLast(({ kind }) => kind === 'rider')).toEqual(known)
  expect(stored.filter(({ kind }) => kind === 'heelCheck').length).toBeGreaterThan(0)
})

test('nothing about health is stored of somebody alone, whatever is sent', async () => {
  const [, ...others] = rows
  const rider = { kind: 'rider', experience: 'new', pregnant: true, backSore: true }
  expect(await leave(sent({ rows: [rider, ...others] }))).toEqual({ outcome: 'kept' })
  const [{ rows: stored }] = await db.select().from(aloneSetup).where(eq(aloneSetup.name, 'Maren'))
  expect(stored[0]).toEqual({ kind: 'rider', experience: 'new' })
  expect(await leave(sent({ rows: [{ kind: 'stature', mm: 1700 }, ...others] }))).toMatchObject({ code: 'unreadable' })
})

test.each([
  ['without a name', { name: ' ‍ ' }, 'ownNameMissing'],
  ['with a name of a hundred letters', { name: 'M'.repeat(100) }, 'nameTooLong'],
  ['without agreeing', { agrees: false }, 'malformed'],
  ['with marks the machine does not have', { rows: [{ kind: 'set', at: { seatHeight: 'ZZ' } }] }, 'unreadable'],
  ['without numbers', { rows: [{ kind: 'rider', experience: 'new' }] }, 'unreadable'],
  ['with a row that is none', { rows: [null] }, 'unreadable'],
] as const)('refused %s, and nothing is stored', async (_, more, refusal) => {
  const before = await db.select().from(aloneSetup)
  expect(await leave(sent(more))).toMatchObject({ outcome: 'refused', code: refusal })
  expect(await db.select().from(aloneSetup)).toEqual(before)
})

test('one phone leaves five an hour, then its numbers stay on it; another phone goes on', async () => {
  const at = await newBike(703)
  const device = id()
  for (let i = 0; i < 5; i++) expect(await leave(sent({ device }), at)).toEqual({ outcome: 'kept' })
  expect(await leave(sent({ device }), at)).toMatchObject({ code: 'tooManyHere' })
  expect(await leave(sent(), at)).toEqual({ outcome: 'kept' })
})

test('on a machine out of use, and where the studio sets riders up itself, nothing is left', async () => {
  const at = await newBike(704)
  const fault = { id: id(), item: 'pins', note: 'loose' } as const
  await recordInspection(db, scope, { id: id(), bikeId: at.id, good: [], faults: [fault] }, now)
  expect(await leave(sent(), at)).toMatchObject({ code: 'outOfUseHere' })
  expect(await machineCodePage(db, (await findCode(db, await codeOf(at)))!)).toMatchObject({ outOfUse: true })
  const allow = (allowed: boolean) => runCommand(db, scope, { name: 'alone.allow', id: id(), input: { allowed } }, now)
  await allow(false)
  expect(await leave(sent())).toMatchObject({ code: 'notAlone' })
  await allow(true)
})

test('put aside it leaves the list, and comes back; what nobody looked at goes after a month', async () => {
  await db.delete(aloneSetup)
  const key = id()
  await leave(sent(), bike, key)
  const put = (aside: boolean) =>
    runCommand(db, scope, { name: 'alone.putAside', id: id(), input: { aloneId: key, aside } }, now)
  await put(true)
  expect(await listAloneSetups(db, scope, now)).toEqual([])
  await put(false)
  expect(await listAloneSetups(db, scope, now)).toHaveLength(1)
  const later = new Date(now.getTime() + 31 * 86_400_000)
  expect(await listAloneSetups(db, scope, later)).toEqual([])
  await pruneAloneSetups(db, later)
  expect(await db.select().from(aloneSetup)).toEqual([])
})

describe('nobody with a code', () => {
  /** Every name of a person and every id of a member in the studio. */
  async function everybody(): Promise<string[]> {
    const [people] = await connectionPool().query('SELECT name AS text FROM member UNION SELECT name FROM user')
    const [ids] = await connectionPool().query("SELECT id AS text FROM member WHERE id NOT LIKE 'member-%'")
    return [...(people as { text: string }[]), ...(ids as { text: string }[])].map(({ text }) => text)
  }

  test('the page of a code has nothing of any person', async () => {
    const found = (await openCode(db, 'peer', code))!
    const text = JSON.stringify(await machineCodePage(db, found))
    const names = (await everybody()).filter((name) => name.length > 4)
    expect(names.length).toBeGreaterThan(20)
    expect(names.filter((name) => text.includes(name))).toEqual([])
  })

  test('a code runs its own command and no other: none of somebody signed in, none of a member, no query', async () => {
    const owner = { studioId: scope.studioId, bikeId: bike.id }
    const names = [COMMANDS, OWN_COMMANDS, QUERIES].flatMap((all) => Object.keys(all))
    expect(names.length).toBeGreaterThan(70)
    for (const name of names) {
      const answer = await runCodeCommand(db, owner, { name, id: id(), input: { memberId: 'member-01' } }, now)
      expect([name, answer]).toEqual([name, { outcome: 'refused', code: 'malformed' }])
    }
    expect(Object.keys(CODE_COMMANDS)).toEqual(['alone.leave'])
  })
})
