/** @jest-environment node */
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Scope } from '@/server/platform/accounts/scope'
import { httpBookingService, readText } from '@/server/classes/bookings/bookingService'
import { beginFeed, endFeed } from '@/server/classes/bookings/feedRuns'
import {
  bookingStatus,
  CALENDAR_EVERY_MS,
  calendarStatus,
  EVERY_MS,
  MAX_WAIT_MS,
  pollBookings,
  pollCalendar,
  waitAfter,
} from '@/server/classes/bookings/poll'
import { takeBookings } from '@/server/classes/bookings/takeBookings'
import { listAssignments } from '@/server/classes/assignments'
import { listClasses } from '@/server/classes/classes'
import { changeRider, listRoster } from '@/server/classes/roster'
import { closeDatabase, database } from '@/server/platform/db/connection'
import { bookedAt, startBookingService } from '@/standins/bookingService.mjs'

jest.mock('@/server/classes/calendar/readInThread', () => jest.requireActual('../support/calendarHere'))
jest.mock('@/server/platform/compute/pool', () => jest.requireActual('../support/computeHere'))

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const now = new Date('2027-03-01T16:00:00Z')
const minutes = (n: number) => new Date(now.getTime() + n * 60_000)
const seats = async (classId: string) =>
  new Map((await listAssignments(db, scope, classId)).map(({ bikeId, memberId }) => [memberId, bikeId]))

afterAll(closeDatabase)

const feedAt = (ms: number) => {
  const { classes, bookings } = bookedAt(now.getTime(), ms)
  return { classes, bookings, faults: [] }
}
const ofFeed = async () =>
  (await listClasses(db, scope, now, minutes(400))).find(
    ({ title, source }) => title === 'Late Ride' && source === 'booking',
  )!

test('are taken over with their class; who calls off gets up, who is here stays, a stranger is named', async () => {
  const first = await takeBookings(db, scope, feedAt(now.getTime()) as never, now)
  expect(first).toMatchObject({ classes: 1, bookings: 4, unknownNames: ['Quillon Undertow'] })
  const { id: classId } = await ofFeed()
  expect((await seats(classId)).size).toBe(4)
  expect(await takeBookings(db, scope, feedAt(now.getTime()) as never, now)).toMatchObject({
    classes: 0,
    bookings: 0,
  })
  const roster = await listRoster(db, scope, classId)
  const here = roster.find(({ name }) => name === 'Perrin Hask')!
  const seat = (await seats(classId)).get(here.memberId)
  await changeRider(db, scope, classId, [here.memberId], { state: 'here' })
  // Perrin has called off at the service, and stands in the room.
  const later = await takeBookings(db, scope, feedAt(now.getTime() + 6 * 60_000) as never, minutes(6))
  expect(later).toMatchObject({ bookings: 2 })
  expect((await seats(classId)).get(here.memberId)).toBe(seat)
  expect((await seats(classId)).size).toBe(6)
  await changeRider(db, scope, classId, [here.memberId], { state: 'booked' })
  await takeBookings(db, scope, feedAt(now.getTime() + 6 * 60_000) as never, minutes(7))
  expect((await seats(classId)).has(here.memberId)).toBe(false)
})

test('a service that is down or sends nonsense is reported, polled more rarely, and disturbs nothing', async () => {
  let clock = now.getTime() + 40 * 86_400_000
  const service = await startBookingService({ now: () => clock })
  const url = `http://127.0.0.1:${service.port}`
  const control = (what: object) => fetch(`${url}/control`, { method: 'POST', body: JSON.stringify(what) })
  const stop = new AbortController()
  const waits: number[] = []
  const found: unknown[] = []
  const timing = {
    now: () => new Date(clock),
    uneven: () => 0.5,
    wait: async (ms: number) => {
      waits.push(ms)
      found.push(bookingStatus(scope.studioId)?.trouble ?? null)
      clock += ms
      if (waits.length === 1) await control({ outageMs: 4 * EVERY_MS })
      if (waits.length === 3) await control({ nonsense: true, outageMs: 0 })
      if (waits.length === 4) await control({ nonsense: false })
      if (waits.length === 5) await service.stop()
      if (waits.length >= 9) stop.abort()
    },
  }
  await pollBookings(db, scope.studioId, httpBookingService(`${url}/feed`), stop.signal, timing)
  expect(found).toEqual([
    null,
    'down',
    'down',
    'nonsense',
    null,
    'unreachable',
    'unreachable',
    'unreachable',
    'unreachable',
  ])
  expect(waits.map((ms) => ms / EVERY_MS)).toEqual([1, 2, 4, 8, 1, 2, 4, 8, 15])
  expect(waitAfter(50, 1)).toBeLessThanOrEqual(1.25 * MAX_WAIT_MS)
  expect(bookingStatus(scope.studioId)).toMatchObject({
    trouble: 'unreachable',
    taken: { unknownNames: ['Quillon Undertow'] },
  })
})

test('a calendar feed is taken over again and again, and what is no calendar changes nothing', async () => {
  let clock = now.getTime()
  const service = await startBookingService({ now: () => clock })
  const url = `http://127.0.0.1:${service.port}`
  const stop = new AbortController()
  const found: unknown[] = []
  const own = async () =>
    (await listClasses(db, scope, now, minutes(14 * 1440))).filter(({ title }) => title === 'Saturday Hill').length
  const timing = {
    now: () => new Date(clock),
    uneven: () => 0.5,
    wait: async (ms: number) => {
      found.push([calendarStatus(scope.studioId)?.trouble, ms, await own()])
      clock += ms
      await fetch(`${url}/control`, { method: 'POST', body: JSON.stringify({ nonsense: true }) })
      if (found.length === 2) stop.abort()
    },
  }
  await pollCalendar(db, scope.studioId, `${url}/calendar.ics`, stop.signal, timing)
  await service.stop()
  expect(found).toEqual([
    [null, CALENDAR_EVERY_MS, 2],
    ['nonsense', 2 * EVERY_MS, 2],
  ])
  expect(calendarStatus(scope.studioId)?.taken).toMatchObject({ faults: 1 })
})

