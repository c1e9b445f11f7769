/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { currentSessionsOf, insertSession } from '../support/sessions'
import { changeOwnPassword, hasAccounts, type TypedAccount } from '@/server/platform/accounts/accounts'
import { passwordIssue, readUsername } from '@/server/platform/accounts/credentials'
import { verifyPassword } from '@/server/platform/accounts/hashing'
import { listOwnSessions } from '@/server/platform/accounts/ownSessions'
import type { Scope } from '@/server/platform/accounts/scope'
import { account, invitation, studio, user } from '@/server/platform/accounts/tables'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { runCommand } from '@/server/commands/runCommand'
import { beginStudio, codeFingerprint } from '@/server/studio/firstStart'
import { acceptInvitation, findInvitation, listInvitations, INVITATION_MS } from '@/server/studio/invitations'
import { POST as acceptByForm } from '@/app/api/accounts/invited/route'
import { listEverybody, listPeople } from '@/server/studio/people'
import { openEmptyStudio, type EmptyStudio } from '../../../scripts/support/emptyStudio'

jest.mock('better-auth/next-js', () => ({ nextCookies: () => ({ id: 'no-pages-here' }) }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const now = new Date('2005-02-01T10:00:00Z')
const later = (ms: number) => new Date(now.getTime() + ms)
const id = () => crypto.randomUUID()
const GOOD = 'harbour-violin-moss-4'
let people = 0
const typed = (password = GOOD): TypedAccount => ({
  name: 'Tilda  Fenn ',
  username: `tilda.${process.pid}.${(people += 1)}`,
  password,
})
const send = (name: string, input: object, at = now, by = scope, commandId = id()) =>
  runCommand(db, by, { name, id: commandId, input }, at)
afterAll(closeDatabase)

/** A link to a new account, and its token. */
async function invited(role = 'instructor', userId: string | null = null): Promise<{ id: string; token: string }> {
  const commandId = id()
  expect(await send('people.invite', { role, userId }, now, scope, commandId)).toEqual({ outcome: 'kept' })
  const { token } = (await listInvitations(db, scope, now)).find((one) => one.id === commandId)!
  return { id: commandId, token }
}
/** Somebody who joined by a link; resolves with their account's id. */
async function joined(role = 'instructor'): Promise<string> {
  const own = typed()
  expect(await acceptInvitation(db, (await invited(role)).token, own, now)).toBe('kept')
  const [found] = await db.select({ id: user.id }).from(user).where(eq(user.username, own.username))
  return found.id
}

test('an invitation makes one account with its role; used again, late, or taken back it opens nothing', async () => {
  const { token } = await invited('desk')
  expect(await findInvitation(db, token, now)).toEqual({ studio: 'Netloft Hall', role: 'desk', forName: null })
  const own = typed()
  expect(await acceptInvitation(db, token, own, now)).toBe('kept')
  expect(await acceptInvitation(db, token, typed(), now)).toBe('used')
  const [stored] = await db.select().from(user).where(eq(user.username, own.username))
  expect(stored).toMatchObject({ name: 'Tilda Fenn', studioId: 'netloft-hall', role: 'desk' })
  const [{ password }] = await db.select().from(account).where(eq(account.userId, stored.id))
  expect(await verifyPassword(password!, GOOD)).toBe(true)

  const late = await invited()
  expect(await acceptInvitation(db, late.token, typed(), later(INVITATION_MS))).toBe('expired')
  const back = await invited()
  await send('people.revokeInvitation', { invitationId: back.id })
  expect(await acceptInvitation(db, back.token, typed(), now)).toBe('revoked')
  expect(await acceptInvitation(db, 'no-such-token', typed(), now)).toBe('gone')
  // The database has fingerprints alone.
  const rows = await db.select({ hash: invitation.tokenHash }).from(invitation)
  expect(rows.map(({ hash }) => hash)).not.toContain(token)
})

test('opened twice at once an invitation makes one account', async () => {
  const { token } = await invited()
  const results = await Promise.all([typed(), typed(), typed()].map((one) => acceptInvitation(db, token, one, now)))
  expect(results.filter((one) => one === 'kept')).toHaveLength(1)
  expect(results.filter((one) => one === 'used')).toHaveLength(2)
})

test('what cannot be an account is refused and leaves the link open', async () => {
  const { token } = await invited()
  const refusals = await Promise.all(
    (
      [
        { name: ' ' },
        { username: 'a b' },
        { username: 'INES' },
        { password: 'short' },
        { password: 'netlofthall' },
        { password: 'a'.repeat(201) },
      ] as const
    ).map((wrong) => acceptInvitation(db, token, { ...typed(), ...wrong }, now)),
  )
  expect(refusals).toEqual(['noName', 'badUsername', 'usernameTaken', 'tooShort', 'easyToGuess', 'tooLong'])
  expect(await acceptInvitation(db, token, typed(), now)).toBe('kept')
})

test('a role changes; access ends with sessions and password, the name stays; a manager always remains', async () => {
  const [person, manager] = [await joined(), await joined('manager')]
  const theirs: Scope = { ...scope, userId: manager }
  await insertSession(person)
  expect(await send('people.changeRole', { userId: person, role: 'desk' }, now, theirs)).toEqual({ outcome: 'kept' })
  expect(await send('people.endAccess', { userId: person }, now, theirs)).toEqual({ outcome: 'kept' })
  expect(await currentSessionsOf(person)).toBe(0)
  expect(await db.select().from(account).where(eq(account.userId, person))).toEqual([])
  expect((await listPeople(db, scope)).map((one) => one.id)).not.toContain(person)
  expect((await listEverybody(db, scope)).find((one) => one.id === person)).toMatchObject({
    role: 'desk',
    endedAt: now,
  })
  expect(await send('people.endAccess', { userId: person }, now, theirs)).toMatchObject({ code: 'noSuchPerson' })
  // A new password is for people with access alone.
  expect(await send('people.invite', { role: 'desk', userId: person })).toMatchObject({ code: 'noSuchPerson' })
  await send('people.endAccess', { userId: manager })
  expect(await send('people.endAccess', { userId: 'ines-harrow' })).toMatchObject({ code: 'lastManager' })
  expect(await send('people.changeRole', { userId: 'ines-harrow', role: 'desk' })).toMatchObject({
    code: 'lastManager',
  })
})

test('links of a manager who lost the role or the access open nothing, and the other links still do', async () => {
  const [ended, demoted] = [await joined('manager'), await joined('manager')]
  const made = async (userId: string) => {
    const commandId = id()
    await send('people.invite', { role: 'manager', userId: null }, now, { ...scope, userId }, commandId)
    return (await listInvitations(db, scope, now)).find((one) => one.id === commandId)!.token
  }
  const [byEnded, byDemoted, other] = [await made(ended), await made(demoted), await invited()]
  await send('people.endAccess', { userId: ended })
  await send('people.changeRole', { userId: demoted, role: 'instructor' })
  for (const token of [byEnded, byDemoted]) expect(await acceptInvitation(db, token, typed(), now)).toBe('revoked')
  expect(await acceptInvitation(db, other.token, typed(), now)).toBe('kept')
})

test('mistakes in a form are no guesses: after weak passwords a good one is taken; guessed links wait', async () => {
  const today = new Date()
  const commandId = id()
  await send('people.invite', { role: 'desk', userId: null }, today, scope, commandId)
  const { token } = (await listInvitations(db, scope, today)).find((one) => one.id === commandId)!
  const post = (password: string, of = token) =>
    acceptByForm(
      new Request('http://127.0.0.1/api/accounts/invited', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-forwarded-for': '192.0.2.77' },
        body: JSON.stringify({ token: of, account: { ...typed(), password } }),
      }),
    )
  for (let i = 0; i < 6; i++) expect((await post('short')).status).toBe(422)
  expect((await post(GOOD)).status).toBe(200)
  const guesses: number[] = []
  for (let i = 0; i < 6; i++) guesses.push((await post(GOOD, 'a-guessed-link')).status)
  expect(guesses).toEqual([422, 422, 422, 422, 422, 429])
})

test('of two managers who end each other at once, one remains', async () => {
  const second = await joined('manager')
  const other: Scope = { ...scope, userId: second }
  const results = await Promise.all([
    send('people.changeRole', { userId: second, role: 'instructor' }),
    send('people.changeRole', { userId: 'ines-harrow', role: 'instructor' }, now, other),
  ])
  const managers = (await listPeople(db, scope)).filter(({ role }) => role === 'manager')
  expect(managers).toHaveLength(1)
  expect(results.filter(({ outcome }) => outcome === 'kept')).toHaveLength(1)
  // As the other tests found it.
  await db.update(user).set({ role: 'manager' }).where(eq(user.id, 'ines-harrow'))
  await db.update(user).set({ role: 'instructor' }).where(eq(user.id, second))
})

test('a link to a new password sets it and ends every session; one’s own change keeps this session', async () => {
  const person = await joined()
  await insertSession(person)
  const { token } = await invited('instructor', person)
  expect(await findInvitation(db, token, now)).toMatchObject({ forName: 'Tilda Fenn' })
  const next = 'quiet-copper-meadow-8'
  expect(await acceptInvitation(db, token, { ...typed(), password: 'qwertyuiop' }, now)).toBe('easyToGuess')
  expect(await acceptInvitation(db, token, { ...typed(), password: next }, now)).toBe('kept')
  expect(await currentSessionsOf(person)).toBe(0)

  const sessionToken = await insertSession(person)
  await insertSession(person)
  const change = (present: string, wanted: string) =>
    changeOwnPassword(db, { userId: person, sessionToken }, { present, next: wanted }, now)
  expect(await change(GOOD, 'slow-anchor-thistle-2')).toBe('wrong')
  expect(await change(next, 'tildafenn1')).toBe('easyToGuess')
  expect(await change(next, 'slow-anchor-thistle-2')).toBe('kept')
  expect(await currentSessionsOf(person)).toBe(1)
})

test('the desk and instructors invite nobody and see no links', async () => {
  for (const role of ['desk', 'instructor'] as const) {
    const by = { ...scope, role }
    expect(await send('people.invite', { role: 'manager', userId: null }, now, by)).toMatchObject({
      code: 'notAllowed',
    })
    expect(await listInvitations(db, by, now)).toEqual([])
  }
})

test('passwords: length, dictionaries and the person’s own words count; user names are small letters', () => {
  const issue = (password: string) => passwordIssue(password, ['Tilda Fenn', 'tilda', 'Netloft Hall'])
  expect(issue('password12')).toBe('easyToGuess')
  expect(issue('tildafenn2005')).toBe('easyToGuess')
  expect(issue('correct horse battery staple')).toBeNull()
  expect(issue(GOOD)).toBeNull()
  expect([readUsername(' Ada.L '), readUsername('ab'), readUsername('a-b-c')]).toEqual(['ada.l', null, null])
})

describe('the first start', () => {
  const facts = { name: 'Fallow Lane', place: 'Tarn Ferry', timeZone: 'Europe/Oslo' }
  const code = 'K7QX-M2RD-9TWP'
  let empty: EmptyStudio
  beforeAll(async () => {
    process.env.FIRST_START_CODE_HASH = codeFingerprint(code)
    empty = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_first_${process.pid}`)
    await empty.db.delete(user)
    await empty.db.delete(studio)
  })
  afterAll(async () => {
    delete process.env.FIRST_START_CODE_HASH
    await empty.close()
  })
  const begin = (change: object = {}) =>
    beginStudio(empty.db, { code, facts, manager: { ...typed(), username: 'orla' }, ...change }, now)

  test('needs the printed code and whole details; of three at once one begins; then nobody can', async () => {
    expect(await hasAccounts(empty.db)).toBe(false)
    expect(await begin({ code: 'AAAA-AAAA-AAAA' })).toBe('wrongCode')
    expect(await begin({ facts: { ...facts, name: ' ' } })).toBe('noStudioName')
    expect(await begin({ facts: { ...facts, timeZone: 'Moon/Base' } })).toBe('noTimeZone')
    expect(await begin({ manager: typed('fallowlane') })).toBe('easyToGuess')
    expect(await hasAccounts(empty.db)).toBe(false)
    const results = await Promise.all([begin({ code: 'k7qxm2rd9twp' }), begin(), begin()])
    expect(results.filter((one) => one === 'kept')).toHaveLength(1)
    expect(await empty.db.select({ name: studio.name }).from(studio)).toEqual([{ name: 'Fallow Lane' }])
    expect(await begin()).toBe('begun')
  })

  test('without a code at the start nobody can begin', async () => {
    delete process.env.FIRST_START_CODE_HASH
    await empty.db.delete(account)
    await empty.db.delete(user)
    expect(await begin()).toBe('wrongCode')
  })
})

test('everybody sees where they are signed in, and ends that elsewhere, never another person’s', async () => {
  const [own, other] = [await joined(), await joined()]
  const by = (userId: string): Scope => ({ ...scope, userId, role: 'instructor' })
  const here = await insertSession(own)
  for (const one of [own, other]) await insertSession(one)
  const list = () => listOwnSessions(db, by(own), here, new Date())
  expect((await list()).map(({ isThis }) => isThis).sort()).toEqual([false, true])
  const [theirs] = await listOwnSessions(db, by(other), '', new Date())
  await send('people.endOwnSession', { sessionId: theirs.id }, now, by(own))
  expect(await listOwnSessions(db, by(other), '', new Date())).toHaveLength(1)
  const there = (await list()).find(({ isThis }) => !isThis)!
  await send('people.endOwnSession', { sessionId: there.id }, now, by(own))
  expect((await list()).map(({ isThis }) => isThis)).toEqual([true])
  // One that has run out is nowhere.
  expect(await listOwnSessions(db, by(own), '', new Date('2200-01-01'))).toEqual([])
})
