/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { GET, POST } from '@/app/api/auth/[...all]/route'
import { POST as postSecondFactor } from '@/app/api/accounts/second-factor/route'
import { POST as postTablet } from '@/app/api/accounts/tablet/route'
import { POST as postTouched } from '@/app/api/accounts/touched/route'
import { GET as getDeviceKey } from '@/app/api/accounts/device-key/route'
import { hashPassword } from '@/server/platform/accounts/hashing'
import { fitsPin, hasPin, peopleOfTablet, pinIssue, setPin, tabletOf } from '@/server/platform/accounts/pin'
import { listPasskeys } from '@/server/platform/accounts/passkeys'
import { currentUser } from '@/server/platform/accounts/session'
import { account, passkey, session, studio, tablet, user, userSecret } from '@/server/platform/accounts/tables'
import type { Role } from '@/server/platform/db/roles'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { acceptInvitation, invite, listInvitations } from '@/server/studio/invitations'
import { endAccess } from '@/server/studio/people'
import { deleteRoom } from '@/server/classes/rooms/rooms'
import { room } from '@/server/classes/rooms/tables'
import { endTablet, listTablets, pairTablet } from '@/server/classes/rooms/tablets'
import { createHash, randomBytes } from 'node:crypto'

jest.mock('better-auth/next-js', () => ({ nextCookies: () => ({ id: 'no-pages-here' }) }))
jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }))
/** What the request in hand carries, and the cookies set by its answer. */
let cookie = ''
const setCookies = new Map<string, string>()
jest.mock('next/headers', () => ({
  headers: async () => new Headers({ cookie }),
  cookies: async () => ({ set: (name: string, value: string) => setCookies.set(name, value) }),
}))

const db = database()
const BASE = process.env.BETTER_AUTH_URL!
const PASSWORD = 'stilts-over-the-long-pond'
const PIN = '275031'
const now = new Date()
const id = () => crypto.randomUUID()

async function newStudio() {
  const studioId = id()
  await db.insert(studio).values({ id: studioId, name: 'Eelgrass Loft', place: '', timeZone: 'UTC', school: {} })
  return studioId
}
async function newPerson(studioId: string, role: Role) {
  const userId = id()
  const person = { id: userId, name: `${role} of the loft`, email: `${userId}@loft.example`, studioId, role }
  await db.insert(user).values({ ...person, username: userId.slice(0, 20).replaceAll('-', '_') })
  const password = await hashPassword(PASSWORD)
  await db.insert(account).values({ id: id(), accountId: userId, providerId: 'credential', userId, password })
  return { studioId, userId, role }
}
const fingerprint = (token: string) => createHash('sha256').update(token).digest('hex')

async function pairedHall(role: Role = 'instructor') {
  const studioId = await newStudio()
  const [manager, person] = [await newPerson(studioId, 'manager'), await newPerson(studioId, role)]
  const token = randomBytes(32).toString('base64url')
  const tabletId = id()
  const facts = { id: tabletId, name: 'By the stage', roomId: null, idleMinutes: 5, tokenHash: fingerprint(token) }
  expect(await pairTablet(db, manager, facts, now)).toBe('kept')
  expect(await setPin(db, person, { password: PASSWORD, pin: PIN })).toBe('kept')
  return { manager, person, token, tabletId, facts }
}

/** Signs in by PIN; the session cookie where it worked. */
async function byPin(token: string | null, userId: string, pin: string) {
  const headers = {
    'content-type': 'application/json',
    origin: BASE,
    'x-forwarded-for': '192.0.2.200',
    ...(token && { cookie: `shared_tablet=${token}` }),
  }
  const response = await POST(
    new Request(`${BASE}/api/auth/sign-in/pin`, { method: 'POST', headers, body: JSON.stringify({ userId, pin }) }),
  )
  const cookies = response.headers.getSetCookie().map((one) => one.split(';')[0])
  return { status: response.status, response, cookie: cookies.join('; ') }
}

