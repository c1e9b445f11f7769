/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { command, ownCommand } from '@/interface/commands/command'
import { addClass } from '@/server/classes/classes'
import { addNote } from '@/server/classes/notes'
import { bookRider } from '@/server/classes/roster'
import { addComplaint, closeComplaint } from '@/server/comfort/complaints'
import { listProgrammes } from '@/server/comfort/programmes'
import { programme } from '@/server/comfort/tables'
import { riderPage } from '@/server/pages/riders/rider'
import { memberPageData } from '@/server/pages/riders/memberPage'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { giveConsent } from '@/server/riders/consent'
import { openLink, ownerOf } from '@/server/riders/memberPage/links'
import { addMember } from '@/server/riders/members/members'

let now = new Date()
jest.mock('@/server/platform/accounts/session', () => {
  const person = () => ({ userId: 'ines-harrow', name: 'Ines Harrow', studioId: 'netloft-hall', role: 'manager' })
  return { currentUser: async () => person(), requireUser: async () => person() }
})
let peer = 'programmes'
jest.mock('next/headers', () => ({ headers: async () => new Headers({ 'x-forwarded-for': peer }) }))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const DAY_MS = 86_400_000
const daysAgo = (days: number) => new Date(now.getTime() - days * DAY_MS)
const HIPS = { about: { sign: 'rocking' }, exercises: ['sideLegLifts', 'leanAndSit'], weeks: 4 } as const

beforeAll(() => {
  process.env.BETTER_AUTH_SECRET ??= 'only-for-this-test-and-thrown-away-after'
})
beforeEach(() => {
  now = new Date()
  peer = id()
})
afterAll(closeDatabase)

