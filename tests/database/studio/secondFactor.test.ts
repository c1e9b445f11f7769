/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { auth } from '@/server/platform/accounts/auth'
import {
  beginSecondFactor,
  confirmSecondFactor,
  endSecondFactor,
  newRecoveryCodes,
  secondFactorOf,
} from '@/server/platform/accounts/secondFactor'
import type { Scope } from '@/server/platform/accounts/scope'
import { twoFactor, user } from '@/server/platform/accounts/tables'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { runCommand } from '@/server/commands/runCommand'
import { acceptInvitation, listInvitations } from '@/server/studio/invitations'
import { totp } from '../../support/totp'

jest.mock('better-auth/next-js', () => ({ nextCookies: () => ({ id: 'no-pages-here' }) }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const PASSWORD = 'harbour-violin-moss-4'
const id = () => crypto.randomUUID()
const send = (name: string, input: object, commandId = id()) =>
  runCommand(db, scope, { name, id: commandId, input }, new Date())
afterAll(closeDatabase)

type Person = Readonly<{ id: string; username: string }>
let people = 0

async function link(role: string, userId: string | null): Promise<string> {
  const commandId = id()
  await send('people.invite', { role, userId }, commandId)
  return (await listInvitations(db, scope, new Date())).find((one) => one.id === commandId)!.token
}
/** Somebody who joined by a link. */
async function joined(role = 'instructor'): Promise<Person> {
  const username = `second.${process.pid}.${(people += 1)}`
  const typed = { name: 'Second Factor', username, password: PASSWORD }
  expect(await acceptInvitation(db, await link(role, null), typed, new Date())).toBe('kept')
  const [found] = await db.select({ id: user.id }).from(user).where(eq(user.username, username))
  return { id: found.id, username }
}

/** Sends to the sign-in library as a browser does; resolves with its answer and the cookies it set. */
async function post(path: string, body: object, cookie = '') {
  const response = await auth().handler(
    new Request(`${process.env.BETTER_AUTH_URL ?? 'http://127.0.0.1'}/api/auth${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-forwarded-for': `10.9.8.${people}`, cookie },
      body: JSON.stringify(body),
    }),
  )
  const cookies = response.headers.getSetCookie().map((one) => one.split(';')[0])
  return {
    status: response.status,
    body: (await response.json()) as Record<string, unknown>,
    cookie: cookies.join('; '),
  }
}
const signIn = ({ username }: Person) => post('/sign-in/username', { username, password: PASSWORD })
const isSignedIn = async (cookie: string) =>
  (await auth().api.getSession({ headers: new Headers({ cookie }) })) !== null

/** Turns it on; resolves with the secret, the recovery codes, and the code that turned it on. */
async function turnOn(person: Person): Promise<{ secret: string; codes: readonly string[]; used: string }> {
  const headers = new Headers({ cookie: (await signIn(person)).cookie })
  const label = { studio: 'Netloft Hall', username: person.username }
  expect(await beginSecondFactor(headers, 'not the password', label)).toBeNull()
  const made = (await beginSecondFactor(headers, PASSWORD, label))!
  expect(made.uri).toMatch(/^otpauth:\/\/totp\/Netloft%20Hall%3Asecond\..*&issuer=Netloft\+Hall/)
  expect(await confirmSecondFactor(headers, '000000')).toBe('wrongTotp')
  expect((await secondFactorOf(db, { userId: person.id })).isOn).toBe(false)
  const used = totp(made.secret, Date.now())
  expect(await confirmSecondFactor(headers, used)).toBe('kept')
  return { ...made, used }
}

test('the codes of the test are those of RFC 6238, appendix B (SHA-1, key "12345678901234567890")', () => {
  const key = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ'
  const vectors = [59, 1_111_111_109, 1_234_567_890, 2_000_000_000].map((s) => totp(key, 1000 * s, 8))
  expect(vectors).toEqual(['94287082', '07081804', '89005924', '69279037'])
})

test('with a second factor the password alone signs nobody in; a code does, within its time', async () => {
  const person = await joined()
  const { secret, codes, used } = await turnOn(person)
  const first = await signIn(person)
  expect(first.body).toMatchObject({ twoFactorRedirect: true })
  expect(await isSignedIn(first.cookie)).toBe(false)
  const late = totp(secret, Date.now() - 300_000)
  expect((await post('/two-factor/verify-totp', { code: late }, first.cookie)).status).toBe(401)
  // The code that turned it on was used; so is that of this sign-in, for somebody who looked over a shoulder.
  const seen = await post('/two-factor/verify-totp', { code: used }, first.cookie)
  expect([seen.status, await isSignedIn(seen.cookie)]).toEqual([401, false])
  const code = totp(secret, Date.now() + 30_000)
  const good = await post('/two-factor/verify-totp', { code }, (await signIn(person)).cookie)
  expect([good.status, await isSignedIn(good.cookie)]).toEqual([200, true])
  const again = await post('/two-factor/verify-totp', { code }, (await signIn(person)).cookie)
  expect([again.status, await isSignedIn(again.cookie), await isSignedIn(good.cookie)]).toEqual([401, false, true])
  // Nothing readable lies in the database.
  const [stored] = await db.select().from(twoFactor).where(eq(twoFactor.userId, person.id))
  expect(JSON.stringify(stored)).not.toContain(secret)
  for (const code of codes) expect(stored.backupCodes).not.toContain(code)
})

test('a recovery code opens once; guesses are stopped, also with the right password each time', async () => {
  const person = await joined()
  const { codes, secret } = await turnOn(person)
  const by = async (code: string) => {
    const { cookie } = await signIn(person)
    return (await post('/two-factor/verify-backup-code', { code }, cookie)).status
  }
  expect([await by(codes[0]), await by(codes[0])]).toEqual([200, 401])
  let refused = 0
  for (let i = 0; i < 12; i++) {
    const { cookie } = await signIn(person)
    const { status } = await post('/two-factor/verify-totp', { code: '000001' }, cookie)
    refused += status === 401 ? 1 : 0
  }
  // After so many nobody tries on, not even with the right code.
  const { cookie } = await signIn(person)
  const last = await post('/two-factor/verify-totp', { code: totp(secret, Date.now()) }, cookie)
  expect(refused).toBeLessThan(12)
  expect(last.status).not.toBe(200)
})

test('new recovery codes replace the old ones; turned off, the password is enough again', async () => {
  const person = await joined()
  const { secret, codes } = await turnOn(person)
  const { cookie } = await signIn(person)
  const proven = await post('/two-factor/verify-totp', { code: totp(secret, Date.now() + 30_000) }, cookie)
  const headers = new Headers({ cookie: proven.cookie })
  expect(await newRecoveryCodes(headers, 'not the password')).toBeNull()
  const fresh = (await newRecoveryCodes(headers, PASSWORD))!
  expect(fresh.filter((one) => codes.includes(one))).toEqual([])
  expect(await endSecondFactor(headers, 'not the password')).toBe('wrong')
  expect(await endSecondFactor(headers, PASSWORD)).toBe('kept')
  expect((await signIn(person)).body).not.toHaveProperty('twoFactorRedirect')
})

test('a manager requires it by role; a link to a new password takes a lost one away', async () => {
  const [manager, desk] = [await joined('manager'), await joined('desk')]
  const dueOf = async ({ id: userId }: Person) => (await secondFactorOf(db, { userId })).isRequired
  await send('people.requireSecondFactor', { roles: ['desk', 'desk'] })
  expect([await dueOf(manager), await dueOf(desk), await dueOf(await joined('desk'))]).toEqual([false, true, true])
  await send('people.changeRole', { userId: manager.id, role: 'desk' })
  await send('people.changeRole', { userId: desk.id, role: 'instructor' })
  expect([await dueOf(manager), await dueOf(desk)]).toEqual([true, false])
  await send('people.requireSecondFactor', { roles: [] })
  expect(await dueOf(manager)).toBe(false)

  await turnOn(desk)
  const typed = { name: '', username: '', password: 'kettle-lantern-ferry-9' }
  expect(await acceptInvitation(db, await link('instructor', desk.id), typed, new Date())).toBe('kept')
  expect(await secondFactorOf(db, { userId: desk.id })).toEqual({ isOn: false, isRequired: false })
  expect(await db.select().from(twoFactor).where(eq(twoFactor.userId, desk.id))).toEqual([])
})
