/** @jest-environment node */
import { eq } from 'drizzle-orm'
import type { HomeMeasures } from '@/core/riders/memberPage/message'
import { ownCommand } from '@/interface/commands/command'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { memberLink, memberMessage } from '@/server/riders/memberPage/tables'
import { addMember } from '@/server/riders/members/members'
import { MAX_PER_DAY } from '@/server/riders/memberPage/daily'
import { findLink, openLink, ownerOf, revokeLinks } from '@/server/riders/memberPage/links'
import { handleMessage, listMessages } from '@/server/riders/memberPage/messages'
import { memberPageData } from '@/server/pages/riders/memberPage'
import { openFrom } from '@/server/riders/memberPage/pageLimits'
import { listEvidence } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => {
  const { dispatch } = jest.requireActual('@/core/operations/dispatch')
  return { compute: async (operation: string, request: unknown) => dispatch(operation, request) }
})
let peer = 'test'
jest.mock('next/headers', () => ({ headers: async () => new Headers({ 'x-forwarded-for': peer }) }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const now = new Date()
const later = (days: number) => new Date(now.getTime() + days * 86_400_000)

beforeAll(() => {
  process.env.BETTER_AUTH_SECRET ??= 'only-for-this-test-and-thrown-away-after'
})
afterAll(closeDatabase)
beforeEach(() => {
  peer = id()
})

async function newcomer() {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Guest ${memberId.slice(0, 6)}` }, now)
  return { memberId, link: (await openLink(db, scope, memberId, now))! }
}

test('a link opens its member’s page, and requested again it is the same one', async () => {
  const { memberId, link } = await newcomer()
  expect(link.token).toMatch(/^[\w-]{43}$/)
  expect(await openLink(db, scope, memberId, later(1))).toEqual(link)
  expect(await ownerOf(db, link.token, now)).toMatchObject({ memberId, studioId: 'netloft-hall' })
})

test('what opens a page is nowhere in the database', async () => {
  const { link } = await newcomer()
  const [rows] = await connectionPool().query('SELECT * FROM member_link WHERE id = ?', [link.id])
  expect(JSON.stringify(rows)).not.toContain(link.token)
  expect(rows).toHaveLength(1)
})

test('taken back or too old, it opens nothing, and neither does anything like it', async () => {
  const { memberId, link } = await newcomer()
  expect(await ownerOf(db, link.token, later(366))).toBeNull()
  expect(await findLink(db, scope, memberId, later(366))).toBeNull()
  for (const other of ['', 'x', link.token.slice(1), `${link.token}x`, link.token.toUpperCase(), "' OR 1=1 --"])
    expect(await ownerOf(db, other, now)).toBeNull()
  await revokeLinks(db, scope, memberId, now)
  expect(await ownerOf(db, link.token, now)).toBeNull()
  const next = (await openLink(db, scope, memberId, now))!
  expect(next.token).not.toBe(link.token)
  expect(await ownerOf(db, link.token, now)).toBeNull()
})

test('the page shows numbers, what may be tried, and the lengths to draw its member with; no reading', async () => {
  const link = (await openLink(db, scope, 'member-01', now))!
  const owner = (await ownerOf(db, link.token, now))!
  const page = await memberPageData(db, owner, now)
  expect(page.sets[0]).toMatchObject({ type: { name: 'Sorrel' }, certainty: 'measured' })
  expect(Object.keys(page.sets[0].tryAlone).length).toBeGreaterThan(0)
  expect(JSON.stringify(page)).not.toMatch(/evidence|backSore|pregnant|stature|kneeAngle|toesDown/i)
  expect(page.first).toBeNull()
  expect(page.sets[0].rider).toMatchObject({ thighMm: expect.any(Number) as number })
  const less = await memberPageData(db, { ...owner, opens: 'numbers' }, now)
  expect(less.sets.map(({ rider }) => rider)).toEqual(less.sets.map(() => null))
})

const home: HomeMeasures = {
  evidence: [
    { kind: 'rider', experience: 'regular', soleMm: 13, backSore: true },
    { kind: 'stature', mm: 1720 },
    { kind: 'inseam', mm: 810, shod: false },
    { kind: 'segment', segment: 'arm', mm: 640 },
  ],
}

test('measured at home, first marks and minutes are known before doors open; the set-up begins there', async () => {
  const { memberId, link } = await newcomer()
  const owner = (await ownerOf(db, link.token, now))!
  expect((await memberPageData(db, owner, new Date())).first).toEqual({ measured: false, minutes: 6, marks: [] })
  expect(await ownCommand(link.token, 'ownPage.sendHome', { home }, id())).toEqual({ outcome: 'kept' })
  const { first } = await memberPageData(db, owner, new Date())
  expect(first).toMatchObject({ measured: true, minutes: 4 })
  expect(first!.marks.map(({ type }) => type.name)).toEqual(
    expect.arrayContaining(['Bracken', 'Meadowsweet', 'Sorrel']),
  )
  const setupId = id()
  await startSetup(db, scope, { id: setupId, memberId, bikeId: 'bike-1' }, later(1))
  expect((await listEvidence(db, scope, setupId)).map(({ row }) => row)).toEqual(home.evidence)
})

test('their own bike’s tape gives the first marks by translation', async () => {
  const { link } = await newcomer()
  const ownBike = {
    lengths: { saddleHeightMm: 720, setbackMm: 60, reachMm: 690, stackMm: 640 },
    crankMm: 172.5,
    noseAheadMm: 150,
  }
  expect(await ownCommand(link.token, 'ownPage.sendHome', { home: { evidence: [], ownBike } }, id())).toEqual({
    outcome: 'kept',
  })
  const { first } = await memberPageData(db, (await ownerOf(db, link.token, now))!, now)
  expect(first).toMatchObject({ measured: true, minutes: 3 })
  expect(first!.marks.map(({ type }) => type.name)).toEqual(
    expect.arrayContaining(['Bracken', 'Meadowsweet', 'Sorrel']),
  )
})

test.each([
  ['of a kind nobody says of themselves', { evidence: [{ kind: 'kneeAngle', deg: 30, by: 'goniometer' }] }],
  ['that no body measures', { evidence: [{ kind: 'stature', mm: 99_999 }] }],
  ['nothing', { evidence: [] }],
  ['no list', { evidence: 'x' }],
  ['of a bike there is not', { evidence: [], ownBike: { lengths: {}, crankMm: 1, noseAheadMm: 2 } }],
])('home measures %s are not kept', async (_, sent) => {
  const { memberId, link } = await newcomer()
  expect(await ownCommand(link.token, 'ownPage.sendHome', { home: sent as never }, id())).toMatchObject({
    outcome: 'refused',
  })
  expect(await listMessages(db, scope, memberId)).toEqual([])
})

test('how it felt is stored once, in one line, and seen to by the studio', async () => {
  const { memberId, link } = await newcomer()
  const felt = { comfort: 7, place: 'knees', line: ` tight \n left\u0000${'x'.repeat(400)}` }
  const key = id()
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, key)).toEqual({ outcome: 'kept' })
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, key)).toEqual({ outcome: 'kept' })
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt: { ...felt, comfort: 8 } }, key)).toMatchObject({
    outcome: 'refused',
  })
  for (const wrong of [{ ...felt, comfort: 11 }, { ...felt, place: 'hat' }, { ...felt, comfort: 2.5 }, null])
    expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt: wrong }, id())).toMatchObject({
      outcome: 'refused',
    })
  expect(await ownCommand(link.token, 'ownPage.requestRecheck', { line: '' }, id())).toEqual({ outcome: 'kept' })
  const odd = Object.create(null) as string
  expect(await ownCommand(link.token, 'ownPage.requestRecheck', { line: odd }, id())).toMatchObject({
    code: 'malformed',
  })
  const said = await listMessages(db, scope, memberId)
  expect(said.map(({ kind }) => kind).sort()).toEqual(['felt', 'recheck'])
  const kept = said.find(({ kind }) => kind === 'felt')!
  expect(kept.body).toMatchObject({ comfort: 7, place: 'knees', line: expect.stringMatching(/^tight left x{1,190}$/) })
  await handleMessage(db, scope, kept.id, now)
  expect((await listMessages(db, scope, memberId)).find(({ id: one }) => one === kept.id)?.handledAt).toEqual(now)
})

test('through a link that ended nothing is sent', async () => {
  const { memberId, link } = await newcomer()
  await revokeLinks(db, scope, memberId, now)
  const felt = { comfort: 5, place: 'nowhere', line: '' }
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, id())).toMatchObject({
    say: expect.stringMatching(/has ended/),
  })
  expect(await listMessages(db, scope, memberId)).toEqual([])
})

describe('guessing links', () => {
  const guess = () => `${id()}${id()}`.replaceAll('-', '').slice(0, 43)
  const opener = () => {
    const waits: number[] = []
    return {
      waits,
      open: (from: string, token: string, what: 'view' | 'write' = 'view') =>
        openFrom(db, from, token, what, now, async (ms) => waits.push(ms)),
    }
  }

  test('slows answers down, closes nobody’s page, and counts the same link once', async () => {
    const { waits, open } = opener()
    const { link } = await newcomer()
    const ended = guess()
    for (let i = 0; i < 100; i++) expect(await open(peer, ended)).toBeNull()
    expect(waits).toEqual([])
    for (let i = 0; i < 29; i++) await open(peer, guess())
    expect(waits).toEqual([])
    for (let i = 0; i < 3; i++) expect(await open(peer, guess())).toBeNull()
    expect(waits).toEqual([1000, 1000, 1000])
    // Behind the same address a right link opens as before, at once.
    expect(await open(peer, link.token)).toMatchObject({ memberId: expect.any(String) })
    expect(waits).toHaveLength(3)
    await open(id(), guess())
    expect(waits).toHaveLength(3)
  })

  test('a link opened without end is held back, and still opens', async () => {
    const { waits, open } = opener()
    const { link } = await newcomer()
    for (let i = 0; i < 240; i++) await open(peer, link.token)
    expect(waits).toEqual([])
    expect(await open(peer, link.token)).not.toBeNull()
    expect(waits).toEqual([1000])
    // What is sent is counted apart: a flood of it slows itself down, and no page.
    expect(await open(peer, link.token, 'write')).not.toBeNull()
    expect(waits).toHaveLength(1)
  })
})

test('within a day so much is taken from a page, and the same once more is no more', async () => {
  const { memberId, link } = await newcomer()
  const felt = { comfort: 5, place: 'nowhere', line: '' }
  const first = id()
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, first)).toEqual({ outcome: 'kept' })
  const more = await Promise.all(
    Array.from({ length: MAX_PER_DAY + 5 }, () => ownCommand(link.token, 'ownPage.sendFelt', { felt }, id())),
  )
  expect(more.filter(({ outcome }) => outcome === 'kept')).toHaveLength(MAX_PER_DAY - 1)
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, id())).toMatchObject({
    say: expect.stringMatching(/you sent a lot today/),
  })
  expect(await ownCommand(link.token, 'ownPage.sendFelt', { felt }, first)).toEqual({ outcome: 'kept' })
  const complaint = { what: 'hands', side: 'both', strength: 4 }
  const told = await Promise.all(
    Array.from({ length: MAX_PER_DAY + 5 }, () =>
      ownCommand(link.token, 'ownPage.sendComplaint', { said: complaint as never }, id()),
    ),
  )
  expect(told.filter(({ outcome }) => outcome === 'kept')).toHaveLength(MAX_PER_DAY)
  expect(await db.$count(memberMessage, eq(memberMessage.memberId, memberId))).toBe(MAX_PER_DAY)
})

test('who may not see notes gets no link, and one made with less right opens less', async () => {
  const { memberId, link } = await newcomer()
  const desk: Scope = { ...scope, role: 'desk' }
  expect(await findLink(db, scope, memberId, now)).toMatchObject({ opens: 'everything' })
  expect(await findLink(db, desk, memberId, now)).toBeNull()
  expect(await openLink(db, desk, memberId, now)).toBeNull()
  await db.update(memberLink).set({ opens: 'numbers' }).where(eq(memberLink.id, link.id))
  const owner = (await ownerOf(db, link.token, now))!
  expect(await memberPageData(db, owner, now)).toMatchObject({ hasStory: false, trials: [] })
  // Whoever sees notes makes one that opens everything.
  expect(await openLink(db, scope, memberId, later(1))).toMatchObject({ opens: 'everything' })
})

test('links made at once for one member are one', async () => {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: 'At Once' }, now)
  const made = await Promise.all([1, 2, 3].map(() => openLink(db, scope, memberId, now)))
  expect(new Set(made.map((link) => link?.token)).size).toBe(1)
  expect(await db.$count(memberLink, eq(memberLink.memberId, memberId))).toBe(1)
})
