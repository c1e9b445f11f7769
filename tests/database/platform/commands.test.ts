/** @jest-environment node */
import { and, eq } from 'drizzle-orm'
import { POST as postCommand } from '@/app/api/v1/commands/[name]/route'
import type { Scope } from '@/server/platform/accounts/scope'
import { listBikes } from '@/server/bikes/bikes'
import { subscribeToClass } from '@/server/classes/live'
import { pruneReceipts } from '@/server/platform/receipts/pruneReceipts'
import { runCommand, type SentCommand } from '@/server/commands/runCommand'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { commandReceipt } from '@/server/platform/receipts/tables'
import { findMember } from '@/server/riders/members/members'

let person: (Scope & { name: string }) | null = null
jest.mock('@/server/platform/accounts/session', () => ({ currentUser: async () => person }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'bram-okell', role: 'manager' }
const now = new Date('2026-08-03T10:00:00Z')
const id = () => crypto.randomUUID()
const run = (sent: SentCommand, by = scope) => runCommand(db, by, sent, now)
const add = (typed: string, as = id()): SentCommand => ({
  name: 'bikes.addMachines',
  id: as,
  input: { lineId: 'sorrel', typed },
})
const numbers = async () => (await listBikes(db, scope)).map(({ number }) => number)
/** So many numbers in a row that no bike has; other tests add bikes as well. */
async function freeNumbers(count: number): Promise<number[]> {
  const taken = new Set(await numbers())
  for (let first = 700; ; first++) {
    const row = Array.from({ length: count }, (_, i) => first + i)
    if (row.every((number) => !taken.has(number))) return row
  }
}
const receipts = (of: string) => db.select().from(commandReceipt).where(eq(commandReceipt.id, of))

afterAll(closeDatabase)

test('a command leaves one receipt: who, what, about whom and when', async () => {
  const typed = `Receipt ${id().slice(0, 6)}`
  const sent = { name: 'members.addMember', id: id(), input: { typed, anyway: false } }
  expect(await run(sent)).toEqual({ outcome: 'kept', memberId: sent.id })
  const renamed = { memberId: sent.id, from: typed, typed: `${typed} Two` }
  const rename = { name: 'members.renameMember', id: id(), input: renamed }
  await run(rename)
  expect(await receipts(rename.id)).toMatchObject([
    { name: 'members.renameMember', studioId: 'netloft-hall', actor: 'bram-okell', subject: sent.id, at: now },
  ])
})

test('sent again under its id it changes nothing, with the same outcome; with other input it is refused', async () => {
  const free = await freeNumbers(4)
  const [first, , third, fourth] = free
  const sent = add(`${first}-${third}`)
  expect(await run(sent)).toEqual({ outcome: 'kept', count: 3 })
  expect(await run(sent)).toEqual({ outcome: 'kept', count: 3 })
  expect((await numbers()).filter((number) => free.includes(number))).toEqual(free.slice(0, 3))
  expect(await run(add(`${fourth}`, sent.id))).toMatchObject({ outcome: 'refused', code: 'idTaken' })
  expect(await numbers()).not.toContain(fourth)
  // Under an id of its own it is another command.
  expect(await run(add(`${first}-${third}`))).toMatchObject({ outcome: 'refused', code: 'numbersTaken' })
})

test('sent ten times at once it is carried out once', async () => {
  const [free] = await freeNumbers(1)
  const sent = add(`${free}`)
  const outcomes = await Promise.all(Array.from({ length: 10 }, () => run(sent)))
  expect(outcomes).toEqual(outcomes.map(() => ({ outcome: 'kept', count: 1 })))
  expect((await numbers()).filter((number) => number === free)).toHaveLength(1)
})

test('a refused command leaves no receipt, and may be sent again under its id', async () => {
  const [free] = await freeNumbers(1)
  const sent = add(`${free} ${free}`)
  expect(await run(sent)).toMatchObject({ code: 'numberTwice' })
  expect(await receipts(sent.id)).toEqual([])
  expect(await run(add(`${free}`, sent.id))).toEqual({ outcome: 'kept', count: 1 })
})

test('one studio’s ids are nothing to another', async () => {
  const [free] = await freeNumbers(1)
  const sent = add(`${free}`)
  await run(sent)
  const [{ studioId }] = await db
    .select()
    .from(commandReceipt)
    .where(and(eq(commandReceipt.id, sent.id), eq(commandReceipt.studioId, 'netloft-hall')))
  expect(studioId).toBe('netloft-hall')
  expect(await run(sent, { ...scope, studioId: 'nowhere' })).toMatchObject({ code: 'noSuchType' })
})

test('others hear of a change once it is committed, and not of one sent again', async () => {
  const heard: unknown[] = []
  const stop = subscribeToClass('class-dusk', (event) => heard.push(event))
  const sent = { name: 'classes.changeHands', id: id(), input: { classId: 'class-dusk', hands: 3, doorsMin: 20 } }
  for (let i = 0; i < 2; i++) expect(await run(sent)).toEqual({ outcome: 'kept' })
  stop()
  expect(heard).toHaveLength(1)
})

test('a list or an object far beyond its schema is one issue, not one for each item or field', async () => {
  const memberIds = Array.from({ length: 100_000 }, () => 7)
  const long = { classId: 'class-dusk', memberIds, warmUp: true }
  expect(await run({ name: 'places.leaveToWarmUp', id: id(), input: long })).toEqual({
    outcome: 'refused',
    code: 'malformed',
    issues: [{ pointer: '/memberIds', reason: expect.any(String) }],
  })
  const wide = Object.fromEntries(Array.from({ length: 100_000 }, (_, i) => [`f${i}`, i]))
  expect(await run({ name: 'bikes.retireMachine', id: id(), input: wide })).toEqual({
    outcome: 'refused',
    code: 'malformed',
    issues: [{ pointer: '', reason: expect.any(String) }],
  })
})

test('receipts of more than a season ago are deleted, later ones stay', async () => {
  const [old, young] = [id(), id()]
  const row = { studioId: 'netloft-hall', name: 'x', contentHash: 'x', outcome: {} }
  const daysAgo = (days: number) => new Date(now.getTime() - days * 86_400_000)
  await db.insert(commandReceipt).values([
    { ...row, id: old, at: daysAgo(181) },
    { ...row, id: young, at: daysAgo(178) },
  ])
  // The first command of this process pruned already: a day later it does again.
  const tomorrow = new Date(now.getTime() + 86_400_000)
  await pruneReceipts(db, tomorrow)
  await pruneReceipts(db, tomorrow)
  expect([await receipts(old), await receipts(young)].map((found) => found.length)).toEqual([0, 1])
})

describe('the door for programs', () => {
  const post = async (name: string, body: unknown, headers: Record<string, string> = {}) => {
    const request = new Request('http://127.0.0.1/api', {
      method: 'POST',
      headers: { 'content-type': 'application/json', host: '127.0.0.1', ...headers },
      body: JSON.stringify(body),
    })
    const response = await postCommand(request, { params: Promise.resolve({ name }) })
    return { status: response.status, ...((await response.json()) as { code?: string; say?: string; issues?: object }) }
  }

  test('carries a command out, or gives reason and place', async () => {
    person = { ...scope, name: 'Bram Okell' }
    const memberId = id()
    const typed = `Door ${memberId.slice(0, 6)}`
    expect(await post('members.addMember', { id: memberId, input: { typed, anyway: false } })).toMatchObject({
      status: 200,
      memberId,
    })
    expect(await findMember(db, scope, memberId)).toMatchObject({ name: typed })
    expect(await post('members.addMember', { id: id(), input: { typed, anyway: false } })).toMatchObject({
      status: 422,
      code: 'sameName',
    })
    expect(await post('members.addMember', { id: id(), input: { typed: 7 } })).toMatchObject({
      status: 422,
      code: 'malformed',
      issues: expect.arrayContaining([{ pointer: '/anyway', reason: 'is missing' }]),
    })
  })

  test('is closed to who is signed out, to other sites, to other roles, and for what is no command', async () => {
    const [free] = await freeNumbers(1)
    const body = { id: id(), input: { lineId: 'sorrel', typed: `${free}` } }
    person = null
    expect(await post('bikes.addMachines', body)).toMatchObject({ status: 401 })
    person = { ...scope, name: 'Bram Okell' }
    expect(await post('bikes.addMachines', body, { origin: 'http://elsewhere.example' })).toMatchObject({ status: 403 })
    expect(await post('bikes.addMachines', body, { 'content-type': 'text/plain' })).toMatchObject({ status: 415 })
    expect(await post('constructor', body)).toMatchObject({ status: 404 })
    person = { ...scope, role: 'desk', name: 'Tove Kestrand' }
    expect(await post('bikes.addMachines', body)).toMatchObject({ status: 403, code: 'notAllowed' })
    expect(await numbers()).not.toContain(free)
  })
})
