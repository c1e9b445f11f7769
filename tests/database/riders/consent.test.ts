/** @jest-environment node */
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { listComplaints } from '@/server/comfort/complaints'
import { runCommand, runOwnCommand } from '@/server/commands/runCommand'
import { takeEntry } from '@/server/commands/takeEntry'
import { listNotesOfMember } from '@/server/classes/notes'
import { reasonsOf } from '@/server/pages/comfort/reasons'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { consentOf, currentWording } from '@/server/riders/consent'
import { addMember } from '@/server/riders/members/members'
import type { Evidence } from '@/core/riders/evidence/registry'
import { openLink, ownerOf } from '@/server/riders/memberPage/links'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')
let bikeId: string

beforeAll(async () => {
  process.env.BETTER_AUTH_SECRET ??= 'only-for-this-test-and-thrown-away-after'
  await addBikes(db, scope, 'sorrel', [951])
  bikeId = (await listBikes(db, scope)).find(({ number }) => number === 951)!.id
})
afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Asked ${memberId.slice(0, 6)}` }, now)
  return memberId
}
const send = (name: string, input: object, by = scope) => runCommand(db, by, { name, id: id(), input }, now)
const note = (memberId: string, more: object = {}) =>
  takeEntry(
    db,
    scope,
    {
      id: id(),
      author: scope.userId,
      madeAtMs: now.getTime(),
      op: 'addNote',
      memberId,
      bikeId,
      sign: 'kneesOut',
      side: 'left',
      ...more,
    },
    now,
  )
const notes = async (memberId: string) => (await listNotesOfMember(db, scope, memberId)).length
const knee = { what: 'frontKnee', side: 'left', strength: 5 }
const complain = (memberId: string, more: object = {}) =>
  send('comfort.saveComplaint', { memberId, said: knee, bikeId: null, noteId: null, ...more })

test('without a yes no note and no complaint is stored; the yes that comes with one is, once', async () => {
  const memberId = await rider()
  expect(await note(memberId)).toMatchObject({ code: 'needsConsent' })
  expect(await note(memberId, { sign: 'redFlag', region: 'chest' })).toMatchObject({ outcome: 'refused' })
  expect(await note(memberId, { agrees: 'yes' })).toMatchObject({ code: 'needsConsent' })
  expect(await complain(memberId)).toMatchObject({ code: 'needsConsent' })
  expect([await notes(memberId), (await listComplaints(db, scope, memberId)).length]).toEqual([0, 0])
  expect((await reasonsOf(db, scope, memberId, now)).agrees).toBe(false)
  const both = await Promise.all([note(memberId, { agrees: true }), note(memberId, { agrees: true })])
  expect(both.map(({ outcome }) => outcome)).toEqual(['kept', 'kept'])
  expect(await complain(memberId)).toMatchObject({ outcome: 'kept' })
  expect([await notes(memberId), (await listComplaints(db, scope, memberId)).length]).toEqual([2, 1])
  expect(await consentOf(db, scope, memberId)).toMatchObject({ way: 'spoken', wordingVersion: 1 })
})

test('a set-up takes answers about health only with a yes; all other rows and the numbers need none', async () => {
  const memberId = await rider()
  const setupId = id()
  await runCommand(db, scope, { name: 'setups.startSetup', id: setupId, input: { memberId, bikeId } }, now)
  const append = (row: Evidence, more: object = {}) =>
    takeEntry(
      db,
      scope,
      { id: id(), author: scope.userId, madeAtMs: now.getTime(), op: 'appendEvidence', setupId, row, ...more },
      now,
    )
  const health = { kind: 'rider', experience: 'new', backSore: true } as const
  expect(await append({ kind: 'rider', experience: 'new' })).toMatchObject({ outcome: 'kept' })
  expect(await append({ kind: 'kneeByEye', seen: 'slightBend' })).toMatchObject({ outcome: 'kept' })
  expect(await append(health)).toMatchObject({ code: 'needsConsent' })
  expect(await append({ kind: 'rider', experience: 'new', pregnant: true })).toMatchObject({ code: 'needsConsent' })
  expect(await consentOf(db, scope, memberId)).toBeNull()
  const askedAtMs = now.getTime() - 3_600_000
  expect(await append(health, { agrees: true, madeAtMs: askedAtMs })).toMatchObject({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toMatchObject({ way: 'spoken', createdAt: new Date(askedAtMs) })
  expect(await append({ ...health, pregnant: true })).toMatchObject({ outcome: 'kept' })
})

test('a withdrawn consent stops further notes and leaves those before; a limit gives it', async () => {
  const [memberId, limited, complaining] = [await rider(), await rider(), await rider()]
  expect(await send('members.giveConsent', { memberId, way: 'written' })).toEqual({ outcome: 'kept' })
  expect(await send('members.giveConsent', { memberId, way: 'spoken' })).toEqual({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toMatchObject({ way: 'written' })
  expect(await note(memberId)).toMatchObject({ outcome: 'kept' })
  expect(await send('members.withdrawConsent', { memberId })).toEqual({ outcome: 'kept' })
  expect(await note(memberId)).toMatchObject({ code: 'needsConsent' })
  expect(await notes(memberId)).toBe(1)
  const limit = { kind: 'injury', since: '2004-08-01', region: 'knee', side: 'left' }
  const recorded = (consent: boolean) => send('members.recordLimit', { memberId: limited, limit, consent })
  expect(await recorded(false)).toMatchObject({ code: 'limitNeedsConsent' })
  expect(await recorded(true)).toMatchObject({ outcome: 'kept' })
  expect(await note(limited)).toMatchObject({ outcome: 'kept' })
  expect(await complain(complaining, { agrees: true })).toMatchObject({ outcome: 'kept' })
  expect(await note(complaining)).toMatchObject({ outcome: 'kept' })
  const desk: Scope = { ...scope, role: 'desk' }
  expect(await send('members.giveConsent', { memberId, way: 'spoken' }, desk)).toMatchObject({ code: 'notAllowed' })
})

test('on their own page a member agrees, withdraws, and agrees by what they send', async () => {
  const memberId = await rider()
  const owner = (await ownerOf(db, (await openLink(db, scope, memberId, now))!.token, now))!
  const own = (name: string, input: object = {}) => runOwnCommand(db, owner, { name, id: id(), input }, now)
  expect(await own('ownPage.agreeToNotes')).toEqual({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toMatchObject({ way: 'ownPage' })
  expect(await own('ownPage.withdrawConsent')).toEqual({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toBeNull()
  expect(await own('ownPage.requestRecheck', { line: '' })).toMatchObject({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toBeNull()
  expect(await own('ownPage.sendComplaint', { said: { nonsense: 1 } })).toMatchObject({ outcome: 'refused' })
  expect(await consentOf(db, scope, memberId)).toBeNull()
  const felt = { comfort: 4, place: 'knees', line: '' }
  expect(await own('ownPage.sendFelt', { felt })).toMatchObject({ outcome: 'kept' })
  expect(await consentOf(db, scope, memberId)).toMatchObject({ way: 'ownPage' })
})

test('a wording of the studio’s own is a version; consents keep theirs; an empty one is refused', async () => {
  const before = await currentWording(db, scope)
  const earlier = await rider()
  await send('members.giveConsent', { memberId: earlier, way: 'spoken' })
  const save = (wording: string, by = scope) => send('privacy.saveConsentWording', { wording }, by)
  expect(await save('  ')).toMatchObject({ code: 'emptyWording' })
  expect(await save('x'.repeat(1001))).toMatchObject({ code: 'malformed' })
  expect(await save('Ours', { ...scope, role: 'instructor' })).toMatchObject({ code: 'notAllowed' })
  for (let i = 0; i < 2; i++) expect(await save('  We note how you sit.  ')).toEqual({ outcome: 'kept' })
  expect(await currentWording(db, scope)).toEqual({ version: before.version + 1, wording: 'We note how you sit.' })
  const later = await rider()
  await send('members.giveConsent', { memberId: later, way: 'spoken' })
  const versions = [await consentOf(db, scope, earlier), await consentOf(db, scope, later)]
  expect(versions.map((one) => one!.wordingVersion)).toEqual([before.version, before.version + 1])
  expect(await note(earlier)).toMatchObject({ outcome: 'kept' })
})
