/** @jest-environment node */
import { count, eq, sql } from 'drizzle-orm'
import type { Scope } from '@/server/platform/accounts/scope'
import { assignBike, listAssignments } from '@/server/classes/assignments'
import { addClass } from '@/server/classes/classes'
import { followUp } from '@/server/classes/followUps'
import { listNotesOfMember } from '@/server/classes/notes'
import { bookRider, listRoster } from '@/server/classes/roster'
import { addRoomCue, classState } from '@/server/classes/watch'
import { addComplaint } from '@/server/comfort/complaints'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { member } from '@/server/riders/tables'
import { openLink } from '@/server/riders/memberPage/links'
import { addMember, changeMember, findMember, findMembers, mergedInto } from '@/server/riders/members/members'
import { mergeMembers, previewMerge } from '@/server/commands/useCases/mergeMembers'
import { findByWords } from '@/server/riders/members/words'
import { takeEntry } from '@/server/commands/takeEntry'
import { currentEntries, listEntries, recordEntry } from '@/server/setups/register'
import { listOpenSetups, startSetup } from '@/server/setups/setups'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
/** Long past, so that nothing here is of the demo's weeks. */
const now = new Date('2004-06-07T16:00:00Z')
const minutes = (n: number) => new Date(now.getTime() + n * 60_000)
const tag = id().slice(0, 6)
afterAll(closeDatabase)

async function rider(name = `Merge ${id().slice(0, 6)}`): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name }, now)
  return memberId
}
async function newClass(): Promise<string> {
  const classId = id()
  const span = { startsAt: minutes(-30), endsAt: minutes(30) }
  await addClass(db, scope, { id: classId, title: 'Merging', ...span, roomId: 'net-loft' }, now)
  return classId
}
const numbers = (memberId: string, seatHeight: string, purpose: 'usual' | 'road', createdAt: Date) =>
  recordEntry(
    db,
    scope,
    {
      id: id(),
      memberId,
      lineId: 'sorrel',
      typeId: 'sorrel',
      purpose,
      source: 'imported',
      certainty: 'told',
      marks: { seatHeight, seatSlide: 'C', barHeight: '5', barSlide: '2' },
      basis: {},
      sinceAt: createdAt,
    } as never,
    createdAt,
  )
/** Tables that name a member, as the database knows them. */
async function rowsOf(memberId: string): Promise<Record<string, number>> {
  const [tables] = (await db.execute(sql`SELECT table_name AS name FROM information_schema.columns
    WHERE table_schema = DATABASE() AND column_name = 'member_id'`)) as unknown as [{ name: string }[]]
  const found: Record<string, number> = {}
  for (const { name } of tables) {
    const [[{ n }]] = (await db.execute(
      sql`SELECT COUNT(*) AS n FROM ${sql.identifier(name)} WHERE member_id = ${memberId}`,
    )) as unknown as [[{ n: number }]]
    if (Number(n) > 0) found[name] = Number(n)
  }
  return found
}

