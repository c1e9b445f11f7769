/** @jest-environment node */
import type { Limit } from '@/core/riders/limits/limits'
import { listBikes } from '@/server/bikes/bikes'
import { addComplaint } from '@/server/comfort/complaints'
import { stopsOf } from '@/server/comfort/stops'
import { mergeMembers } from '@/server/commands/useCases/mergeMembers'
import { runCommand } from '@/server/commands/runCommand'
import { riderContext } from '@/server/pages/comfort/riderContext'
import { reasonsOf } from '@/server/pages/comfort/reasons'
import { setupPage } from '@/server/pages/setups/setup'
import type { Scope } from '@/server/platform/accounts/scope'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { memberPageData } from '@/server/pages/riders/memberPage'
import { openLink, ownerOf } from '@/server/riders/memberPage/links'
import { listLimits } from '@/server/riders/limits'
import { addMember } from '@/server/riders/members/members'
import { appendEvidence, finishSetup } from '@/server/setups/evidence'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const desk: Scope = { ...scope, userId: 'tove-sandry', role: 'desk' }
const id = () => crypto.randomUUID()
const now = new Date('2003-06-10T17:00:00Z')
afterAll(closeDatabase)

async function rider(): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name: `Limit ${memberId.slice(0, 6)}` }, now)
  return memberId
}
const record = (memberId: string, limit: Limit, { by = scope, consent = true, limitId = id() } = {}) =>
  runCommand(db, by, { name: 'members.recordLimit', id: limitId, input: { memberId, limit, consent } }, now)
const HEART: Limit = { kind: 'heart', since: '2003-01-01' }
const kindsOf = async (memberId: string) => (await listLimits(db, scope, [memberId])).map(({ limit }) => limit.kind)

test('a limit needs the rider’s consent and is stored once; the desk neither reads nor writes limits', async () => {
  const [memberId, limitId] = [await rider(), id()]
  expect(await record(memberId, HEART, { consent: false })).toMatchObject({ code: 'limitNeedsConsent' })
  expect(await record(memberId, HEART, { by: desk })).toMatchObject({ code: 'notAllowed' })
  expect(await record(memberId, HEART, { limitId })).toEqual({ outcome: 'kept' })
  expect(await record(memberId, HEART, { limitId })).toEqual({ outcome: 'kept' })
  expect(await kindsOf(memberId)).toEqual(['heart'])
  expect((await riderContext(db, desk, memberId, now)).lines).toEqual([])
})

test('a missing date, a future date and weeks past birth are refused with their reason', async () => {
  const memberId = await rider()
  for (const [limit, issue] of [
    [{ kind: 'heart', since: '2003-02-30' }, 'noDate'],
    [{ kind: 'heart', since: '2003-06-11' }, 'future'],
    [{ kind: 'pregnancy', weeks: 40, since: '2003-05-10' }, 'pastBirth'],
    [{ kind: 'injury', since: '2003-05-10' }, 'missing'],
  ] as const)
    expect(await record(memberId, limit)).toMatchObject({ code: 'badLimit', issue })
  expect(await record(memberId, { kind: 'heart' } as Limit)).toMatchObject({ code: 'malformed' })
  expect(await kindsOf(memberId)).toEqual([])
})

test('a new limit of a single kind ends the one before; a rider may have several injuries', async () => {
  const memberId = await rider()
  for (const rides of ['none', 'roadLow'] as const)
    await record(memberId, { kind: 'rides', rides, since: '2003-01-01' })
  for (const region of ['knee', 'back'] as const)
    await record(memberId, { kind: 'injury', region, side: 'left', since: '2003-01-01' })
  expect((await kindsOf(memberId)).sort()).toEqual(['injury', 'injury', 'rides'])
})

test('a heart condition stops every adviser until a clinician’s word; the bars stay up after it', async () => {
  const [memberId, setupId] = [await rider(), id()]
  const [bike] = await listBikes(db, scope)
  await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, now)
  await addComplaint(db, scope, { id: id(), memberId, what: 'hands', strength: 3 }, now)
  expect(JSON.stringify((await reasonsOf(db, scope, memberId, now)).answer)).not.toContain('heart')
  await record(memberId, HEART)
  expect((await stopsOf(db, scope, [memberId], now)).get(memberId)).toBe(
    'Heart condition: their clinician’s word first',
  )
  const page = await setupPage(db, scope, setupId, now)
  expect(page).toMatchObject({
    limits: { upright: 'heart' },
    context: { lines: expect.arrayContaining(['Heart condition']) },
  })
  const { answer } = await reasonsOf(db, scope, memberId, now)
  expect(JSON.stringify(answer)).toContain('heart')
  expect(answer?.change).toBeUndefined()

  await record(memberId, { ...HEART, clearedBy: 'Dr Amble' })
  expect((await stopsOf(db, scope, [memberId], now)).get(memberId)).not.toBe(
    'Heart condition: their clinician’s word first',
  )
  expect((await setupPage(db, scope, setupId, now))!.limits).toEqual({ upright: 'heart' })
})

test('an ended limit no longer acts, and acts again after undo; a merge carries limits over', async () => {
  const [memberId, other, limitId] = [await rider(), await rider(), id()]
  await record(memberId, HEART, { limitId })
  const send = (name: string) => runCommand(db, scope, { name, id: id(), input: { memberId, limitId } }, now)
  await send('members.endLimit')
  expect((await stopsOf(db, scope, [memberId], now)).size).toBe(0)
  await send('members.reopenLimit')
  expect((await stopsOf(db, scope, [memberId], now)).size).toBe(1)
  await mergeMembers(db, scope, { from: memberId, into: other }, now)
  expect(await kindsOf(other)).toEqual(['heart'])
})

test('a member with a heart condition is shown no marks to try alone, also after a clinician’s word', async () => {
  const [memberId, setupId] = [await rider(), id()]
  const bike = (await listBikes(db, scope)).find(({ lineId }) => lineId === 'sorrel')!
  const marks = { seatHeight: '8', seatSlide: 'C', barHeight: '5', barSlide: '2' }
  await startSetup(db, scope, { id: setupId, memberId, bikeId: bike.id }, now)
  const knee = { kind: 'kneeAngle', deg: 30, by: 'goniometer', at: marks } as const
  await appendEvidence(db, scope, setupId, { id: id(), row: knee }, now)
  await appendEvidence(db, scope, setupId, { id: id(), row: { kind: 'elbows', seen: 'soft', at: marks } }, now)
  await finishSetup(db, scope, setupId, { id: id(), marks }, now)
  const link = (await openLink(db, scope, memberId, now))!
  const shown = async () => {
    const { sets } = await memberPageData(db, (await ownerOf(db, link.token, now))!, now)
    return Object.keys(sets[0].tryAlone)
  }
  expect((await shown()).length).toBeGreaterThan(0)
  await record(memberId, { ...HEART, clearedBy: 'Dr Amble' })
  expect(await shown()).toEqual([])
})