/** Signs in by password; the session cookie. */
async function byPassword(userId: string): Promise<string> {
  const response = await POST(
    new Request(`${BASE}/api/auth/sign-in/username`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: BASE, 'x-forwarded-for': '192.0.2.201' },
      body: JSON.stringify({ username: userId.slice(0, 20).replaceAll('-', '_'), password: PASSWORD }),
    }),
  )
  return response.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ')
}

beforeEach(() => {
  cookie = ''
  setCookies.clear()
})
afterAll(closeDatabase)

test('a person signs in on a paired tablet by PIN, under their own name and role', async () => {
  const { person, token, tabletId } = await pairedHall()
  const signedIn = await byPin(token, person.userId, PIN)
  expect(signedIn.status).toBe(200)
  expect(signedIn.response.headers.getSetCookie().every((one) => /; HttpOnly/i.test(one))).toBe(true)
  cookie = signedIn.cookie
  expect(await currentUser()).toEqual({ ...person, name: 'instructor of the loft', idleMinutes: 5 })
  expect((await listTablets(db, person)).find((one) => one.id === tabletId)?.usedAt).not.toBeNull()
})

test('on a tablet a manager does what an instructor does', async () => {
  const { manager, token } = await pairedHall()
  await setPin(db, manager, { password: PASSWORD, pin: '904417' })
  cookie = (await byPin(token, manager.userId, '904417')).cookie
  expect(await currentUser()).toMatchObject({ userId: manager.userId, role: 'instructor' })
})

test('a device that is not paired, a tablet of another studio and a person without access are refused', async () => {
  const { manager, person, token } = await pairedHall()
  const other = await pairedHall()
  expect((await byPin(null, person.userId, PIN)).status).toBe(403)
  expect((await byPin('A'.repeat(43), person.userId, PIN)).status).toBe(403)
  expect((await byPin(other.token, person.userId, PIN)).status).toBe(401)
  await endAccess(db, manager, person.userId, now)
  expect((await byPin(token, person.userId, PIN)).status).toBe(401)
  expect(await peopleOfTablet(db, manager)).toEqual([])
})

test('five PINs that do not fit shut the person out on this tablet for minutes, and nobody else', async () => {
  const { manager, person, token } = await pairedHall()
  await setPin(db, manager, { password: PASSWORD, pin: '904417' })
  for (let i = 0; i < 5; i++) expect((await byPin(token, person.userId, '111222')).status).toBe(401)
  const shut = await byPin(token, person.userId, PIN)
  expect(shut.status).toBe(429)
  expect(Number(shut.response.headers.get('retry-after'))).toBeGreaterThan(60)
  expect((await byPin(token, manager.userId, '904417')).status).toBe(200)
})

test.each([undefined, null, 275031, '', '27503', '2750311', '27503a', ['275031']])(
  'PIN %p is refused and not counted',
  async (pin) => {
    const { person, token } = await pairedHall()
    for (let i = 0; i < 6; i++) expect((await byPin(token, person.userId, pin as string)).status).toBe(401)
    expect((await byPin(token, person.userId, PIN)).status).toBe(200)
  },
)

test('a session on a tablet ends after minutes without a touch; a touch extends it', async () => {
  const { person, token } = await pairedHall()
  cookie = (await byPin(token, person.userId, PIN)).cookie
  const touchedBefore = (minutes: number) =>
    db
      .update(session)
      .set({ touchedAt: new Date(Date.now() - minutes * 60_000) })
      .where(eq(session.userId, person.userId))
  await touchedBefore(4)
  expect((await postTouched()).status).toBe(200)
  const [{ touchedAt }] = await db.select().from(session).where(eq(session.userId, person.userId))
  expect(Date.now() - touchedAt!.getTime()).toBeLessThan(60_000)
  await touchedBefore(7)
  expect(await currentUser()).toBeNull()
  expect((await postTouched()).status).toBe(401)
  expect((await getDeviceKey()).status).toBe(401)
})

