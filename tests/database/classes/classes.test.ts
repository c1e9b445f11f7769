/** @jest-environment node */
import type { Scope } from '@/server/platform/accounts/scope'
import { assignBike, listAssignments } from '@/server/classes/assignments'
import { importTimetable } from '@/server/classes/importTimetable'
import { addClass, addClasses, changeClass, findClass, listClasses } from '@/server/classes/classes'
import { subscribeToClass, type ClassEvent } from '@/server/classes/live'
import { PLAIN_ROOM, planClass } from '@/server/classes/planning'
import { replanClass, restorePlaces } from '@/server/classes/replan'
import { floorBefore } from '@/server/pages/classes/floor'
import { bookRider, changeRider, lastBikes, listRoster } from '@/server/classes/roster'
import { classState } from '@/server/classes/watch'
import { watchData } from '@/server/pages/classes/watch'
import { listTypes, writeVersion } from '@/server/bikes/versions'
import { recordEntry } from '@/server/setups/register'
import { DEFAULT_EQUIPMENT } from '@/core/bikes/bike/equipment'
import { HOLES_BIKE } from '@/core/testing/meanRider'
import type { BikeType } from '@/core/bikes/bike/bike'
import { afterEntries, type MadeEntry } from '@/core/classes/watch/classState'
import { recordInspection } from '@/server/bikes/inspections'
import { closeDatabase, database, type DbExecutor } from '@/server/platform/db/connection'
import { giveConsent } from '@/server/riders/consent'
import { addMember } from '@/server/riders/members/members'
import { partId } from '@/server/platform/ids'
import { dayAfter, momentAt } from '@/server/studio/day'
import { takeEntry } from '@/server/commands/takeEntry'
import { addBikes, listBikes } from '@/server/bikes/bikes'
import { dispatch } from '@/core/operations/dispatch'
import { compute } from '@/server/platform/compute/pool'
import { deleteRoom, findRoom, listPlaces, saveRoom } from '@/server/classes/rooms/rooms'

jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))
jest.mock('@/server/platform/compute/pool', () => ({
  compute: jest.fn(jest.requireActual<typeof import('../support/computeHere')>('../support/computeHere').compute),
}))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const id = () => crypto.randomUUID()
const now = new Date('2027-03-01T16:00:00Z')
const minutes = (n: number) => new Date(now.getTime() + n * 60_000)

afterAll(closeDatabase)

async function newMember(name = `Floor ${id().slice(0, 8)}`): Promise<string> {
  const memberId = id()
  await addMember(db, scope, { id: memberId, name }, now)
  await giveConsent(db, scope, memberId, 'spoken', now)
  return memberId
}
/** A room of its own with these bikes, and a class in it half an hour from now. */
async function newClass(bikeIds: readonly string[]): Promise<string> {
  const [roomId, classId] = [id(), id()]
  const places = bikeIds.map((bikeId, i) => ({ bikeId, xM: 2 + 1.2 * i, yM: 3, headingDeg: 0 }))
  await saveRoom(db, scope, { id: roomId, name: `Room ${roomId.slice(0, 8)}`, plan: PLAIN_ROOM, places }, now)
  const asked = { id: classId, title: 'Test Ride', startsAt: minutes(30), endsAt: minutes(75), roomId }
  expect(await addClass(db, scope, asked, now)).toEqual({ outcome: 'kept' })
  return classId
}
async function newBikes(numbers: readonly number[]): Promise<string[]> {
  expect(await addBikes(db, scope, 'sorrel', numbers)).toEqual({ outcome: 'kept' })
  const all = await listBikes(db, scope)
  return numbers.map((number) => all.find((bike) => bike.number === number)!.id)
}
const documentOf = (bikeType: BikeType) => ({ bikeType, equipment: DEFAULT_EQUIPMENT })
const seats = async (classId: string) =>
  new Map((await listAssignments(db, scope, classId)).map(({ bikeId, memberId }) => [memberId, bikeId]))

