/** @jest-environment node */
import { createPrivateKey, createPublicKey, sign, verify } from 'node:crypto'
import canonicalize from 'canonicalize'
import jsQR from 'jsqr'
import QRCode from 'qrcode'
import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import type { RiderFile } from '@/core/riders/riderFile/riderFile'
import { MAX_RIDER_FILE_LENGTH } from '@/core/riders/riderFile/riderFile'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { importTypes, listTypes } from '@/server/bikes/versions'
import { bringRiderFile, type BringInput } from '@/server/files/riderFile/bring'
import { makeRiderFile, riderFileContents, type FileChoice } from '@/server/files/riderFile/make'
import { codeTextOf, parseRiderFile } from '@/server/files/riderFile/parse'
import { readRiderFile, type ReadRiderFile } from '@/server/files/riderFile/read'
import { MAX_CODE_LENGTH, riderFileResponse } from '@/server/files/riderFile/response'
import { setupPage } from '@/server/pages/setups/setup'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, connectionPool, database, withTransaction } from '@/server/platform/db/connection'
import { consentOf } from '@/server/riders/consent'
import { listLimits, recordLimit } from '@/server/riders/limits'
import { addMember } from '@/server/riders/members/members'
import { carriedBodyOf, listRiderFiles } from '@/server/setups/carriedBodies'
import { appendEvidence, finishSetup, listEvidence } from '@/server/setups/evidence'
import { currentEntries } from '@/server/setups/register'
import { startSetup } from '@/server/setups/setups'
import { forgetStudio, isIntact, knowStudio, listKnownStudios, printOf, publicKeyOf } from '@/server/studio/studioKeys'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const now = new Date('2026-11-20T17:00:00Z')
const later = (days: number) => new Date(now.getTime() + days * 86_400_000)
const id = () => crypto.randomUUID()
const ALL: FileChoice = { body: true, wish: true, limits: [] }
let far: EmptyStudio
let memberId: string
let limitId: string

