/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { GET, POST } from '@/app/api/auth/[...all]/route'
import { hashPassword } from '@/server/platform/accounts/hashing'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { account, user } from '@/server/platform/accounts/tables'
import { listAccess } from '@/server/privacy/accessLog/list'

jest.mock('better-auth/next-js', () => ({ nextCookies: () => ({ id: 'no-pages-here' }) }))

const BASE = process.env.BETTER_AUTH_URL!
const PASSWORD = 'only-for-this-test'
let people = 0

/** An account of its own for each test: what is counted for one must not be counted for another. */
async function newAccount(): Promise<string> {
  const name = `limit_${process.pid}_${(people += 1)}`
  await database()
    .insert(user)
    .values({ id: name, name, email: `${name}@netloft-hall.example`, username: name, displayUsername: name })
  await database()
    .insert(account)
    .values({
      id: `${name}-password`,
      accountId: name,
      providerId: 'credential',
      userId: name,
      password: await hashPassword(PASSWORD),
    })
  return name
}
let peers = 0
const newPeer = () => `192.0.2.${(peers += 1)}`

async function tryOnce(username: unknown, password: unknown, peer: string, cookie?: string): Promise<Response> {
  const sent = { 'content-type': 'application/json', origin: BASE, 'x-forwarded-for': peer }
  const headers = { ...sent, ...(cookie && { cookie }) }
  return POST(
    new Request(`${BASE}/api/auth/sign-in/username`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ username, password }),
    }),
  )
}

afterAll(closeDatabase)

test('the session’s cookie is for the server alone and no other site; passwords are hashed with Argon2id', async () => {
  const name = await newAccount()
  const cookies = (await tryOnce(name, PASSWORD, newPeer())).headers.getSetCookie()
  expect(cookies.map((one) => one.split('=')[0]).sort()).toEqual(['better-auth.session_token', 'known_device'])
  for (const cookie of cookies) {
    expect(cookie).toMatch(/; HttpOnly/i)
    expect(cookie).toMatch(/; SameSite=Lax/i)
  }
  expect(await hashPassword(PASSWORD)).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
})

test('guesses of others behind the same address keep out no owner on a device known to the account', async () => {
  const [owner, other, peer] = [await newAccount(), await newAccount(), newPeer()]
  const first = await tryOnce(owner, PASSWORD, peer)
  const device = first.headers
    .getSetCookie()
    .find((one) => one.startsWith('known_device='))!
    .split(';')[0]
  const guess = async (name: string, cookie?: string, from = peer) =>
    (await tryOnce(name, 'wrong', from, cookie)).status
  // One account from many peers, and many accounts from this one, until both are shut.
  for (let i = 0; i < 31; i++) await guess(owner, undefined, newPeer())
  for (let i = 0; i < 61; i++) await guess(`nobody_${i % 20}`)
  expect([await guess(owner), await guess(other)]).toEqual([429, 429])
  expect((await tryOnce(owner, PASSWORD, peer)).status).toBe(429)
  expect((await tryOnce(owner, PASSWORD, peer, device)).status).toBe(200)
  // The device is known for that account alone, guesses there are counted as well, and a made-up one is none.
  expect((await tryOnce(other, PASSWORD, peer, device)).status).toBe(429)
  const made = device.replace(/=(.)/, (_, letter: string) => `=${letter === 'A' ? 'B' : 'A'}`)
  expect((await tryOnce(owner, PASSWORD, peer, made)).status).toBe(429)
  const statuses: number[] = []
  for (let i = 0; i < 6; i++) statuses.push(await guess(owner, device))
  expect(statuses).toEqual([401, 401, 401, 401, 401, 429])
})

test(
  'the sixth wrong try of one peer at one account waits; the right password waits too; ' +
    'another peer may still sign in',
  async () => {
    const [name, peer] = [await newAccount(), newPeer()]
    const statuses: number[] = []
    for (let i = 0; i < 6; i++) statuses.push((await tryOnce(name, 'wrong', peer)).status)
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429])
    const right = await tryOnce(name, PASSWORD, peer)
    expect(right.status).toBe(429)
    expect(Number(right.headers.get('retry-after'))).toBeGreaterThan(200)
    expect((await tryOnce(name, PASSWORD, newPeer())).status).toBe(200)
  },
)

test('guesses refused are in the studio’s log, once, about the account and by nobody known', async () => {
  const [name, peer] = [await newAccount(), newPeer()]
  const studioId = 'netloft-hall'
  await database().update(user).set({ studioId }).where(eq(user.id, name))
  for (let i = 0; i < 5; i++) await tryOnce(name, 'wrong', peer)
  const entries = async () => (await listAccess(database(), { studioId }, { subject: name })).entries
  expect(await entries()).toEqual([])
  for (let i = 0; i < 3; i++) await tryOnce(` ${name.toUpperCase()}`, 'wrong', peer)
  for (let i = 0; i < 7; i++) await tryOnce('nobody at all', 'wrong', newPeer())
  expect(await entries()).toMatchObject([
    { kind: 'rights', what: 'signIn.guesses', actor: null, isStranger: true, isOwnPage: false },
  ])
})

test('capitals and spaces make no other account', async () => {
  const [name, peer] = [await newAccount(), newPeer()]
  for (let i = 0; i < 5; i++) await tryOnce(i % 2 ? name.toUpperCase() : ` ${name} `, 'wrong', peer)
  expect((await tryOnce(name, 'wrong', peer)).status).toBe(429)
})

test('signing in forgets the tries before it', async () => {
  const [name, peer] = [await newAccount(), newPeer()]
  for (let round = 0; round < 3; round++) {
    for (let i = 0; i < 4; i++) expect((await tryOnce(name, 'wrong', peer)).status).toBe(401)
    expect((await tryOnce(name, PASSWORD, peer)).status).toBe(200)
  }
})

test('one account tried from many peers is counted as one account', async () => {
  const name = await newAccount()
  const statuses: number[] = []
  for (let i = 0; i < 32; i++) statuses.push((await tryOnce(name, 'wrong', newPeer())).status)
  expect(statuses.slice(0, 30)).toEqual(Array(30).fill(401))
  expect(statuses.slice(30)).toEqual([429, 429])
})

test.each([
  [null, 'x'],
  [{ $ne: 1 }, 'x'],
  ['ines', ['x']],
  ['x'.repeat(5000), 'x'],
  ['ines', 'x'.repeat(100_000)],
])('%p is no name and password', async (name, password) => {
  const { status } = await tryOnce(name, password, newPeer())
  expect([400, 401]).toContain(status)
})

test('every address of the sign-in library that is not used does not exist', async () => {
  const closed = [
    'is-username-available',
    'update-user',
    'change-password',
    'sign-up/email',
    'sign-in/email',
    'list-sessions',
    'reset-password',
    'delete-user',
    'change-email',
    'ok',
    'error',
    'x'.repeat(400),
    'constructor',
    '../outbox',
  ]
  for (const path of closed) {
    for (const method of ['GET', 'POST']) {
      const handle = method === 'GET' ? GET : POST
      const { status } = await handle(new Request(`${BASE}/api/auth/${path}`, { method, headers: { origin: BASE } }))
      expect([path, status]).toEqual([path, 404])
    }
  }
  expect((await GET(new Request(`${BASE}/api/auth/sign-out`))).status).toBe(405)
})