describe('bringing in', () => {
  const calendar = (...events: string[][]) =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      ...events.flatMap((lines) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
      'END:VCALENDAR',
    ].join('\r\n')
  const bring = (text: string, take = true) => importTimetable(db, scope, { text, timeZone: 'Europe/Oslo', take }, now)

  test('a calendar: the same again changes nothing, what moved follows, what was called off is marked', async () => {
    const uid = id()
    const weekly = [
      `UID:${uid}`,
      'SUMMARY:Weekly',
      'DTSTART;TZID=Europe/Oslo:20270302T180000',
      'DURATION:PT45M',
      'RRULE:FREQ=WEEKLY;COUNT=6',
    ]
    const broken = ['UID:broken', 'SUMMARY:No start']
    const looked = await bring(calendar(weekly, broken), false)
    expect(looked).toMatchObject({ taken: null, faults: [expect.stringMatching(/^Line \d+: this event has no start/)] })
    expect(looked.found).toHaveLength(6)
    const span = [new Date('2027-03-01T00:00:00Z'), new Date('2027-05-01T00:00:00Z')] as const
    const own = async () => (await listClasses(db, scope, ...span)).filter(({ title }) => title.startsWith('Weekly'))
    expect(await own()).toEqual([])
    expect((await bring(calendar(weekly))).taken).toMatchObject({ added: 6, changed: 0, unchanged: 0, cancelled: 0 })
    // Summer time begins on 28 March: six on the studio's clock is an hour earlier by then.
    expect((await own()).map(({ startsAt }) => startsAt.toISOString().slice(5, 16))).toEqual([
      '03-02T17:00',
      '03-09T17:00',
      '03-16T17:00',
      '03-23T17:00',
      '03-30T16:00',
      '04-06T16:00',
    ])
    expect((await bring(calendar(weekly))).taken).toMatchObject({ added: 0, changed: 0, unchanged: 6 })
    const renamed = weekly.map((line) => line.replace('SUMMARY:Weekly', 'SUMMARY:Weekly, longer'))
    const off = [
      `UID:${uid}`,
      'RECURRENCE-ID;TZID=Europe/Oslo:20270309T180000',
      'DTSTART;TZID=Europe/Oslo:20270309T180000',
      'STATUS:CANCELLED',
      'SUMMARY:Weekly',
    ]
    expect((await bring(calendar(renamed, off))).taken).toMatchObject({ changed: 5, cancelled: 1 })
    expect((await own()).filter(({ cancelledAt }) => cancelledAt !== null)).toHaveLength(1)
  })

  test('a list: bookings by name, and everything that cannot be read reported by its line', async () => {
    const name = `Runa Listed ${id().slice(0, 6)}`
    const twice = `Twin ${id().slice(0, 6)}`
    const memberId = await newMember(name)
    await newMember(twice)
    await newMember(twice)
    const list = [
      'day;start;minutes;class;room;name;comes',
      `2027-03-04;18:00;45;Listed ${name};;${name};15`,
      `2027-03-04;18:00;45;Listed ${name};;${name};15`,
      `2027-03-04;18:00;45;Listed ${name};;Nobody Here;`,
      `2027-03-04;18:00;45;Listed ${name};;${twice};`,
      '2027-02-30;18:00;45;Impossible day;;;',
      '2027-03-04;25:00;45;Impossible hour;;;',
      '2027-03-04;18:00;2;Too short;;;',
      '2027-03-04;18:00;45;;;;',
    ].join('\n')
    const { taken, faults } = await bring(list)
    expect(taken).toMatchObject({ added: 1, booked: 1 })
    expect(faults.map((fault) => Number(/^Line (\d+)/.exec(fault)![1])).sort((a, b) => a - b)).toEqual([
      3, 4, 5, 6, 7, 8, 9,
    ])
    const [made] = (await listClasses(db, scope, now, minutes(10_000))).filter(
      ({ title }) => title === `Listed ${name}`,
    )
    expect(await listRoster(db, scope, made.id)).toMatchObject([{ memberId, state: 'booked', comesMinBefore: 15 }])
    // Whoever is in the room stays so, whatever a list says once more.
    await changeRider(db, scope, made.id, [memberId], { state: 'here' })
    await bring(list)
    expect(await listRoster(db, scope, made.id)).toMatchObject([{ memberId, state: 'here' }])
    expect((await bring('who,what\nx,y')).faults).toEqual([expect.stringMatching(/has no column “day”/)])
    expect((await bring('BEGIN:VCALENDAR\nthis is no calendar')).found).toEqual([])
  })
})