test('where a rule of a feed comes to no end it is named, and what was taken before stays', async () => {
  const at = new Date(now.getTime() + 90 * 86_400_000)
  const [weekly, never] = ['FREQ=WEEKLY;COUNT=2', 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30']
  const stamp = at.toISOString().replaceAll(/[-:]|\.\d+/g, '')
  const calendarOf = (rule: string) =>
    ['BEGIN:VCALENDAR', 'BEGIN:VEVENT', 'UID:tide', 'SUMMARY:Tide Ride', `DTSTART:${stamp}`, 'DURATION:PT45M']
      .concat(`RRULE:${rule}`, 'END:VEVENT', 'END:VCALENDAR', '')
      .join('\r\n')
  let asked = 0
  const server = createServer((_, response) => response.end(calendarOf([weekly, never][asked++])))
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`
  const stop = new AbortController()
  const found: unknown[] = []
  const wait = async () => {
    const classes = await listClasses(db, scope, at, new Date(at.getTime() + 14 * 86_400_000))
    const { trouble, taken } = calendarStatus(scope.studioId)!
    found.push([trouble, taken?.faults, classes.filter(({ title }) => title === 'Tide Ride').length])
    if (asked === 2) stop.abort()
  }
  await pollCalendar(db, scope.studioId, url, stop.signal, { now: () => at, uneven: () => 0.5, wait })
  server.close()
  expect(found).toEqual([
    [null, 0, 2],
    [null, 1, 2],
  ])
})

test('broken entries are counted, and the good ones taken', async () => {
  const { readBookingFeed } = await import('@/server/classes/bookings/feed')
  const good = feedAt(now.getTime())
  const feed = readBookingFeed({
    classes: [
      ...good.classes,
      { id: 7 },
      { ...good.classes[0], id: 'x', startsAt: '2027-03-01 18:00' },
      { ...good.classes[0], id: 'y', endsAt: good.classes[0].startsAt },
    ],
    bookings: [...good.bookings, null, { ...good.bookings[0], state: 'maybe' }],
  })!
  expect(feed.classes).toHaveLength(1)
  expect(feed.bookings).toHaveLength(good.bookings.length)
  expect(feed.faults).toHaveLength(5)
  for (const bad of [null, [], { classes: [] }, { classes: {}, bookings: [] }]) expect(readBookingFeed(bad)).toBeNull()
})

test('a booking reported as booked and as called off is booked, and the feed again changes nothing', async () => {
  const { classes, bookings } = feedAt(now.getTime())
  const [own] = bookings
  const twice = [
    { ...own, id: 'old', state: 'cancelled' as const },
    own,
    { ...own, id: 'older', state: 'cancelled' as const },
  ]
  const feed = { classes: classes.map((one) => ({ ...one, id: 'twice' })), faults: [] }
  const told = { ...feed, bookings: twice.map((one) => ({ ...one, class: 'twice' })) } as never
  expect(await takeBookings(db, scope, told, now)).toMatchObject({ bookings: 1 })
  for (let i = 0; i < 2; i++) expect(await takeBookings(db, scope, told, minutes(i))).toMatchObject({ bookings: 0 })
})

test('a feed over which the server hung twice in a row is left out for a day, and another address is not', async () => {
  const feed = { studioId: scope.studioId, feed: 'calendar', address: 'http://127.0.0.1/hangs' } as const
  expect(await beginFeed(db, feed, now)).toBe(true)
  await endFeed(db, feed)
  for (const minute of [1, 2]) expect(await beginFeed(db, feed, minutes(minute))).toBe(true)
  expect(await beginFeed(db, feed, minutes(3))).toBe(false)
  expect(await beginFeed(db, { ...feed, feed: 'booking' }, minutes(3))).toBe(true)
  await endFeed(db, { ...feed, feed: 'booking' })
  expect(await beginFeed(db, feed, minutes(2 + 1440))).toBe(true)
  expect(await beginFeed(db, { ...feed, address: 'http://127.0.0.1/other' }, minutes(1500))).toBe(true)
  await endFeed(db, feed)
})

describe('an answer without an end', () => {
  /** Answers with a body that flows until whoever asked goes away. */
  async function flowing(chunk: string, everyMs: number) {
    let sent = 0
    const server = createServer((_, response) => {
      response.writeHead(200, { 'content-type': 'text/calendar' })
      const more = () => {
        if (response.destroyed) return
        sent += chunk.length
        if (everyMs > 0 || response.write(chunk)) setTimeout(more, everyMs)
        else response.once('drain', more)
        if (everyMs > 0) response.write(chunk)
      }
      more()
    })
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const { port } = server.address() as AddressInfo
    const stop = () => {
      server.closeAllConnections()
      server.close()
    }
    return { url: `http://127.0.0.1:${port}`, sent: () => sent, stop }
  }

  test('is left where it is longer than any, and little more of it is read', async () => {
    const service = await flowing('x'.repeat(65_536), 0)
    expect(await readText(service.url, '*/*', { ms: 60_000, bytes: 1_000_000 })).toEqual({ outcome: 'nonsense' })
    expect(service.sent()).toBeLessThan(50_000_000)
    service.stop()
  })

  test('is left where it drips for longer than the whole may take', async () => {
    const service = await flowing('x', 20)
    expect(await readText(service.url, '*/*', { ms: 300, bytes: 1_000_000 })).toEqual({ outcome: 'unreachable' })
    service.stop()
  })
})