test('a member entered twice is merged: every record moves, the later numbers hold, the old id leads on', async () => {
  const [from, into] = [await rider(`Ada Twice ${tag}`), await rider(`Ada Once ${tag}`)]
  const [both, alone] = [await newClass(), await newClass()]
  for (const [classId, memberId, bikeId] of [
    [both, from, 'bike-1'],
    [both, into, 'bike-2'],
    [alone, from, 'bike-1'],
  ] as const) {
    await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
    await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
  }
  await numbers(into, '6', 'usual', minutes(-20))
  await numbers(from, '7', 'usual', minutes(-10))
  await numbers(from, '8', 'road', minutes(-10))
  await startSetup(db, scope, { id: id(), memberId: from, bikeId: 'bike-1' }, now)
  await startSetup(db, scope, { id: id(), memberId: into, bikeId: 'bike-1' }, now)
  const note = {
    op: 'addNote' as const,
    memberId: from,
    bikeId: 'bike-1',
    classId: alone,
    sign: 'kneesIn',
    agrees: true,
  }
  const noted = { ...note, id: id(), side: 'both', author: scope.userId, madeAtMs: now.getTime(), cued: false }
  expect(await takeEntry(db, scope, noted as never, now)).toEqual({ outcome: 'kept' })
  await addComplaint(db, scope, { id: id(), memberId: from, what: 'frontKnee', strength: 4, quality: [] }, now)
  await openLink(db, scope, from, now)
  await addRoomCue(db, scope, {
    id: id(),
    classId: both,
    sign: 'kneesIn',
    cue: 'Knees out',
    concerned: [from, into],
    createdAt: now,
  })
  for (const classId of [both, alone])
    await followUp(
      db,
      scope,
      { classId, memberId: from, kind: 'noted' },
      { state: 'done', handedTo: null, said: 'knees' },
      now,
    )
  const before = { from: await rowsOf(from), into: await rowsOf(into) }
  expect(Object.keys(before.from).length).toBeGreaterThan(8)
  expect(await previewMerge(db, scope, { from, into })).toMatchObject({ setups: 1, numbers: 2, notes: 1, classes: 2 })

  expect(await mergeMembers(db, scope, { from, into }, now)).toEqual({ outcome: 'kept' })
  expect(await rowsOf(from)).toEqual({})
  expect(await findMember(db, scope, from)).toBeNull()
  expect(await mergedInto(db, scope, from)).toBe(into)
  expect(await findByWords(db, scope, `twice ${tag}`, 3)).toEqual([])
  const held = await currentEntries(db, scope, [into])
  expect(held.map(({ purpose, marks }) => [purpose, marks.seatHeight]).sort()).toEqual([
    ['road', '8'],
    ['usual', '7'],
  ])
  expect(await listEntries(db, scope, into)).toHaveLength(3)
  expect((await listAssignments(db, scope, both)).map(({ bikeId }) => bikeId)).toEqual(['bike-2'])
  expect((await listAssignments(db, scope, alone)).map(({ memberId }) => memberId)).toEqual([into])
  expect(await listRoster(db, scope, both)).toHaveLength(1)
  expect(await listNotesOfMember(db, scope, into)).toHaveLength(1)
  expect((await classState(db, scope, both)).cues[0].concerned).toEqual([into])
  expect(await listOpenSetups(db, scope, into)).toHaveLength(2)
  // A device that was away sends what it wrote down under the old id.
  expect(await takeEntry(db, scope, { ...noted, id: id() } as never, now)).toEqual({ outcome: 'kept' })
  expect(await listNotesOfMember(db, scope, into)).toHaveLength(2)
  expect(await mergeMembers(db, scope, { from, into }, now)).toEqual({ outcome: 'gone' })
})

test('every table that names a member is one the merge knows', async () => {
  const [tables] = (await db.execute(sql`SELECT DISTINCT table_name AS name FROM information_schema.key_column_usage
    WHERE table_schema = DATABASE() AND referenced_table_name = 'member'`)) as unknown as [{ name: string }[]]
  expect(tables.map(({ name }) => name).sort()).toEqual([
    'bike_assignment',
    'bike_assignment_log',
    'class_follow_up',
    'class_look',
    'class_note',
    'class_rider',
    'complaint',
    'consent',
    'mark_move',
    'member_link',
    'member_merge',
    'member_message',
    'member_word',
    'programme',
    'register_current',
    'register_entry',
    'rider_file',
    'rider_limit',
    'rider_plan',
    'setup',
    'trial',
  ])
})

test('nobody is merged into themselves, nor with a member of another studio; two at once merge once', async () => {
  const [from, into] = [await rider(), await rider()]
  expect(await mergeMembers(db, scope, { from, into: from }, now)).toEqual({ outcome: 'same' })
  const other: Scope = { ...scope, studioId: 'nowhere' }
  expect(await mergeMembers(db, other, { from, into }, now)).toEqual({ outcome: 'gone' })
  const asked = [1, 2].map(() => mergeMembers(db, scope, { from, into }, now))
  expect((await Promise.all(asked)).map(({ outcome }) => outcome).sort()).toEqual(['gone', 'kept'])
})

test('a member is renamed and described; the slower of two is rejected, and a number is one member’s', async () => {
  const memberId = await rider(`Wrong ${tag}`)
  const from = (await findMember(db, scope, memberId))!
  const to = { name: `Right ${tag}`, number: `R-${tag}`, email: 'right@example.org', statureMm: 1700 }
  expect(await changeMember(db, scope, from, to)).toEqual({ outcome: 'kept' })
  expect(await changeMember(db, scope, from, to)).toEqual({ outcome: 'kept' })
  expect(await findMember(db, scope, memberId)).toEqual({ id: memberId, ...to })
  expect((await findByWords(db, scope, `right ${tag}`, 2)).map((one) => one.id)).toEqual([memberId])
  expect(await findByWords(db, scope, `wrong ${tag}`, 2)).toEqual([])
  expect((await findMembers(db, scope, ` r-${tag} `, 5)).map((one) => one.id)).toEqual([memberId])
  expect(await changeMember(db, scope, from, { ...to, name: 'Other' })).toEqual({ outcome: 'changed' })
  const second = (await findMember(db, scope, await rider()))!
  expect(await changeMember(db, scope, second, { ...second, number: `r-${tag}` })).toEqual({ outcome: 'numberTaken' })
  const [{ n }] = await db
    .select({ n: count() })
    .from(member)
    .where(eq(member.number, `R-${tag}`))
  expect(n).toBe(1)
})