test('classes of several weeks keep their time on the studio’s clock, and come all or none', async () => {
  const first = id()
  const weekly = (n: number) => {
    const startsAt = momentAt(dayAfter('2027-10-21', 7 * n), '18:00', 'Europe/Oslo')
    const endsAt = new Date(startsAt.getTime() + 2_700_000)
    return { id: n === 0 ? first : partId(first, n), title: `Weekly ${first}`, startsAt, endsAt, roomId: null }
  }
  const own = async () =>
    (await listClasses(db, scope, new Date('2027-10-01T00:00:00Z'), new Date('2027-12-01T00:00:00Z'))).filter(
      ({ title }) => title === `Weekly ${first}`,
    )
  // The second week's id stands for something else already: nothing of it is kept.
  await addClass(db, scope, { ...weekly(1), title: 'Other' }, now)
  expect(await addClasses(db, scope, [0, 1, 2].map(weekly), now)).toEqual({ outcome: 'idTaken' })
  expect(await own()).toEqual([])
  const three = [0, 2, 3].map(weekly)
  for (let again = 0; again < 2; again++) expect(await addClasses(db, scope, three, now)).toEqual({ outcome: 'kept' })
  // Summer time ends on 31 October.
  expect((await own()).map(({ startsAt }) => startsAt.getUTCHours())).toEqual([16, 17, 17])
})

