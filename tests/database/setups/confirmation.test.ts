/** @jest-environment node */
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import { openEmptyStudio, type EmptyStudio } from '@/scripts/support/emptyStudio'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { writeVersion } from '@/server/bikes/versions'
import { addClass, findClass } from '@/server/classes/classes'
import { assignBike } from '@/server/classes/assignments'
import { runCommand } from '@/server/commands/runCommand'
import { today } from '@/server/pages/classes/today'
import { watchData } from '@/server/pages/classes/watch'
import { riderPage } from '@/server/pages/riders/rider'
import { can } from '@/server/platform/accounts/can'
import type { Scope } from '@/server/platform/accounts/scope'
import { user } from '@/server/platform/accounts/tables'
import type { Database } from '@/server/platform/db/connection'
import { addMember } from '@/server/riders/members/members'
import { listWaitingNumbers } from '@/server/setups/confirmation'
import { currentEntries } from '@/server/setups/register'
import { startSetup } from '@/server/setups/setups'

jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

/** A studio of its own: Today of the hall is full of what other tests leave open. */
let far: EmptyStudio
let db: Database
let manager: Scope
let trainee: Scope
const id = () => crypto.randomUUID()
const now = new Date('2004-08-02T17:00:00Z')
const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' }
let bikeId: string

beforeAll(async () => {
  far = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_confirmation_${process.pid}`)
  ;({ db, scope: manager } = far)
  trainee = { ...manager, userId: crypto.randomUUID(), role: 'trainee' }
  const { userId, studioId, role } = trainee
  await db.insert(user).values({ id: userId, name: 'Tam Learner', email: `${userId}@hall.example`, studioId, role })
  const document = { bikeType: HOLES_BIKE, equipment: DEFAULT_EQUIPMENT }
  const type = await writeVersion(db, manager, { id: id(), baseId: null, document }, now)
  if (type.outcome !== 'kept') throw new Error(type.outcome)
  await addBikes(db, manager, type.lineId, [961])
  bikeId = (await listBikes(db, manager)).find(({ number }) => number === 961)!.id
})
afterAll(() => far.close())

const send = (by: Scope, name: string, input: object, at = now) => runCommand(db, by, { name, id: id(), input }, at)
async function setUpBy(by: Scope): Promise<string> {
  const [memberId, setupId] = [id(), id()]
  await addMember(db, by, { id: memberId, name: `Learned ${memberId.slice(0, 6)}` }, now)
  await startSetup(db, by, { id: setupId, memberId, bikeId }, now)
  expect(await send(by, 'setups.finishSetup', { setupId, marks })).toMatchObject({ outcome: 'kept' })
  return memberId
}
const entry = async (memberId: string) => (await currentEntries(db, manager, [memberId]))[0]
const waits = async (memberId: string) =>
  (await listWaitingNumbers(db, manager)).filter((one) => one.memberId === memberId).map(({ by }) => by)

test('a trainee sets up, adds and notes, and neither plans, inspects, manages nor confirms', () => {
  expect(['setUpRiders', 'writeNotes', 'addMembers', 'seeNotes'].every((one) => can(trainee, one as never))).toBe(true)
  const not = ['planClasses', 'inspectBikes', 'manageBikes', 'manageStudio', 'managePrivacy', 'confirmNumbers']
  expect(not.filter((one) => can(trainee, one as never))).toEqual([])
})

test('what a trainee saved waits for a second person: on the rider’s page and on Today', async () => {
  const memberId = await setUpBy(trainee)
  const { id: entryId } = await entry(memberId)
  expect((await entry(memberId)).awaitsConfirmation).toBe(true)
  expect(await waits(memberId)).toEqual(['Tam Learner'])
  const isDue = async (by: Scope) =>
    (await today(db, by, now)).due.some((one) => one.memberId === memberId && one.subject.kind === 'confirm')
  expect([await isDue(manager), await isDue(trainee)]).toEqual([true, false])
  expect((await riderPage(db, manager, memberId, now))!.confirms).toBe(true)
  expect(await send(trainee, 'register.confirmNumbers', { entryId })).toMatchObject({ code: 'notAllowed' })
  // Made an instructor since, they still cannot confirm what they saved themselves.
  const since: Scope = { ...trainee, role: 'instructor' }
  expect(await send(since, 'register.confirmNumbers', { entryId })).toMatchObject({ code: 'confirmByAnother' })
  expect(await send(manager, 'register.confirmNumbers', { entryId: id() })).toMatchObject({ code: 'noSuchNumbers' })
  for (let i = 0; i < 2; i++)
    expect(await send(manager, 'register.confirmNumbers', { entryId })).toMatchObject({ outcome: 'kept' })
  expect([(await entry(memberId)).awaitsConfirmation, await waits(memberId), await isDue(manager)]).toEqual([
    false,
    [],
    false,
  ])
})

test('a look at the numbers in class confirms them, unless it is the trainee’s own look', async () => {
  const [memberId, classId] = [await setUpBy(trainee), id()]
  expect((await entry(await setUpBy(manager))).awaitsConfirmation).toBe(false)
  const startsAt = new Date(now.getTime() + 86_400_000)
  const endsAt = new Date(startsAt.getTime() + 2_700_000)
  await addClass(db, manager, { id: classId, title: 'Learned Ride', startsAt, endsAt, roomId: null }, now)
  await assignBike(db, manager, { id: id(), classId, bikeId, memberId }, now)
  const ofClass = (await findClass(db, manager, classId))!
  const tile = async () =>
    (await watchData(db, manager, ofClass, startsAt)).bikes.find(({ rider }) => rider?.id === memberId)!
  expect((await tile()).toCheck).toBe(true)
  const look = { classId, memberId, bikeId, numbers: true }
  await send(trainee, 'notes.addLook', look, startsAt)
  expect((await entry(memberId)).awaitsConfirmation).toBe(true)
  expect(await send(manager, 'notes.addLook', look, startsAt)).toMatchObject({ outcome: 'kept' })
  expect((await entry(memberId)).awaitsConfirmation).toBe(false)
  expect((await tile()).toCheck).toBe(false)
})