test('a session by PIN makes no passkey, and none of an ended person stays', async () => {
  const { manager, person, token } = await pairedHall()
  const { cookie: pinned } = await byPin(token, person.userId, PIN)
  const options = (sent: string) =>
    GET(new Request(`${BASE}/api/auth/passkey/generate-register-options`, { headers: { cookie: sent, origin: BASE } }))
  expect((await options(pinned)).status).toBe(403)
  expect((await options('')).status).toBe(401)
  const byWord = await byPassword(manager.userId)
  expect((await options(byWord)).status).toBe(200)
  // Whoever finds an open page later adds none either.
  await db
    .update(session)
    .set({ createdAt: new Date(Date.now() - 11 * 60_000) })
    .where(eq(session.userId, manager.userId))
  expect((await options(byWord)).status).toBe(403)
  const key = { id: id(), publicKey: 'x', userId: person.userId, credentialID: id(), counter: 0 }
  await db.insert(passkey).values({ ...key, deviceType: 'singleDevice', backedUp: false })
  expect(await listPasskeys(db, person)).toHaveLength(1)
  await endAccess(db, manager, person.userId, now)
  expect(await listPasskeys(db, person)).toEqual([])
})

test('where a passkey is the factor that a role must have, a password alone changes no factor', async () => {
  const { person } = await pairedHall()
  await db.update(user).set({ secondFactorDue: true }).where(eq(user.id, person.userId))
  cookie = await byPassword(person.userId)
  const sent = { 'content-type': 'application/json', 'x-forwarded-for': '192.0.2.202', origin: BASE }
  const headers = { ...sent, host: new URL(BASE).host, cookie }
  const options = async () =>
    (await GET(new Request(`${BASE}/api/auth/passkey/generate-register-options`, { headers }))).status
  const remove = async (passkeyId: string) => {
    const body = JSON.stringify({ id: passkeyId })
    return (await POST(new Request(`${BASE}/api/auth/passkey/delete-passkey`, { method: 'POST', headers, body })))
      .status
  }
  const begin = async () => {
    const body = JSON.stringify({ step: 'begin', secret: PASSWORD })
    const url = `${BASE}/api/accounts/second-factor`
    return (await (await postSecondFactor(new Request(url, { method: 'POST', headers, body }))).json()) as object
  }
  // The first one is trusted, as the first authenticator is.
  expect(await options()).toBe(200)
  const key = { id: id(), publicKey: 'x', userId: person.userId, credentialID: id(), counter: 0 }
  await db.insert(passkey).values({ ...key, deviceType: 'singleDevice', backedUp: false })
  expect([await options(), await remove(key.id), await begin()]).toEqual([403, 403, { code: 'passkeyFirst' }])
  expect(await currentUser()).toBeNull()
  expect(await listPasskeys(db, person)).toHaveLength(1)
  await db.update(session).set({ byPasskey: true }).where(eq(session.userId, person.userId))
  expect(await currentUser()).not.toBeNull()
  expect([await options(), await remove(key.id)]).toEqual([200, 200])
  // Without any passkey left no session is proven by one.
  expect(await currentUser()).toBeNull()
})

test('unpairing a tablet signs everybody out on it; another studio’s manager unpairs nothing', async () => {
  const { manager, person, token, tabletId } = await pairedHall()
  const other = await pairedHall()
  cookie = (await byPin(token, person.userId, PIN)).cookie
  await endTablet(db, other.manager, tabletId, now)
  expect(await currentUser()).not.toBeNull()
  await endTablet(db, manager, tabletId, now)
  expect(await currentUser()).toBeNull()
  expect(await tabletOf(db, token)).toBeNull()
  expect((await byPin(token, person.userId, PIN)).status).toBe(403)
})

test('pairing twice changes nothing; a token of another tablet and a room of another studio are refused', async () => {
  const { manager, facts } = await pairedHall()
  const other = await pairedHall()
  expect(await pairTablet(db, manager, facts, now)).toBe('kept')
  expect(await pairTablet(db, manager, { ...facts, id: id() }, now)).toBe('idTaken')
  expect(await pairTablet(db, other.manager, facts, now)).toBe('idTaken')
  expect(await pairTablet(db, manager, { ...facts, id: id(), roomId: id() }, now)).toBe('noSuchRoom')
  expect(await listTablets(db, manager)).toHaveLength(1)
})