describe('places', () => {
  test('everybody gets a bike; pins and who is here stay, who called off gets up, the rest is solved', async () => {
    const bikes = await newBikes([1901, 1902, 1903])
    const classId = await newClass(bikes)
    const [a, b, c, d] = [await newMember(), await newMember(), await newMember(), await newMember()]
    for (const [memberId, comesMinBefore] of [
      [a, 20],
      [b, 15],
      [c, 10],
      [d, 5],
    ] as const)
      expect(await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore }, now)).toBe(true)
    expect(await replanClass(db, scope, classId, now)).toMatchObject({ outcome: 'kept', extraMin: null, moved: [] })
    let where = await seats(classId)
    expect(new Set(where.values()).size).toBe(3)
    const { plan, needs } = await planClass(db, scope, (await findClass(db, scope, classId))!, now)
    expect(plan!.unplaced).toMatchObject([{ why: expect.stringMatching(/more riders than bikes/) }])
    expect([...needs.values()]).toEqual(['new', 'new', 'new', 'new'])
    expect(plan!.queue).toHaveLength(3)
    // Nobody begins before the doors, nor before they come.
    expect(Math.min(...plan!.queue.map(({ fromMin }) => fromMin))).toBeGreaterThanOrEqual(-20)

    const [seated] = where.keys()
    const other = bikes.find((bike) => bike !== where.get(seated))!
    await changeRider(db, scope, classId, [seated], { pinnedBikeId: other })
    await replanClass(db, scope, classId, now)
    where = await seats(classId)
    expect(where.get(seated)).toBe(other)
    expect(where.size).toBe(3)

    const stays = [...where.keys()].find((memberId) => memberId !== seated)!
    const at = where.get(stays)
    await changeRider(db, scope, classId, [stays], { state: 'here' })
    await changeRider(db, scope, classId, [seated], { state: 'cancelled', pinnedBikeId: null })
    await replanClass(db, scope, classId, now)
    where = await seats(classId)
    expect(where.get(stays)).toBe(at)
    expect(where.has(seated)).toBe(false)
    expect(where.size).toBe(3)
    expect((await planClass(db, scope, (await findClass(db, scope, classId))!, now)).plan!.unplaced).toEqual([])
    expect(await replanClass(db, scope, 'no-class', now)).toEqual({ outcome: 'gone' })
  })

  test('a change and its places are stored both or neither, with what they cost more', async () => {
    const [first, second] = await newBikes([1961, 1962])
    const classId = await newClass([first, second])
    const memberId = await newMember()
    await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
    await replanClass(db, scope, classId, now)
    const at = (await seats(classId)).get(memberId)!
    const wish = (tx: DbExecutor) => changeRider(tx, scope, classId, [memberId], { rowWish: 'back' })
    const asked = async (tx: DbExecutor) => {
      await wish(tx)
      return 'not so' as const
    }
    expect(await replanClass(db, scope, classId, now, { change: asked })).toEqual({ outcome: 'refused', why: 'not so' })
    expect(await listRoster(db, scope, classId)).toMatchObject([{ rowWish: null }])
    const other = at === first ? second : first
    const pinned = await replanClass(db, scope, classId, now, {
      change: async (tx) => {
        await changeRider(tx, scope, classId, [memberId], { pinnedBikeId: other })
        return null
      },
    })
    expect(pinned).toMatchObject({ outcome: 'kept', extraMin: expect.any(Number), moved: [{ memberId }] })
    expect((await seats(classId)).get(memberId)).toBe(other)
  })

  test('computes without a lock, and again where a rider came meanwhile', async () => {
    const bikes = await newBikes([2063, 2064])
    const classId = await newClass(bikes)
    const [first, late] = [await newMember(), await newMember()]
    await bookRider(db, scope, { classId, memberId: first, state: 'booked', comesMinBefore: 10 }, now)
    const computed = jest.mocked(compute)
    computed.mockImplementationOnce(async (operation, request) => {
      // On another connection: with the class locked this would wait until the lock times out.
      const booked = { id: id(), classId, bikeId: bikes[0], memberId: late }
      await bookRider(db, scope, { classId, memberId: late, state: 'here', comesMinBefore: 5 }, now)
      expect(await assignBike(db, scope, booked, now)).toEqual({ outcome: 'kept' })
      return dispatch(operation, request)
    })
    const before = computed.mock.calls.length
    expect(await replanClass(db, scope, classId, now)).toMatchObject({ outcome: 'kept' })
    expect(computed.mock.calls.length - before).toBe(2)
    expect(await seats(classId)).toEqual(
      new Map([
        [late, bikes[0]],
        [first, bikes[1]],
      ]),
    )
  })

  test('put where somebody here sits, or a bike out of use: who sat there is placed again, and named', async () => {
    const bikes = await newBikes([1966, 1967, 1968, 1969])
    const classId = await newClass(bikes)
    const [sits, comes] = [await newMember(), await newMember()]
    await bookRider(db, scope, { classId, memberId: sits, state: 'here', comesMinBefore: 10 }, now)
    await replanClass(db, scope, classId, now)
    const at = (await seats(classId)).get(sits)!
    const put = await replanClass(db, scope, classId, now, {
      change: async (tx) => {
        await bookRider(tx, scope, { classId, memberId: comes, state: 'here', comesMinBefore: 5 }, now)
        await changeRider(tx, scope, classId, [comes], { pinnedBikeId: at })
        return null
      },
    })
    let where = await seats(classId)
    expect(where.get(comes)).toBe(at)
    expect(where.get(sits)).toBeDefined()
    expect(put).toMatchObject({ moved: [{ memberId: sits, number: expect.any(Number) }] })
    // The pinned bike breaks, and so does the one that somebody here sits on.
    const broken = [at, where.get(sits)!]
    for (const bikeId of broken) {
      const faults = [{ id: id(), item: 'pins' as const, note: 'Slips' }]
      expect(await recordInspection(db, scope, { id: id(), bikeId, good: [], faults }, now)).toEqual({
        outcome: 'kept',
      })
    }
    const anew = await replanClass(db, scope, classId, now)
    where = await seats(classId)
    expect(where.size).toBe(2)
    expect([...where.values()].filter((bikeId) => broken.includes(bikeId))).toEqual([])
    expect(anew.outcome === 'kept' && anew.moved.map(({ memberId }) => memberId).sort()).toEqual([sits, comes].sort())
  })

  test('from the doors on nobody moves without a request; undo restores seats and list', async () => {
    const bikes = await newBikes([1981, 1982, 1983, 1984])
    const classId = await newClass(bikes)
    const doorsOpen = minutes(15)
    const [a, b, walkIn] = [await newMember(), await newMember(), await newMember()]
    // Against every wish: a new plan would move both.
    for (const [memberId, bikeId, rowWish] of [
      [a, bikes[3], 'front'],
      [b, bikes[0], 'back'],
    ] as const) {
      await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
      await changeRider(db, scope, classId, [memberId], { rowWish })
      await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
    }
    const before = await seats(classId)
    const add = {
      change: async (tx: DbExecutor) => {
        await bookRider(tx, scope, { classId, memberId: walkIn, state: 'here', comesMinBefore: 15 }, now)
        return null
      },
    }
    const done = await replanClass(db, scope, classId, doorsOpen, add)
    if (done.outcome !== 'kept') throw new Error(done.outcome)
    expect(done.moved).toEqual([])
    expect(await seats(classId)).toEqual(new Map([...before, [walkIn, expect.any(String)]]))

    expect(await restorePlaces(db, scope, classId, done.undo, doorsOpen)).toBe('kept')
    expect(await seats(classId)).toEqual(before)
    expect((await listRoster(db, scope, classId)).map(({ memberId }) => memberId).sort()).toEqual([a, b].sort())
    // Once more: the places are no longer those that the change left.
    expect(await restorePlaces(db, scope, classId, done.undo, doorsOpen)).toBe('changed')
    // A bike or member of nobody here.
    const foreign = { ...done.undo, seats: [['no-bike', a]] as const, after: done.undo.seats }
    expect(await restorePlaces(db, scope, classId, foreign, doorsOpen)).toBe('gone')
    expect(await seats(classId)).toEqual(before)

    // On request everybody may move; a preview lists them and writes nothing.
    const pinned = await replanClass(db, scope, classId, now, {
      change: async (tx) => {
        await changeRider(tx, scope, classId, [a], { pinnedBikeId: bikes[0] })
        return null
      },
      preview: true,
    })
    expect(pinned).toMatchObject({ moved: expect.arrayContaining([expect.objectContaining({ memberId: b })]) })
    expect(await seats(classId)).toEqual(before)
    expect(await listRoster(db, scope, classId)).toMatchObject([{ pinnedBikeId: null }, { pinnedBikeId: null }])
  })

  test('the queue names the seat and offers another bike; once the class runs it is empty', async () => {
    const [first, second] = await newBikes([1986, 1987])
    const classId = await newClass([first, second])
    const [memberId, unplaced] = [await newMember(), await newMember()]
    for (const [one, at] of [
      [memberId, now],
      [unplaced, minutes(1)],
    ] as const)
      await bookRider(db, scope, { classId, memberId: one, state: 'booked', comesMinBefore: 15 }, at)
    await assignBike(db, scope, { id: id(), classId, bikeId: second, memberId }, now)
    const floor = async (at: Date) => floorBefore(db, scope, (await findClass(db, scope, classId))!, false, at)
    let shown = await floor(now)
    const itemOf = (who: string) => shown.queue.find((item) => item.memberId === who)
    expect(itemOf(memberId)).toMatchObject({ bikeId: second, number: 1987, isSeated: true, offer: null })
    expect(itemOf(unplaced)).toMatchObject({ bikeId: first, isSeated: false, offer: null })
    expect(shown.tiles.find(({ rider }) => rider?.id === memberId)!.rider!.because).not.toContain('put here by hand')
    // The seat breaks: the queue still names it, with the way off it.
    await assignBike(db, scope, { id: id(), classId, bikeId: first, memberId: null }, now)
    const faults = [{ id: id(), item: 'pins' as const, note: 'Slips' }]
    await recordInspection(db, scope, { id: id(), bikeId: second, good: [], faults }, now)
    shown = await floor(now)
    expect([itemOf(memberId), itemOf(unplaced)].filter((item) => item?.offer)).toEqual([
      expect.objectContaining({ number: 1987, offer: { bikeId: first, number: 1986, savesMin: null } }),
    ])
    // At minute 34 nobody is queued for a time that is past; everybody who sits counts as here.
    shown = await floor(minutes(30 + 34))
    expect(shown).toMatchObject({ queue: [], late: [], notSetUp: [expect.stringMatching(/^Floor/)] })
    expect(shown.tiles.find(({ rider }) => rider?.id === memberId)!.rider!.state).toBe('here')
  })

  test('numbers in an earlier version’s labels are carried over, and stop nobody’s plan', async () => {
    const bikes = await newBikes([1963])
    const classId = await newClass(bikes)
    const memberId = await newMember()
    const old = { ...HOLES_BIKE, name: `Old ${memberId.slice(0, 8)}` }
    const written = await writeVersion(db, scope, { id: id(), baseId: null, document: documentOf(old) }, now)
    if (written.outcome !== 'kept') throw new Error(written.outcome)
    const first = (await listTypes(db, scope)).find(({ lineId }) => lineId === written.lineId)!
    const marks = { seatHeight: '7', seatSlide: 'D', barHeight: '6', barSlide: '0' }
    const entry = { id: id(), memberId, lineId: first.lineId, typeId: first.id, marks }
    const kept = { ...entry, purpose: 'usual', source: 'imported', certainty: 'measured' } as const
    // As of today: the register keeps its order, and what other tests write after it must not lie in the future.
    await recordEntry(db, scope, kept, new Date())
    // The next version counts its seat's holes in letters: a 7 is no mark of it.
    const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ']
    const { scale } = old.axes.seatHeight
    if (!('marks' in scale)) throw new Error('holes')
    const renamed = scale.marks.map((mark, i) => ({ ...mark, label: letters[i] }))
    const next = {
      ...old,
      axes: { ...old.axes, seatHeight: { ...old.axes.seatHeight, scale: { ...scale, marks: renamed } } },
    }
    await writeVersion(db, scope, { id: id(), baseId: first.id, document: documentOf(next) }, now)
    await addBikes(db, scope, first.lineId, [1964])
    const all = await listBikes(db, scope)
    const newest = all.find(({ number }) => number === 1964)!
    const roomClass = await newClass([newest.id])
    await bookRider(db, scope, { classId: roomClass, memberId, state: 'booked', comesMinBefore: 10 }, now)
    await bookRider(db, scope, { classId, memberId, state: 'booked', comesMinBefore: 10 }, now)
    for (const which of [roomClass, classId]) {
      expect(await replanClass(db, scope, which, now)).toMatchObject({ outcome: 'kept' })
      const { plan } = await planClass(db, scope, (await findClass(db, scope, which))!, now, 'here')
      expect(plan!.pairs[0].because[0]).toMatch(/^numbers carried over from Old/)
    }
  })

  test('a floor may hold as many types as bikes', async () => {
    const written = Array.from({ length: 13 }, async (_, i) => {
      const document = documentOf({ ...HOLES_BIKE, name: `Of thirteen ${i} ${id().slice(0, 6)}` })
      const type = await writeVersion(db, scope, { id: id(), baseId: null, document }, now)
      if (type.outcome !== 'kept') throw new Error(type.outcome)
      expect(await addBikes(db, scope, type.lineId, [1820 + i])).toEqual({ outcome: 'kept' })
    })
    await Promise.all(written)
    const bikes = (await listBikes(db, scope)).filter(({ number }) => number >= 1820 && number < 1833)
    expect(bikes).toHaveLength(13)
    const classId = await newClass(bikes.map((one) => one.id))
    await bookRider(db, scope, { classId, memberId: await newMember(), state: 'booked', comesMinBefore: 10 }, now)
    expect(await replanClass(db, scope, classId, now)).toMatchObject({ outcome: 'kept' })
    expect((await seats(classId)).size).toBe(1)
  })

  test('placing the same again moves nobody; at once from six pages each bike still has one rider', async () => {
    const classId = await newClass(await newBikes([1911, 1912, 1913, 1914]))
    for (let i = 0; i < 4; i++)
      await bookRider(db, scope, { classId, memberId: await newMember(), state: 'booked', comesMinBefore: 10 + i }, now)
    await Promise.all(Array.from({ length: 6 }, () => replanClass(db, scope, classId, now)))
    const where = await seats(classId)
    expect([where.size, new Set(where.values()).size]).toEqual([4, 4])
    await replanClass(db, scope, classId, minutes(1))
    expect(await seats(classId)).toEqual(where)
  })

  test('the queue is that of now: what is past cannot be used, and after the start everybody is late', async () => {
    const classId = await newClass(await newBikes([1921, 1922]))
    for (let i = 0; i < 2; i++)
      await bookRider(db, scope, { classId, memberId: await newMember(), state: 'booked', comesMinBefore: 20 }, now)
    await replanClass(db, scope, classId, now)
    const planAt = async (at: Date) => (await planClass(db, scope, (await findClass(db, scope, classId))!, at)).plan!
    expect((await planAt(minutes(0))).late).toEqual([])
    const soon = await planAt(minutes(25))
    expect(soon.queue.map(({ fromMin }) => fromMin).sort((x, y) => x - y)[0]).toBe(-5)
    expect(soon.late.length).toBeGreaterThan(0)
    expect((await planAt(minutes(200))).late).toHaveLength(2)
    // A second pair of hands takes the second rider.
    await changeClass(db, scope, classId, { hands: 2 })
    expect((await planAt(minutes(22))).late).toEqual([])
  })

  test('the bike of last time is that of the latest class before this one', async () => {
    const bikes = await newBikes([1931, 1932])
    const memberId = await newMember()
    for (const [i, bikeId] of bikes.entries()) {
      const classId = await newClass(bikes.slice(i, i + 1))
      await changeClass(db, scope, classId, { startsAt: minutes(-1000 + 100 * i) })
      await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
    }
    expect((await lastBikes(db, scope, [memberId], now)).get(memberId)).toBe(bikes[1])
    expect((await lastBikes(db, scope, [memberId], minutes(-950))).get(memberId)).toBe(bikes[0])
  })
})

