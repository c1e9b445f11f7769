/**
 * A simulated booking service: a small HTTP server on loopback that hands out classes and who is booked for them. It
 * ships with the product so that bookings can be tried without one; a real service's bridge speaks the same
 * (docs/booking-service.md).
 *
 *   node standins/bookingService.mjs --port 4079
 *
 * GET  /feed        {"revision", "classes": [...], "bookings": [...]}
 * GET  /calendar.ics  the studio's weekly classes as iCalendar
 * POST /control     {"outageMs": 60000} refuses for so long; {"nonsense": true} sends what no service should
 * POST /bookings    {"class", "name", "comesMinBefore", "state"} books, or changes a booking
 *
 * Now and then somebody cancels or books late, or nothing answers for a while: seeded, always alike.
 */
import { createServer } from 'node:http'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'

const MINUTE = 60_000
const QUARTER = 15 * MINUTE
/** The demo's own members, and one who is none. */
const NAMES = ['Nuala Fenwright', 'Perrin Hask', 'Silas Thackway', 'Ulrik Vane', 'Imke Dunmore', 'Leopold Musgrave']
const UNKNOWN = 'Quillon Undertow'

/** What is booked at a moment, for a service that began at `beganMs`. */
export function bookedAt(beganMs, nowMs) {
  const startMs = Math.ceil((beganMs + 95 * MINUTE) / QUARTER) * QUARTER
  const minutes = (nowMs - beganMs) / MINUTE
  const classes = [
    {
      id: 'late-ride',
      title: 'Late Ride',
      room: 'Net loft',
      startsAt: new Date(startMs).toISOString(),
      endsAt: new Date(startMs + 45 * MINUTE).toISOString(),
      cancelled: false,
    },
  ]
  const booking = (name, i, state) => ({
    id: `booking-${i}`,
    class: 'late-ride',
    name,
    comesMinBefore: 20 - 3 * i,
    state,
  })
  const bookings = NAMES.slice(0, 4).map((name, i) => booking(name, i, i === 1 && minutes > 3 ? 'cancelled' : 'booked'))
  if (minutes > 2) bookings.push(booking(NAMES[4], 4, 'booked'))
  if (minutes > 5) bookings.push({ ...booking(NAMES[5], 5, 'booked'), comesMinBefore: -3 })
  bookings.push(booking(UNKNOWN, 6, 'booked'))
  return { classes, bookings }
}

/** A weekly class on the studio's clock, and one line nobody can read. */
const CALENDAR = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'PRODID:-//Simulated//EN',
  'BEGIN:VEVENT',
  'UID:saturday-hill',
  'SUMMARY:Saturday Hill',
  'LOCATION:Net loft',
  'DTSTART;TZID=Europe/Oslo:20260905T101500',
  'DURATION:PT45M',
  'RRULE:FREQ=WEEKLY',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:cut-short',
  'SUMMARY:Cut short',
  'END:VEVENT',
  'END:VCALENDAR',
  '',
].join('\r\n')

const NONSENSE = '{"revision": 1, "classes": [{"id": 7, "title": null}], "bookings": "soon"}'

/** Starts the service on a port of loopback (0: any). Resolves with its port and how to stop it. */
export function startBookingService({ port = 0, outageEveryMin = 0, outageForMin = 1, now = Date.now } = {}) {
  const beganMs = now()
  let refusedUntil = 0
  let nonsense = false
  const own = new Map()
  const json = (response, status, body) => {
    response.writeHead(status, { 'content-type': 'application/json' })
    response.end(typeof body === 'string' ? body : JSON.stringify(body))
  }
  const isOut = () => {
    const minutes = (now() - beganMs) / MINUTE
    return now() < refusedUntil || (outageEveryMin > 0 && minutes % outageEveryMin > outageEveryMin - outageForMin)
  }
  const server = createServer((request, response) => {
    if (request.method === 'POST') return read(request, response)
    if (request.url !== '/feed' && request.url !== '/calendar.ics') return json(response, 404, {})
    if (isOut()) return json(response, 503, { error: 'down for a moment' })
    if (nonsense) return json(response, 200, NONSENSE)
    if (request.url === '/calendar.ics') {
      response.writeHead(200, { 'content-type': 'text/calendar' })
      return response.end(CALENDAR)
    }
    const { classes, bookings } = bookedAt(beganMs, now())
    const changed = bookings.filter(({ id }) => !own.has(id))
    json(response, 200, { revision: Math.floor(now() / 1000), classes, bookings: [...changed, ...own.values()] })
  })
  function read(request, response) {
    let body = ''
    request.on('data', (part) => {
      body += part
      if (body.length > 10_000) request.destroy()
    })
    request.on('end', () => {
      let posted
      try {
        posted = JSON.parse(body)
      } catch {
        return json(response, 400, {})
      }
      if (request.url === '/control') {
        if (typeof posted.outageMs === 'number') refusedUntil = now() + posted.outageMs
        if (typeof posted.nonsense === 'boolean') nonsense = posted.nonsense
        return json(response, 200, {})
      }
      if (request.url !== '/bookings') return json(response, 404, {})
      const id = `own-${posted.class}-${posted.name}`
      own.set(id, { id, state: 'booked', comesMinBefore: 10, ...posted })
      json(response, 200, { id })
    })
  }
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const stop = () =>
        new Promise((done) => {
          server.closeAllConnections()
          server.close(() => done())
        })
      resolve({ port: server.address().port, stop })
    })
  })
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { values } = parseArgs({ options: { port: { type: 'string' }, outageEveryMin: { type: 'string' } } })
  const options = { port: Number(values.port ?? 0), outageEveryMin: Number(values.outageEveryMin ?? 0) }
  startBookingService(options).then((service) => {
    console.log(`booking service at http://127.0.0.1:${service.port}/feed`)
    for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => service.stop().then(() => process.exit(0)))
  })
}
