/** @jest-environment node */
import { asc, eq } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { CHANGED_TEXT, formatAccess, formatVerdict, RIGHTS_TEXT } from '@/core/messages/studio/accessLog'
import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import { COMMANDS, OWN_COMMANDS } from '@/server/commands/registry'
import { runCommand, runQuery } from '@/server/commands/runCommand'
import { accessQuery, privacyPage } from '@/server/pages/studio/privacy'
import { notedEnds, noteEnd } from '@/server/privacy/accessLog/ends'
import { listAccess } from '@/server/privacy/accessLog/list'
import { recordSeen } from '@/server/privacy/accessLog/record'
import { chainEnd, settleAccessLog } from '@/server/privacy/accessLog/settle'
import { accessChain, accessLog } from '@/server/privacy/accessLog/tables'
import { verifyAccessLog } from '@/server/privacy/accessLog/verify'
import { addMember } from '@/server/riders/members/members'

let far: EmptyStudio
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')

beforeAll(async () => {
  far = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_access_${process.pid}`)
})
afterAll(() => far.close())

const send = (name: string, input: object, at = now) => runCommand(far.db, far.scope, { name, id: id(), input }, at)
const entries = async (filter = {}) => (await listAccess(far.db, far.scope, filter)).entries
const words = async (filter = {}) => (await entries(filter)).map(({ what }) => what)

async function rider(name: string): Promise<string> {
  const memberId = id()
  await addMember(far.db, far.scope, { id: memberId, name }, now)
  return memberId
}

test('every command that changes health data or rights has its words in the log', () => {
  const changing = Object.values(COMMANDS).filter(({ permission }) =>
    ['setUpRiders', 'writeNotes', 'managePrivacy'].includes(permission),
  )
  const people = Object.keys(COMMANDS).filter((name) => name.startsWith('people.'))
  const names = [...changing.map(({ name }) => name), ...people, ...Object.keys(OWN_COMMANDS)]
  expect(names.filter((name) => formatAccess(name) === name)).toEqual([])
  const known = [...Object.keys(COMMANDS), ...Object.keys(OWN_COMMANDS)]
  expect(Object.keys({ ...CHANGED_TEXT, ...RIGHTS_TEXT }).filter((name) => !known.includes(name))).toEqual([])
})

test('a command is logged once, about its member, a refused one not; what somebody saw once as well', async () => {
  const memberId = await rider('Logged Rider')
  const limitId = id()
  const limit = { kind: 'injury', since: '2004-08-01', region: 'knee', side: 'left' }
  const sent = { name: 'members.recordLimit', id: limitId, input: { memberId, limit, consent: true } }
  for (let i = 0; i < 2; i++) await runCommand(far.db, far.scope, sent, now)
  await send('members.recordLimit', { memberId: id(), limit, consent: true })
  const said = { what: 'frontKnee', side: 'left', strength: 5 }
  const complaintId = id()
  const complaint = { name: 'comfort.saveComplaint', id: complaintId }
  await runCommand(far.db, far.scope, { ...complaint, input: { memberId, said, bikeId: null, noteId: null } }, now)
  // Its input names the complaint alone: the log finds the member.
  await send('comfort.endComplaint', { memberId, complaintId }, new Date(now.getTime() + 1000))
  const by = { studioId: far.scope.studioId, userId: far.scope.userId }
  for (let i = 0; i < 3; i++) await recordSeen(far.db, by, 'rider', memberId, now)
  await recordSeen(far.db, { ...by, userId: null }, 'ownPage', memberId, now)
  await Promise.all([settleAccessLog(far.db, by.studioId), settleAccessLog(far.db, by.studioId)])

  expect((await words({ subject: memberId })).sort()).toEqual([
    'comfort.endComplaint',
    'comfort.saveComplaint',
    'members.recordLimit',
    'ownPage',
    'rider',
  ])
  expect(await words({ subject: memberId, actor: far.scope.userId, kind: 'saw' })).toEqual(['rider'])
  const [own] = await entries({ subject: memberId, kind: 'saw' })
  expect(own).toMatchObject({ isOwnPage: true, subject: { kind: 'member', name: 'Logged Rider' } })
  expect(await words({ from: new Date(now.getTime() + 500), subject: memberId })).toEqual(['comfort.endComplaint'])
  expect(await words({ to: now, subject: memberId })).toEqual([])
})

test('the chain is SHA-256 over the link before and the row; a changed, missing or cut row is named', async () => {
  const { studioId } = far.scope
  await settleAccessLog(far.db, studioId)
  expect(await verifyAccessLog(far.db, studioId)).toMatchObject({ outcome: 'whole', waiting: 0 })
  const [row] = await far.db
    .select()
    .from(accessLog)
    .where(eq(accessLog.studioId, studioId))
    .orderBy(asc(accessLog.position))
  const [first] = await far.db.select().from(accessChain).orderBy(asc(accessChain.link)).limit(1)
  const { position, at, actor, kind, what, subject, commandId } = row
  const text = JSON.stringify([studioId, position, at.toISOString(), actor, kind, what, subject, commandId])
  expect(first.hash).toBe(createHash('sha256').update(text).digest('hex'))

  await far.db.update(accessLog).set({ what: 'story' }).where(eq(accessLog.position, position))
  const changed = await verifyAccessLog(far.db, studioId)
  expect(changed).toEqual({ outcome: 'broken', link: 1, why: 'changed' })
  expect(formatVerdict(changed)).toBe('Entry 1 was changed in the database. Somebody did that by hand.')
  await far.db.update(accessLog).set({ what }).where(eq(accessLog.position, position))

  const end = await chainEnd(far.db, studioId)
  const folder = mkdtempSync(join(tmpdir(), 'saddle-access-'))
  noteEnd(folder, studioId, end)
  noteEnd(folder, studioId, { ...end, link: end.link + 1 })
  expect(notedEnds(folder, studioId)).toEqual(new Map([[end.link, end.hash]]))
  expect([notedEnds(folder, 'elsewhere').size, notedEnds(undefined, studioId).size]).toEqual([0, 0])
  expect(await verifyAccessLog(far.db, studioId, notedEnds(folder, studioId))).toMatchObject({ outcome: 'whole' })
  // The last row and its link are taken away together: the chain alone does not show it, the noted end does.
  await far.db.delete(accessChain).where(eq(accessChain.link, end.link))
  await far.db.delete(accessLog).where(eq(accessLog.position, end.logPosition))
  expect(await verifyAccessLog(far.db, studioId)).toMatchObject({ outcome: 'whole' })
  expect(await verifyAccessLog(far.db, studioId, notedEnds(folder, studioId))).toMatchObject({ why: 'cut' })
  await far.db.delete(accessLog).where(eq(accessLog.position, position))
  expect(await verifyAccessLog(far.db, studioId)).toEqual({ outcome: 'broken', link: 1, why: 'missing' })
})

test('the page shows a part of the log by its address; nonsense in it is left out; others may not ask', async () => {
  expect(accessQuery({ who: 'Robert"; DROP', about: ['a', 'b'], kind: 'x', before: '-1' })).toEqual({})
  expect(accessQuery({ who: 'ines', about: 'm-1', kind: 'saw', before: '12' })).toEqual({
    who: 'ines',
    about: 'm-1',
    kind: 'saw',
    before: 12,
  })
  const memberId = await rider('Paged Rider')
  const by = { studioId: far.scope.studioId, userId: far.scope.userId }
  await far.db.insert(accessLog).values(
    Array.from({ length: 130 }, () => ({
      ...by,
      at: now,
      actor: by.userId,
      kind: 'saw' as const,
      what: 'story',
      subject: memberId,
    })),
  )
  const first = await privacyPage(far.db, far.scope, { about: memberId })
  expect([first.entries.length, first.more, first.about?.name]).toEqual([100, true, 'Paged Rider'])
  const second = await privacyPage(far.db, far.scope, { about: memberId, before: first.entries.at(-1)!.position })
  expect([second.entries.length, second.more]).toEqual([30, false])
  const ask = { name: 'privacy.verifyLog', input: {} }
  expect(await runQuery(far.db, far.scope, ask, now)).toMatchObject({ outcome: 'found' })
  expect(await runQuery(far.db, { ...far.scope, role: 'instructor' }, ask, now)).toMatchObject({ code: 'notAllowed' })
})