describe('rooms', () => {
  test('a bike stands in one room; a name is taken once; a room with classes stays', async () => {
    const [bikeId] = await newBikes([1941])
    const [first, second] = [id(), id()]
    const places = [{ bikeId, xM: 1, yM: 1, headingDeg: 90 }]
    const name = `Room ${first}`
    expect(await saveRoom(db, scope, { id: first, name, plan: PLAIN_ROOM, places }, now)).toEqual({ outcome: 'kept' })
    expect(await saveRoom(db, scope, { id: second, name, plan: PLAIN_ROOM, places: [] }, now)).toEqual({
      outcome: 'nameTaken',
    })
    const other = { id: second, name: `Room ${second}`, plan: PLAIN_ROOM, places }
    expect(await saveRoom(db, scope, other, now)).toEqual({ outcome: 'kept' })
    const stands = (await listPlaces(db, scope)).filter((place) => place.bikeId === bikeId)
    expect(stands).toMatchObject([{ roomId: second, headingDeg: 90 }])
    const twice = { ...other, places: [...places, ...places] }
    expect(await saveRoom(db, scope, twice, now)).toEqual({ outcome: 'gone' })
    const classId = id()
    await addClass(db, scope, { id: classId, title: 'x', startsAt: now, endsAt: minutes(30), roomId: second }, now)
    expect(await deleteRoom(db, scope, second)).toEqual({ outcome: 'inUse' })
    expect(await deleteRoom(db, scope, first)).toEqual({ outcome: 'kept' })
    expect(await findRoom(db, scope, first)).toBeNull()
  })
})

