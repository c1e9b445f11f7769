/** @jest-environment node */
import { eq, getTableColumns, getTableName, sql } from 'drizzle-orm'
import { webcrypto } from 'node:crypto'
import { addComplaint, recordReferral } from '@/server/comfort/complaints'
import { runCommand } from '@/server/commands/runCommand'
import type { Scope } from '@/server/platform/accounts/scope'
import { complaint } from '@/server/comfort/tables'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { openText, sealText } from '@/server/platform/sealing/keys'
import { sealedColumns, sealedFields } from '@/server/platform/sealing/sealed'
import { SEALED_TABLES, sealStored } from '@/server/privacy/sealStored'
import { listLimits } from '@/server/riders/limits'
import { listPlans } from '@/server/riders/plans'
import { riderLimit } from '@/server/riders/tables'
import { addMember } from '@/server/riders/members/members'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')
const KEY = process.env.HEALTH_KEY!

afterEach(() => {
  process.env.HEALTH_KEY = KEY
})
afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Sealed ${memberId.slice(0, 6)}` }, now)
  return memberId
}
const send = (name: string, input: object) => runCommand(db, scope, { name, id: id(), input }, now)

/** Every cell of the database as text, by table, as a copy of it would show. */
async function cells(): Promise<ReadonlyMap<string, string>> {
  const [tables] = (await connectionPool().query('SHOW TABLES')) as unknown as [Record<string, string>[]]
  const names = tables.map((row) => Object.values(row)[0])
  const read = names.map(async (name) => {
    const [rows] = await connectionPool().query(`SELECT * FROM \`${name}\``)
    return [name, JSON.stringify(rows)] as const
  })
  return new Map(await Promise.all(read))
}

test('health words typed anywhere are in no cell of the database, and read as they were typed', async () => {
  const planted = Array.from({ length: 4 }, (_, i) => `Planted${i} ${id().slice(0, 8)}`)
  const [line, clearedBy, words, handedTo] = planted
  const memberId = await rider()
  const complaintId = id()
  const felt = { id: complaintId, memberId, what: 'frontKnee', strength: 6, line, health: ['heart'] } as const
  expect(await addComplaint(db, scope, felt, now)).toEqual({ outcome: 'kept' })
  await recordReferral(db, scope, complaintId, handedTo, now)
  const limit = { kind: 'pregnancy', since: '2004-08-02', weeks: 12, clearedBy }
  expect(await send('members.recordLimit', { memberId, limit, consent: true })).toMatchObject({ outcome: 'kept' })
  const plan = { kind: 'promise', due: '2004-09-01', words }
  expect(await send('members.recordPlan', { memberId, plan })).toMatchObject({ outcome: 'kept' })

  const stored = await cells()
  expect(stored.size).toBeGreaterThan(40)
  const seen = planted.filter((word) => [...stored.values()].some((text) => text.includes(word)))
  expect(seen).toEqual([])
  expect([...stored.values()].join('')).toContain(complaintId)
  const health = ['complaint', 'rider_limit'].map((name) => stored.get(name))
  expect(health.filter((text) => /pregnan|heart/.test(text!))).toEqual([])

  const [found] = await db.select().from(complaint).where(eq(complaint.id, complaintId))
  expect(found).toMatchObject({ line, health: ['heart'], handedTo })
  expect((await listLimits(db, scope, [memberId]))[0].limit).toMatchObject({ kind: 'pregnancy', clearedBy })
  expect((await listPlans(db, scope, [memberId])).map((one) => one.plan)).toContainEqual(plan)
})

test('what is sealed opens with any implementation of HKDF (RFC 5869) and AES-GCM (NIST SP 800-38D)', async () => {
  const sealedText = sealText('netloft-hall', 'complaint.line', 'aches ÅØ 膝')
  const [, , studioId, text] = sealedText.split('.')
  const bytes = Buffer.from(text, 'base64url')
  const bytesOf = (value: string) => new TextEncoder().encode(value)
  const secret = await webcrypto.subtle.importKey('raw', bytesOf(KEY), 'HKDF', false, ['deriveKey'])
  const hkdf = { name: 'HKDF', hash: 'SHA-256', salt: bytesOf(studioId), info: bytesOf('health words') }
  const aes = { name: 'AES-GCM', length: 256 }
  const key = await webcrypto.subtle.deriveKey(hkdf, secret, aes, false, ['decrypt'])
  const gcm = { name: 'AES-GCM', iv: bytes.subarray(0, 12), additionalData: bytesOf('complaint.line') }
  const opened = await webcrypto.subtle.decrypt(gcm, key, bytes.subarray(12))
  expect(new TextDecoder().decode(opened)).toBe('aches ÅØ 膝')
})