beforeAll(async () => {
  far = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_file_${process.pid}`)
  const types = await listTypes(db, scope)
  const [, , other] = types
  await importTypes(far.db, far.scope, [{ bikeType: other.bikeType, equipment: other.equipment }], now)
  const [line] = await listTypes(far.db, far.scope)
  await addBikes(far.db, far.scope, line.lineId, [1])
  memberId = id()
  await addMember(db, scope, { id: memberId, name: 'Tarrow Quill' }, now)
  const bike = (await listBikes(db, scope)).find(({ lineId }) => lineId === types[0].lineId)!
  const setupId = id()
  await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, now)
  const marks = { seatHeight: '8', seatSlide: 'C', barHeight: '5', barSlide: '2' }
  for (const row of [
    { kind: 'stature', mm: 1790 },
    { kind: 'wish', posture: 'upright' },
    { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: marks },
    { kind: 'plumb', mm: 3, at: marks },
  ] as const)
    await appendEvidence(db, scope, setupId, { id: id(), row }, now)
  await withTransaction(db, (tx) => finishSetup(tx, scope, setupId, { id: id(), marks }, now))
  limitId = id()
  const limit = { kind: 'injury', since: '2026-01-05', region: 'knee', side: 'left' } as const
  await withTransaction(db, (tx) => recordLimit(tx, scope, { id: limitId, memberId, limit }, now))
})
afterAll(async () => {
  await far.close()
  await closeDatabase()
})

const make = async (choice: Partial<FileChoice> = {}, at = now): Promise<RiderFile> => {
  const made = await makeRiderFile(db, scope, memberId, { ...ALL, limits: [limitId], ...choice }, at)
  if (made === null || made === 'busy') throw new Error(String(made))
  return made
}
const read = async (file: object | string, own: string | null = null, at = later(1)): Promise<ReadRiderFile> => {
  const text = typeof file === 'string' ? file : JSON.stringify(file)
  const found = await readRiderFile(far.db, far.scope, { text, memberId: own }, at)
  if (found.outcome !== 'read') throw new Error(JSON.stringify(found))
  return found
}
const know = async () => knowStudio(far.db, far.scope, { key: await publicKeyOf(db, scope, now), name: 'Netloft' }, now)
const bring = (file: object, more: Partial<BringInput> = {}, at = later(1)) =>
  bringRiderFile(
    far.db,
    far.scope,
    {
      text: JSON.stringify(file),
      id: id(),
      memberId: id(),
      newName: null,
      sets: [],
      body: false,
      wish: false,
      limits: [],
      ...more,
    },
    at,
  )

test('the key and its signature are those of RFC 8037, appendix A, and the canonical form that of RFC 8785', () => {
  const x = '11qYAYKxCrfVS_7TyWQHOg7hcvPapiMlrwIaaPcHURo'
  const d = 'nWGxne_9WmC6hEr0kuwsxERJxWl7MmkZcDusAxyuf2A'
  const signed = 'hgyY0il_MGCjP0JzlnLWG1PPOt7-09PGcvMg3AIbQR6dWbhijcNR4ki4iylGjg5BhVsPt9g7sVvpAr_MuM0KAg'
  const input = Buffer.from('eyJhbGciOiJFZERTQSJ9.RXhhbXBsZSBvZiBFZDI1NTE5IHNpZ25pbmc')
  const jwk = { kty: 'OKP', crv: 'Ed25519', x }
  const key = createPrivateKey({ key: { ...jwk, d }, format: 'jwk' })
  expect(sign(null, input, key).toString('base64url')).toBe(signed)
  const open = createPublicKey({ key: jwk, format: 'jwk' })
  expect(verify(null, input, open, Buffer.from(signed, 'base64url'))).toBe(true)
  const source =
    '{"numbers":[333333333.33333329,1E30,4.50,2e-3,0.000000000000000000000000001],' +
    '"string":"\\u20ac$\\u000F\\u000aA\'\\u0042\\u0022\\u005c\\\\\\"\\/","literals":[null,true,false]}'
  expect(canonicalize(JSON.parse(source))).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],' +
      '"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  )
})

test('what can be taken is named, and only what is chosen is in the file', async () => {
  expect(await riderFileContents(db, scope, memberId, now)).toMatchObject({ sets: 1, hasBody: true, wish: 'upright' })
  expect(await riderFileContents(db, scope, id(), now)).toBeNull()
  const all = await make()
  expect(all).toMatchObject({ rider: { name: 'Tarrow Quill' }, wish: 'upright', limits: [{ kind: 'injury' }] })
  const less = await make({ body: false, wish: false, limits: [] })
  expect([less.body, less.wish, less.limits]).toEqual([undefined, undefined, undefined])
  // A limit of somebody else is none of theirs.
  expect((await make({ limits: [id()] })).limits).toBeUndefined()
})

test('the private key is nowhere in the database in the clear', async () => {
  await make()
  const [[row]] = (await connectionPool().query('SELECT * FROM studio_key')) as unknown as [
    { public_key: string; private_key: string }[],
  ]
  expect(row.private_key).toMatch(/^s1\./)
  expect(row.public_key).toBe(await publicKeyOf(db, scope, now))
  expect(printOf(row.public_key)).toMatch(/^([0-9A-F]{4} ){7}[0-9A-F]{4}$/)
})

test('one letter changed anywhere, and it is no longer as it was signed', async () => {
  const file = await make()
  expect(isIntact(JSON.parse(JSON.stringify(file)) as RiderFile)).toBe(true)
  // The order of its fields is no part of it.
  expect(isIntact(Object.fromEntries(Object.entries(file).reverse()) as RiderFile)).toBe(true)
  const other = (text: string) => (text.startsWith('A') ? 'B' : 'A') + text.slice(1)
  const changed: RiderFile[] = [
    { ...file, rider: { name: 'Tarrow Quil' } },
    { ...file, sets: file.sets.map((set) => ({ ...set, seat: { ...set.seat, yMm: set.seat.yMm + 0.1 } })) },
    { ...file, signature: other(file.signature) },
    { ...file, studio: { ...file.studio, key: other(file.studio.key) } },
    { ...file, wish: 'low' },
  ]
  expect(changed.map(isIntact)).toEqual(changed.map(() => false))
})

test('its worth is told: unknown until known, then measured; changed, old, ahead, of a later version', async () => {
  await forgetStudio(far.db, far.scope, await publicKeyOf(db, scope, now))
  const file = await make()
  expect((await read(file)).standing).toEqual({ standing: 'told', why: 'unknownStudio' })
  await know()
  await know()
  expect(await listKnownStudios(far.db, far.scope)).toHaveLength(1)
  const found = await read(file)
  expect(found).toMatchObject({ standing: { standing: 'measured' }, hasBody: true, wish: 'upright' })
  expect(found.limits).toHaveLength(1)
  const told = async (other: object, at?: Date) => {
    const { standing, hasBody, wish, limits } = await read(other, null, at)
    expect([hasBody, wish, limits]).toEqual([false, null, []])
    return standing.standing === 'told' && standing.why
  }
  expect(await told({ ...file, rider: { name: 'Somebody Else' } })).toBe('changed')
  expect(await told(file, later(800))).toBe('old')
  expect(await told(file, later(-1))).toBe('future')
  expect(await told({ ...file, formatVersion: 2, sets: [{ ...file.sets[0], more: 1 }], new: {} })).toBe('newer')
})

test('what cannot be read is told in words: too large, of something else, cut, out of bounds, a bomb', async () => {
  const file = await make()
  const outcome = (text: string) => parseRiderFile(text).outcome
  expect(outcome('x'.repeat(MAX_RIDER_FILE_LENGTH + 1))).toBe('tooLarge')
  expect(outcome('{"format":"other"}')).toBe('otherFormat')
  expect(outcome(JSON.stringify(file).slice(0, -9))).toBe('refused')
  expect(parseRiderFile(JSON.stringify({ ...file, sets: [{ ...file.sets[0], crankMm: 9000 }] }))).toMatchObject({
    outcome: 'refused',
    issues: [{ pointer: '/sets/0/crankMm' }],
  })
  expect(outcome('null')).toBe('otherFormat')
  const code = codeTextOf(await make({ body: false }))
  expect(outcome(code)).toBe('read')
  expect(outcome(code.slice(0, -20))).toBe('refused')
  const bomb = codeTextOf({ ...file, rider: { name: 'x'.repeat(5_000_000) } })
  expect(bomb.length).toBeLessThan(20_000)
  expect(outcome(bomb)).toBe('refused')
})

test('its code is read back by another implementation; one too dense to be read is refused', async () => {
  const made = await make()
  const text = codeTextOf(made)
  expect(text.length).toBeLessThanOrEqual(MAX_CODE_LENGTH)
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'L' })
  const [scale, margin] = [4, 4]
  const size = scale * (modules.size + 2 * margin)
  const pixels = new Uint8ClampedArray(4 * size * size).fill(255)
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const [row, column] = [y, x].map((px) => Math.floor(px / scale) - margin)
      const isInside = Math.min(row, column) >= 0 && Math.max(row, column) < modules.size
      if (isInside && modules.get(row, column)) pixels.fill(0, 4 * (y * size + x), 4 * (y * size + x) + 3)
    }
  const read = jsQR(pixels, size, size)!.data
  expect(parseRiderFile(read)).toEqual({ outcome: 'read', file: made })
  const owner = { studioId: scope.studioId, memberId }
  const answer = async (file: string, query: string) =>
    (await riderFileResponse(db, owner, { file, asked: new URLSearchParams(query) }, now)).status
  expect(await answer('set-up.svg', 'body=1')).toBe(200)
  expect(await answer('set-up.json', `limits=${limitId},${id()}`)).toBe(200)
  expect(await answer('other.json', '')).toBe(404)
})

test('into an empty studio: numbers by translation, body, wish, limits; twice changes nothing', async () => {
  await know()
  const file = await make()
  const { proposals } = await read(file)
  expect(proposals).toHaveLength(1)
  const [set] = proposals
  expect(set).toMatchObject({ certainty: 'translated', current: null, isHere: false, purpose: 'usual' })
  const own = id()
  const choice = {
    memberId: own,
    newName: 'Tarrow Quill',
    sets: [{ id: id(), setId: set.setId, lineId: set.lineId }],
    body: true,
    wish: true,
    limits: [{ id: id(), index: 0 }],
  }
  expect(await bring(file, choice)).toEqual({ outcome: 'kept', recorded: 1 })
  const entries = await currentEntries(far.db, far.scope, [own])
  expect(entries).toMatchObject([{ source: 'carried', certainty: 'translated', marks: set.marks }])
  expect(await consentOf(far.db, far.scope, own)).not.toBeNull()
  expect(await listLimits(far.db, far.scope, [own])).toHaveLength(1)

  // The next set-up begins with the body, the wish and the limit.
  const [machine] = await listBikes(far.db, far.scope)
  const setupId = id()
  await startSetup(far.db, far.scope, { id: setupId, memberId: own, bikeId: machine.id }, later(2))
  expect((await listEvidence(far.db, far.scope, setupId)).map(({ row }) => row)).toContainEqual({
    kind: 'wish',
    posture: 'upright',
  })
  const page = (await setupPage(far.db, far.scope, setupId, later(3)))!
  expect(page.body).toMatchObject({ belief: file.body, agoDays: 3 })

  const again = await read(file, own)
  expect(again.proposals.map(({ isHere }) => isHere)).toEqual([true])
  expect(again.members.map((one) => one.id)).toEqual([own])
  const anew = { sets: [{ ...choice.sets[0], id: id() }], limits: [{ id: id(), index: 0 }], newName: null }
  expect(await bring(file, { ...choice, ...anew })).toEqual({ outcome: 'kept', recorded: 0 })
  expect(await listLimits(far.db, far.scope, [own])).toHaveLength(1)
  expect(await currentEntries(far.db, far.scope, [own])).toEqual(entries)
})

test('there and home: what was not touched comes back as it went, and is known to be here', async () => {
  await know()
  const file = await make()
  const [set] = (await read(file)).proposals
  const own = id()
  const sets = [{ id: id(), setId: set.setId, lineId: set.lineId }]
  await bring(file, { memberId: own, newName: 'Tarrow Home', sets, body: true })
  const home = (await makeRiderFile(far.db, far.scope, own, { ...ALL, limits: [] }, later(9))) as RiderFile
  expect(home.sets).toEqual(file.sets)
  await knowStudio(db, scope, { key: home.studio.key, name: 'Far' }, later(9))
  const back = await readRiderFile(db, scope, { text: JSON.stringify(home), memberId }, later(10))
  if (back.outcome !== 'read') throw new Error(back.outcome)
  expect(back.standing).toEqual({ standing: 'measured' })
  const [entry] = await currentEntries(db, scope, [memberId])
  const here = back.proposals.find(({ lineId }) => lineId === entry.lineId)!
  expect([here.isHere, here.current]).toEqual([true, entry.marks])
})

test('of a told file numbers alone are taken, as told; asked for more, nothing is', async () => {
  await know()
  const file = await make()
  const forged = { ...file, rider: { name: 'Forged Quill' } }
  const [set] = (await read(forged)).proposals
  expect(set.certainty).toBe('told')
  const own = id()
  const sets = [{ id: id(), setId: set.setId, lineId: set.lineId }]
  expect(await bring(forged, { memberId: own, newName: 'Forged Quill', sets, body: true })).toEqual({ outcome: 'told' })
  expect(await currentEntries(far.db, far.scope, [own])).toEqual([])
  expect(await bring(forged, { memberId: own, newName: 'Forged Quill', sets })).toEqual({
    outcome: 'kept',
    recorded: 1,
  })
  expect(await currentEntries(far.db, far.scope, [own])).toMatchObject([{ certainty: 'told' }])
  expect(await carriedBodyOf(far.db, far.scope, own, later(2))).toBeUndefined()
  // A second studio's signature makes told numbers no surer.
  const onward = (await makeRiderFile(far.db, far.scope, own, { ...ALL, limits: [] }, later(2))) as RiderFile
  expect(onward.sets.map(({ certainty }) => certainty)).toEqual(['told'])
})

test('two take the same file at once: it is taken once', async () => {
  await know()
  const file = await make()
  const [set] = (await read(file)).proposals
  const own = id()
  await addMember(far.db, far.scope, { id: own, name: 'Tarrow Twice' }, later(1))
  const once = () =>
    bring(file, { memberId: own, sets: [{ id: id(), setId: set.setId, lineId: set.lineId }], body: true })
  const both = await Promise.all([once(), once()])
  expect(both.map((one) => one.outcome === 'kept' && one.recorded).sort()).toEqual([0, 1])
  expect(await listRiderFiles(far.db, far.scope, own, later(2))).toHaveLength(1)
})

test('half of it fails, and none of it is there', async () => {
  await know()
  const file = await make()
  const [set] = (await read(file)).proposals
  const taken = (await currentEntries(far.db, far.scope, [])).length
  const own = id()
  const sets = [
    { id: id(), setId: set.setId, lineId: set.lineId },
    { id: id(), setId: 'no-such-set', lineId: set.lineId },
  ]
  expect(await bring(file, { memberId: own, newName: 'Half Quill', sets })).toEqual({ outcome: 'gone' })
  expect(await bring(file, { memberId: own, sets: sets.slice(0, 1) })).toEqual({ outcome: 'gone' })
  expect((await read(file)).members.some(({ name }) => name === 'Half Quill')).toBe(false)
  expect((await currentEntries(far.db, far.scope, [own])).length).toBe(taken)
})