async function rider(agrees = true): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Exercised ${memberId.slice(0, 6)}` }, daysAgo(60))
  if (agrees) await giveConsent(db, scope, memberId, 'spoken', daysAgo(60))
  return memberId
}
const give = (memberId: string, more: object = {}, programmeId = id()) =>
  command('comfort.giveProgramme', { memberId, ...HIPS, ...more }, programmeId)
const linkOf = async (memberId: string) => {
  const { token } = (await openLink(db, scope, memberId, now))!
  return { token, owner: (await ownerOf(db, token, now))! }
}
const states = async (memberId: string) => (await listProgrammes(db, scope, memberId, now)).map(({ state }) => state)

test('without consent nothing is given; with it, it is, and twice is once', async () => {
  const memberId = await rider(false)
  expect(await give(memberId)).toMatchObject({ outcome: 'refused', say: expect.stringContaining('has not agreed') })
  expect(await states(memberId)).toEqual([])
  const programmeId = id()
  for (let twice = 0; twice < 2; twice++)
    expect(await give(memberId, { agrees: true }, programmeId)).toMatchObject({ outcome: 'kept' })
  expect(await states(memberId)).toEqual([{ state: 'running', week: 1 }])
})

test.each([
  ['an exercise nobody knows', { exercises: ['handstand'] }],
  ['a sign nobody knows', { about: { sign: 'levitating' } }],
  ['a pain of the chest', { about: { complaint: 'chest' } }],
  ['twelve weeks', { weeks: 12 }],
  ['no exercise', { exercises: [] }],
  ['a sign and a complaint', { about: { sign: 'rocking', complaint: 'lowBack' } }],
])('%s is refused, and nothing is written', async (_, more) => {
  const memberId = await rider()
  expect(await give(memberId, more)).toMatchObject({ outcome: 'refused' })
  expect(await states(memberId)).toEqual([])
})

test('two run at once, not three; ended one makes room and can be taken back', async () => {
  const memberId = await rider()
  const first = id()
  expect((await give(memberId, {}, first)).outcome).toBe('kept')
  expect((await give(memberId, { about: { complaint: 'lowBack' } })).outcome).toBe('kept')
  expect(await give(memberId)).toMatchObject({ outcome: 'refused', say: expect.stringContaining('two programmes') })
  const of = { memberId, programmeId: first }
  expect((await command('comfort.endProgramme', of)).outcome).toBe('kept')
  expect((await states(memberId)).filter(({ state }) => state === 'ended')).toHaveLength(1)
  expect((await command('comfort.reopenProgramme', of)).outcome).toBe('kept')
  expect((await states(memberId)).filter(({ state }) => state === 'running')).toHaveLength(2)
})

test('the member ticks a day once, takes it back, and ticks no day ahead; the instructor sees it', async () => {
  const memberId = await rider()
  const programmeId = id()
  await give(memberId, {}, programmeId)
  const { token, owner } = await linkOf(memberId)
  const [{ today }] = (await memberPageData(db, owner, now)).programmes
  const tick = (item: number, day: string) =>
    ownCommand(token, 'ownPage.tickExercise', { programmeId, item, day }, id())
  for (let twice = 0; twice < 2; twice++) expect((await tick(0, today)).outcome).toBe('kept')
  expect((await tick(0, '2999-01-01')).outcome).toBe('refused')
  expect((await tick(5, today)).outcome).toBe('refused')
  const seen = async () => (await riderPage(db, scope, memberId, now))!.programmes!.given[0].progress
  expect((await seen()).map(({ days }) => days)).toEqual([[today], []])
  await ownCommand(token, 'ownPage.untickExercise', { programmeId, item: 0, day: today }, id())
  expect((await seen())[0].days).toEqual([])
  // What was given is health data: the database holds it sealed.
  const [rows] = await connectionPool().query('SELECT body FROM programme WHERE id = ?', [programmeId])
  expect(JSON.stringify(rows)).not.toMatch(/rocking|sideLegLifts/)
})

test('a link to the numbers alone shows no exercises, and another member’s link ticks none', async () => {
  const [memberId, stranger] = [await rider(), await rider()]
  const programmeId = id()
  await give(memberId, {}, programmeId)
  const { owner } = await linkOf(memberId)
  expect((await memberPageData(db, { ...owner, opens: 'numbers' }, now)).programmes).toEqual([])
  const { token } = await linkOf(stranger)
  const day = now.toISOString().slice(0, 10)
  expect((await ownCommand(token, 'ownPage.tickExercise', { programmeId, item: 0, day }, id())).outcome).toBe('refused')
})

test('a red flag takes it off the page, also after it is settled, until somebody takes it up again', async () => {
  const memberId = await rider()
  const programmeId = id()
  await give(memberId, {}, programmeId)
  await db
    .update(programme)
    .set({ createdAt: daysAgo(1) })
    .where(eq(programme.id, programmeId))
  const { owner } = await linkOf(memberId)
  const complaintId = id()
  const sharp = { what: 'frontKnee', side: 'left', strength: 7, quality: ['sharp'] } as const
  await addComplaint(db, scope, { id: complaintId, memberId, ...sharp }, now)
  expect(await states(memberId)).toEqual([{ state: 'stopped' }])
  expect((await memberPageData(db, owner, now)).programmes.map(({ state }) => state)).toEqual([{ state: 'stopped' }])
  const of = { memberId, programmeId }
  expect(await command('comfort.resumeProgramme', of)).toMatchObject({
    outcome: 'refused',
    say: expect.stringContaining('red flag'),
  })
  expect((await give(memberId)).outcome).toBe('refused')
  await closeComplaint(db, scope, complaintId, now)
  expect(await states(memberId)).toEqual([{ state: 'stopped' }])
  expect((await command('comfort.resumeProgramme', of)).outcome).toBe('kept')
  expect(await states(memberId)).toEqual([{ state: 'running', week: 1 }])
})

test('its weeks pass, and whether the cue holds more often is counted by class', async () => {
  const memberId = await rider()
  const programmeId = id()
  await give(memberId, {}, programmeId)
  await db
    .update(programme)
    .set({ createdAt: daysAgo(20) })
    .where(eq(programme.id, programmeId))
  const inClass = async (days: number, held: boolean) => {
    const [classId, at] = [id(), daysAgo(days)]
    const endsAt = new Date(at.getTime() + 45 * 60_000)
    await addClass(db, scope, { id: classId, title: 'Past', startsAt: at, endsAt, roomId: 'net-loft' }, at)
    await bookRider(db, scope, { classId, memberId, state: 'here', comesMinBefore: 5 }, at)
    const note = { region: 'hips', sign: 'rocking', side: 'both', strength: 'clear', cued: true, held } as const
    await addNote(db, scope, { id: id(), memberId, bikeId: 'bike-1', classId, ...note, createdAt: at })
  }
  for (const days of [40, 39, 38, 37, 36]) await inClass(days, false)
  for (const days of [9, 8, 7, 6, 5]) await inClass(days, true)
  const { given, subjects } = (await riderPage(db, scope, memberId, now))!.programmes!
  expect(given[0].response).toMatchObject({
    before: { changed: 0, of: 5 },
    since: { changed: 5, of: 5 },
    change: { verdict: 'moreOften' },
  })
  expect(subjects).toContainEqual({ sign: 'rocking' })
})