test('a tablet whose room is deleted hangs in none', async () => {
  const { manager, facts } = await pairedHall()
  const roomId = id()
  const plan = { widthM: 6, depthM: 6, instructor: { xM: 3, yM: 1 }, screens: [], doors: [], fans: [] }
  await db.insert(room).values({ id: roomId, studioId: manager.studioId, name: 'Loft', plan, createdAt: now })
  const tabletId = id()
  const token = randomBytes(32).toString('base64url')
  const hung = { ...facts, id: tabletId, roomId, tokenHash: fingerprint(token) }
  expect(await pairTablet(db, manager, hung, now)).toBe('kept')
  expect(await deleteRoom(db, manager, roomId)).toEqual({ outcome: 'kept' })
  const [stored] = await db.select({ roomId: tablet.roomId }).from(tablet).where(eq(tablet.id, tabletId))
  expect(stored).toEqual({ roomId: null })
})

test('only a manager of its studio makes a device the tablet of a token', async () => {
  const { manager, person, token } = await pairedHall()
  await setPin(db, manager, { password: PASSWORD, pin: '904417' })
  const pair = (sent: unknown) =>
    postTablet(
      new Request(`${BASE}/api/accounts/tablet`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: BASE, host: new URL(BASE).host },
        body: JSON.stringify({ token: sent }),
      }),
    )
  expect((await pair(token)).status).toBe(403)
  cookie = (await byPin(token, person.userId, PIN)).cookie
  expect((await pair(token)).status).toBe(403)
  cookie = await byPassword(manager.userId)
  expect((await pair('B'.repeat(43))).status).toBe(422)
  expect((await pair((await pairedHall()).token)).status).toBe(422)
  expect(setCookies.size).toBe(0)
  expect((await pair(token)).status).toBe(200)
  expect(setCookies.get('shared_tablet')).toBe(token)
})

test.each(['111111', '123456', '987654', '454545', '123123'])('PIN %s is easy to guess', (pin) => {
  expect(pinIssue(pin)).toBe('easyPin')
})

test('a PIN is set by password and removed by its owner or a manager’s link; the database has no secret', async () => {
  const { manager, person, token } = await pairedHall()
  expect(await setPin(db, person, { password: 'not this', pin: '482216' })).toBe('wrong')
  expect(await setPin(db, person, { password: PASSWORD, pin: '48221' })).toBe('badPin')
  expect(await fitsPin(db, person, person.userId, PIN)).toBe(true)
  const rows = JSON.stringify([await db.select().from(tablet), await db.select().from(userSecret)])
  expect(rows).not.toContain(PIN)
  expect(rows).not.toContain(token)
  expect(await setPin(db, person, { password: PASSWORD, pin: '' })).toBe('kept')
  expect(await hasPin(db, person)).toBe(false)
  await setPin(db, person, { password: PASSWORD, pin: PIN })
  await invite(db, manager, { id: id(), role: 'instructor', userId: person.userId }, now)
  const [link] = await listInvitations(db, manager, now)
  const typed = { name: '', username: '', password: 'another-word-for-fog' }
  expect(await acceptInvitation(db, link.token, typed, now)).toBe('kept')
  expect(await hasPin(db, person)).toBe(false)
})

test('the key of a person’s devices is made once and goes to their session alone', async () => {
  const { person, token } = await pairedHall()
  expect((await getDeviceKey()).status).toBe(401)
  cookie = (await byPin(token, person.userId, PIN)).cookie
  const answers = await Promise.all([1, 2, 3].map(async () => (await getDeviceKey()).json()))
  expect(new Set(answers.map(({ key }) => key)).size).toBe(1)
  expect(answers[0].userId).toBe(person.userId)
  expect(Buffer.from(answers[0].key, 'base64')).toHaveLength(32)
})