describe('what is noted', () => {
  const author = scope.userId
  const tell = (entry: object, at = now) =>
    takeEntry(db, scope, { author, madeAtMs: at.getTime(), id: id(), ...entry } as never, at)

  test('a note grows clear, is cued, holds; looks and room cues are separate; all is published', async () => {
    const [bikeId] = await newBikes([1951])
    const [classId, memberId, noteId] = [await newClass([bikeId]), await newMember(), id()]
    await bookRider(db, scope, { classId, memberId, state: 'here', comesMinBefore: 5 }, now)
    await changeRider(db, scope, classId, [memberId], { warmUp: true })
    const heard: ClassEvent[] = []
    const stop = subscribeToClass(classId, (news) => heard.push(news))
    const on = { classId, memberId, bikeId }
    const note = { op: 'addNote', id: noteId, ...on, sign: 'kneesOut', side: 'left', minute: 14, posture: 'seated' }
    for (const entry of [note, note]) expect(await tell(entry)).toEqual({ outcome: 'kept' })
    const change = { op: 'changeNote', classId, noteId, change: { strength: 'clear', cued: true } }
    expect(await tell(change)).toEqual({ outcome: 'kept' })
    expect(await tell({ ...change, change: { held: true } }, minutes(2))).toEqual({ outcome: 'kept' })
    const felt = { op: 'addNote', ...on, sign: 'felt', region: 'feltLowBack', side: 'both', score: 6 }
    expect(await tell(felt, minutes(3))).toEqual({ outcome: 'kept' })
    const flag = { op: 'addNote', ...on, sign: 'redFlag', region: 'chest', side: 'both' }
    expect(await tell(flag, minutes(4))).toEqual({ outcome: 'kept' })
    expect(await tell({ op: 'addLook', ...on, numbers: true })).toEqual({ outcome: 'kept' })
    const said = { op: 'addRoomCue', classId, sign: 'kneesOut', cue: 'Toes ahead.', concerned: [memberId] }
    expect(await tell(said)).toEqual({ outcome: 'kept' })
    // A device that was away: what it saw earlier arrives later, and changes nothing of the later look.
    const away = { ...change, change: { held: false }, madeAtMs: minutes(1).getTime(), sentAtMs: minutes(5).getTime() }
    expect(await tell(away, minutes(5))).toEqual({ outcome: 'kept' })
    expect(await tell({ ...change, change: {} }, minutes(6))).toEqual({ outcome: 'kept' })
    // Others are told what was read, and nothing else that was sent.
    const odd = { strength: 'huge', posture: 'lying', minute: 1e9, score: 99, html: '<b>' }
    expect(await tell({ ...note, id: id(), ...odd }, minutes(7))).toEqual({ outcome: 'kept' })
    stop()
    expect(heard).toHaveLength(10)
    expect(heard.at(-1)).toMatchObject({ entry: { op: 'addNote', sign: 'kneesOut', cued: false } })
    expect(Object.keys((heard.at(-1) as MadeEntry).entry).sort()).toEqual(
      ['bikeId', 'classId', 'cued', 'memberId', 'op', 'region', 'side', 'sign'].sort(),
    )
    expect(JSON.stringify(heard)).not.toContain(author)
    const state = await classState(db, scope, classId)
    expect(state.notes).toMatchObject([
      {
        id: noteId,
        sign: 'kneesOut',
        strength: 'clear',
        cued: true,
        held: true,
        heldAtMs: minutes(2).getTime(),
        minute: 14,
      },
      { sign: 'felt', region: 'feltLowBack', score: 6 },
      { sign: 'redFlag', region: 'chest', score: null },
      { sign: 'kneesOut', strength: null, minute: null, score: null },
    ])
    // The state that a device made of what it heard is the one that a new page is told.
    expect(afterEntries({ notes: [], looks: [], cues: [], moves: [] }, heard as MadeEntry[])).toEqual(state)
    expect(state.looks).toMatchObject([{ memberId, numbers: true }])
    expect(state.cues).toMatchObject([{ sign: 'kneesOut', concerned: [memberId] }])
  })

  test('numbers count as looked at once somebody records it, also for riders on no list', async () => {
    const [bikeId] = await newBikes([1953])
    const [classId, memberId] = [await newClass([bikeId]), await newMember()]
    await assignBike(db, scope, { id: id(), classId, bikeId, memberId }, now)
    const toCheck = async () => {
      const { bikes } = await watchData(db, scope, (await findClass(db, scope, classId))!, now)
      return bikes.find((bike) => bike.bikeId === bikeId)?.toCheck
    }
    const look = { op: 'addLook', classId, memberId, bikeId }
    expect(await toCheck()).toBe(true)
    await tell(look)
    expect(await toCheck()).toBe(true)
    await tell({ ...look, numbers: true })
    expect(await toCheck()).toBe(false)
  })

  test('a clock that runs wrong is set right by when it sent; without one it is trusted within limits', async () => {
    const [bikeId] = await newBikes([1952])
    const [classId, memberId] = [await newClass([bikeId]), await newMember()]
    const note = { op: 'addNote', classId, memberId, bikeId, sign: 'rocking', side: 'both' }
    // Seen ten minutes before it was sent, by a clock that is two days behind.
    const behind = now.getTime() - 2 * 86_400_000
    await tell({ ...note, madeAtMs: behind - 600_000, sentAtMs: behind })
    await tell({ ...note, madeAtMs: now.getTime() + 5_000_000, sentAtMs: now.getTime() + 5_060_000 })
    await tell({ ...note, madeAtMs: Number.NaN })
    const at = (await classState(db, scope, classId)).notes.map(({ atMs }) => (atMs - now.getTime()) / 60_000)
    expect(at.sort((a, b) => a - b)).toEqual([-10, -1, 0])
  })

  test.each([
    ['no such class', { op: 'addNote', classId: 'nowhere', sign: 'kneesOut', side: 'left' }, 'noClass'],
    ['a region that is none', { op: 'addNote', sign: 'felt', region: 'tail', side: 'left', score: 3 }, 'unknownSign'],
    ['11 of 10', { op: 'addNote', sign: 'felt', region: 'feltHands', side: 'left', score: 11 }, 'unknownSign'],
    ['a flag that is none', { op: 'addNote', sign: 'redFlag', region: 'blue', side: 'both' }, 'unknownSign'],
    ['a change of what cannot be', { op: 'changeNote', noteId: 'x', change: { sign: 'kneesIn' } }, 'malformed'],
    ['a look at nobody', { op: 'addLook', classId: 'class-dawn', memberId: 'nobody' }, 'noNote'],
    [
      'a cue for nothing seen',
      { op: 'addRoomCue', classId: 'class-dawn', sign: 'flying', cue: 'x', concerned: [] },
      'unknownSign',
    ],
    [
      'a cue too long',
      { op: 'addRoomCue', classId: 'class-dawn', sign: 'kneesIn', cue: 'x'.repeat(201), concerned: [] },
      'malformed',
    ],
  ])('%s is refused, and nothing is kept', async (_, entry, code) => {
    const who = { memberId: 'member-01', bikeId: 'bike-1' }
    const before = await classState(db, scope, 'class-dawn')
    expect(await tell({ ...who, ...entry })).toMatchObject({ outcome: 'refused', code })
    expect(await classState(db, scope, 'class-dawn')).toEqual(before)
  })
})