test('a sealed text opens in its own column, unchanged and with its own key alone; none is sealed alike', () => {
  const [one, again] = [sealText('a', 'complaint.line', 'knee'), sealText('a', 'complaint.line', 'knee')]
  expect(one).not.toBe(again)
  expect(openText('complaint.line', one)).toBe('knee')
  expect(() => openText('trial.said', one)).toThrow('was changed')
  const flipped = one.slice(0, -2) + (one.at(-2) === 'A' ? 'B' : 'A') + one.at(-1)
  expect(() => openText('complaint.line', flipped)).toThrow('was changed')
  expect(() => openText('complaint.line', one.replace('.a.', '.b.'))).toThrow('was changed')
  expect(() => openText('complaint.line', 'knee')).toThrow('is not sealed')
  process.env.HEALTH_KEY = 'another'
  expect(() => openText('complaint.line', one)).toThrow('which is not here')
  process.env.HEALTH_KEY = ''
  expect(() => sealText('a', 'complaint.line', 'knee')).toThrow('HEALTH_KEY is not set')
})

test('every sealed column belongs to a table that a rotation seals again; a plain write is refused', async () => {
  const rotated = SEALED_TABLES.flatMap((table) =>
    sealedFields(table).map((field) => `${getTableName(table)}.${getTableColumns(table)[field].name}`),
  )
  expect(rotated.sort()).toEqual(sealedColumns())
  const set = { line: 'plain' }
  await expect(async () => db.update(complaint).set(set).where(eq(complaint.id, 'none'))).rejects.toThrow('sealed')
})

test('words from before are sealed at the start, once; after a rotation the old key is not needed', async () => {
  const memberId = await rider()
  const [old, limitId] = [id(), id()]
  const felt = { id: old, memberId, what: 'frontKnee', strength: 6, line: 'x' } as const
  await addComplaint(db, scope, felt, now)
  const limit = { kind: 'injury', since: '2004-08-01', region: 'knee', side: 'left' }
  const sent = { name: 'members.recordLimit', id: limitId, input: { memberId, limit, consent: true } }
  await runCommand(db, scope, sent, now)
  await connectionPool().query('UPDATE complaint SET line = ?, quality = ?, handed_to = NULL WHERE id = ?', [
    's1.not a sealed "text"',
    '["night"]',
    old,
  ])
  await connectionPool().query('UPDATE rider_limit SET kind = ? WHERE id = ?', ['injury', limitId])
  const read = async () => {
    const [{ line, quality, handedTo }] = await db.select().from(complaint).where(eq(complaint.id, old))
    const [{ kind }] = await db.select().from(riderLimit).where(eq(riderLimit.id, limitId))
    return { line, quality, handedTo, kind }
  }
  const plain = { line: 's1.not a sealed "text"', quality: ['night'], handedTo: null, kind: 'injury' }
  await expect(read()).rejects.toThrow('not sealed')
  expect(await sealStored(db)).toBe(3)
  expect(await sealStored(db)).toBe(0)
  expect(await read()).toEqual(plain)

  process.env.HEALTH_KEY = `new-key,${KEY}`
  expect(await sealStored(db)).toBeGreaterThan(4)
  process.env.HEALTH_KEY = 'new-key'
  expect(await read()).toEqual(plain)
  expect(await sealStored(db)).toBe(0)

  // The key file of another studio: named, and nothing is overwritten.
  process.env.HEALTH_KEY = KEY
  const [before] = (await db.execute(sql`SELECT line FROM complaint WHERE id = ${old}`)) as unknown as [object[]]
  await expect(sealStored(db)).rejects.toThrow('key that is not here')
  const [after] = (await db.execute(sql`SELECT line FROM complaint WHERE id = ${old}`)) as unknown as [object[]]
  expect(after).toEqual(before)
  process.env.HEALTH_KEY = `${KEY},new-key`
  await sealStored(db)
})
