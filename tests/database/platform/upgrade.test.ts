/** @jest-environment node */
import { eq } from 'drizzle-orm'
import { readFileSync } from 'node:fs'
import { PEOPLE } from '@/scripts/netloftHall'
import { accountsThatOpen } from '@/scripts/support/demoAccounts'
import type { Scope } from '@/server/platform/accounts/scope'
import { settleOpenFloors } from '@/server/classes/openFloors'
import { closeDatabase, connectionPool, database } from '@/server/platform/db/connection'
import { user } from '@/server/platform/accounts/tables'
import { studioClass } from '@/server/classes/rooms/tables'
import { memberLink } from '@/server/riders/memberPage/tables'
import { openLink } from '@/server/riders/memberPage/links'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }

afterAll(closeDatabase)

test('open floors of days from before there were classes get the studio’s own day, once', async () => {
  const id = crypto.randomUUID()
  const day = '2026-07-03'
  await db.insert(studioClass).values({
    id,
    studioId: scope.studioId,
    title: 'Open floor',
    startsAt: new Date(`${day}T00:00:00Z`),
    endsAt: new Date(`${day}T23:59:59Z`),
    source: 'open',
    openDay: day,
    createdAt: new Date(`${day}T10:00:00Z`),
  })
  expect(await settleOpenFloors(db)).toBe(1)
  expect(await settleOpenFloors(db)).toBe(0)
  // Summer time: midnight there is at 22:00 UTC of the day before.
  expect((await db.select().from(studioClass).where(eq(studioClass.id, id)))[0]).toMatchObject({
    startsAt: new Date('2026-07-02T22:00:00Z'),
    endsAt: new Date('2026-07-03T22:00:00Z'),
  })
  await db.delete(studioClass).where(eq(studioClass.id, id))
})

test('the start lists accounts that open this studio, with the role they have here', async () => {
  const [first, second, third] = PEOPLE
  const asked = [first, { ...second, password: 'changed since' }, { ...third, username: 'not-here' }]
  expect(await accountsThatOpen(db, asked)).toEqual([
    { username: first.username, password: first.password, role: first.role },
  ])
  await db.update(user).set({ role: 'instructor' }).where(eq(user.id, first.id))
  expect(await accountsThatOpen(db, [first])).toMatchObject([{ role: 'instructor' }])
  await db.update(user).set({ role: first.role }).where(eq(user.id, first.id))
})

test('a link that somebody at the desk had made opens the numbers alone after the upgrade', async () => {
  const link = (await openLink(db, scope, 'member-02', new Date()))!
  const desk = PEOPLE.find(({ role }) => role === 'desk')!
  await db.update(memberLink).set({ createdBy: desk.id }).where(eq(memberLink.id, link.id))
  const statements = readFileSync('server/platform/db/migrations/0013_runs.sql', 'utf8').split(
    '--> statement-breakpoint',
  )
  for (let i = 0; i < 2; i++) await connectionPool().query(statements.at(-1)!)
  const opens = async () => (await db.select().from(memberLink).where(eq(memberLink.id, link.id)))[0].opens
  expect(await opens()).toBe('numbers')
  await db.delete(memberLink).where(eq(memberLink.id, link.id))
})
