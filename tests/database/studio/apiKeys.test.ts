/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { createHash, randomBytes } from 'node:crypto'
import { POST as postOperation } from '@/app/api/v1/[operation]/route'
import { POST as postCommand } from '@/app/api/v1/commands/[name]/route'
import { runCommand } from '@/server/commands/runCommand'
import { listKeys, programOf } from '@/server/platform/accounts/apiKeys'
import type { Scope } from '@/server/platform/accounts/scope'
import { commandReceipt } from '@/server/platform/receipts/tables'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { findMember } from '@/server/riders/members/members'
import { listEverybody, listPeople } from '@/server/studio/people'

/** Nobody is signed in. */
jest.mock('@/server/platform/accounts/session', () => ({ currentUser: async () => null }))
jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')

afterAll(closeDatabase)

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
async function key(of: 'operations' | 'desk' | 'instructor', program = `Program ${id().slice(0, 6)}`) {
  const [keyId, secret] = [id(), `ys_${randomBytes(32).toString('base64url')}`]
  const input = { program, scope: of, keyHash: sha256(secret) }
  const sent = { name: 'people.makeKey', id: keyId, input }
  for (let i = 0; i < 2; i++) expect(await runCommand(db, scope, sent, now)).toEqual({ outcome: 'kept' })
  return { keyId, secret, program }
}
const request = (secret: string | null, body: unknown) =>
  new Request('http://127.0.0.1/api/v1', {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json', ...(secret !== null && { authorization: `Bearer ${secret}` }) },
  })
const addMember = (secret: string | null, commandId = id()) =>
  postCommand(request(secret, { id: commandId, input: { typed: `Booked ${commandId.slice(0, 8)}`, anyway: false } }), {
    params: Promise.resolve({ name: 'members.addMember' }),
  })
const lookAtNotes = (secret: string, memberId: string) =>
  postCommand(request(secret, { id: id(), input: { memberId, way: 'spoken' } }), {
    params: Promise.resolve({ name: 'members.giveConsent' }),
  })
const place = (secret: string | null) =>
  postOperation(request(secret, {}), { params: Promise.resolve({ operation: 'place' }) })

test('a key does what its scope allows, under the program’s name, and nothing once it is ended', async () => {
  const [desk, instructor, computing] = [await key('desk'), await key('instructor'), await key('operations')]
  const memberId = id()
  expect((await addMember(desk.secret, memberId)).status).toBe(200)
  const [receipt] = await db.select().from(commandReceipt).where(eq(commandReceipt.id, memberId))
  expect(receipt.actor).toBe(desk.keyId)
  expect(await findMember(db, scope, memberId)).not.toBeNull()
  expect((await lookAtNotes(desk.secret, memberId)).status).toBe(403)
  expect((await lookAtNotes(instructor.secret, memberId)).status).toBe(200)
  // A faulty request is refused as such: the key opened the door.
  expect([(await place(computing.secret)).status, (await addMember(computing.secret)).status]).toEqual([400, 403])
  expect([(await place(null)).status, (await addMember(null)).status]).toEqual([401, 401])
  for (const wrong of [`${desk.secret}x`, desk.secret.slice(0, -1), 'short', ''])
    expect([wrong, (await addMember(wrong)).status]).toEqual([wrong, 401])

  const before = (await listKeys(db, scope)).find((one) => one.id === desk.keyId)!
  expect(before).toMatchObject({ name: desk.program, scope: 'desk', usedAt: expect.any(Date) })
  const end = { name: 'people.revokeKey', id: id(), input: { keyId: desk.keyId } }
  const far: Scope = { ...scope, studioId: 'elsewhere' }
  expect(await runCommand(db, { ...scope, role: 'instructor' }, end, now)).toMatchObject({ code: 'notAllowed' })
  await runCommand(db, far, { ...end, id: id() }, now).catch(() => undefined)
  expect((await addMember(desk.secret)).status).toBe(200)
  expect(await runCommand(db, scope, end, now)).toEqual({ outcome: 'kept' })
  expect((await addMember(desk.secret)).status).toBe(401)
  expect((await listKeys(db, scope)).some((one) => one.id === desk.keyId)).toBe(false)
})

test('the key is nowhere in the database; its program is nobody who works here; a taken key is refused', async () => {
  const { keyId, secret, program } = await key('instructor')
  const [tables] = (await connectionPool().query('SHOW TABLES')) as unknown as [Record<string, string>[]]
  for (const name of tables.map((row) => Object.values(row)[0])) {
    const [rows] = await connectionPool().query(`SELECT * FROM \`${name}\``)
    expect([name, JSON.stringify(rows).includes(secret)]).toEqual([name, false])
  }
  const people = [...(await listPeople(db, scope)), ...(await listEverybody(db, scope))]
  expect(people.some((one) => one.id === keyId || one.name === program)).toBe(false)
  const again = { program: 'Another', scope: 'desk', keyHash: sha256(secret) }
  const taken = await runCommand(db, scope, { name: 'people.makeKey', id: id(), input: again }, now)
  expect(taken).toMatchObject({ outcome: 'refused' })
  for (const input of [
    { ...again, program: '  ' },
    { ...again, keyHash: 'x' },
    { ...again, scope: 'manager' },
  ])
    expect(await runCommand(db, scope, { name: 'people.makeKey', id: id(), input }, now)).toMatchObject({
      code: 'malformed',
    })
  // Its account gets no password either.
  const invited = { name: 'people.invite', id: id(), input: { role: 'desk', userId: keyId } }
  expect(await runCommand(db, scope, invited, now)).toMatchObject({ code: 'noSuchPerson' })
  const used = await programOf(db, new Headers({ authorization: `Bearer ${secret}` }), now)
  expect(used).toMatchObject({ scope: { studioId: 'netloft-hall', userId: keyId, role: 'instructor' } })
})
