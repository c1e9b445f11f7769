/**
 * Simulated consoles of a room's bikes: a small HTTP server on loopback that sends cadence and resistance as
 * server-sent events. It ships with the product; a real console's bridge speaks the same (docs/bike-console.md).
 *
 *   node standins/bikeConsole.mjs --port 4080 --bikes 24
 *
 * GET /events       the stream, a line a bike: {"bike": 7, "atMs": …, "rpm": 88.2, "resistancePct": 41}
 * POST /ride        {"bike": 7, "rpm": 60, "resistancePct": 55} from now on this bike rides so
 *
 * Most riders have a cadence of their own near 85; bike 11 bounces, bike 5 stops its feet now and then.
 */
import { createServer } from 'node:http'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'

/** What a bike's console reads at a second of the ride: seeded, always alike. */
export function consoleReading(bike, second) {
  const wave = Math.sin(second / 7 + bike) + Math.sin(second / 3 + 2 * bike)
  if (bike === 11) return { rpm: 112 + 2 * wave, resistancePct: 8 }
  if (bike === 5 && second % 90 > 84) return { rpm: 0, resistancePct: 40 }
  return { rpm: 82 + ((bike * 7) % 9) + 1.5 * wave, resistancePct: 30 + ((bike * 5) % 20) }
}

/** Starts the consoles on a port of loopback (0: any). Resolves with the port and how to stop them. */
export function startConsoles({ port = 0, bikes = 24, everyMs = 1000, now = Date.now } = {}) {
  const open = new Set()
  const ridden = new Map()
  const beganMs = now()
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url ?? '/', 'http://127.0.0.1')
    if (request.method === 'POST' && pathname === '/ride') return ride(request, response)
    if (pathname !== '/events') return response.writeHead(404).end()
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    open.add(response)
    response.on('close', () => open.delete(response))
  })
  const timer = setInterval(() => {
    const atMs = now()
    const second = (atMs - beganMs) / 1000
    const lines = Array.from({ length: bikes }, (_, i) => {
      const { rpm, resistancePct } = ridden.get(i + 1) ?? consoleReading(i + 1, second)
      return `data: ${JSON.stringify({ bike: i + 1, atMs, rpm: Math.round(10 * rpm) / 10, resistancePct })}\n\n`
    }).join('')
    for (const response of open) response.write(lines)
  }, everyMs)
  function ride(request, response) {
    let body = ''
    request.on('data', (part) => {
      body += part
      if (body.length > 1000) request.destroy()
    })
    request.on('end', () => {
      try {
        const { bike, rpm, resistancePct } = JSON.parse(body)
        if (!Number.isInteger(bike) || !(rpm >= 0 && rpm <= 220)) return response.writeHead(400).end()
        ridden.set(bike, { rpm, resistancePct: resistancePct ?? 40 })
        response.writeHead(204).end()
      } catch {
        response.writeHead(400).end()
      }
    })
  }
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const stop = () =>
        new Promise((done) => {
          clearInterval(timer)
          for (const response of open) response.destroy()
          server.close(() => done())
        })
      resolve({ port: server.address().port, stop })
    })
  })
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { values } = parseArgs({
    options: { port: { type: 'string' }, bikes: { type: 'string' }, everyMs: { type: 'string' } },
  })
  const [port, bikes, everyMs] = [values.port ?? 0, values.bikes ?? 24, values.everyMs ?? 1000].map(Number)
  startConsoles({ port, bikes, everyMs }).then((consoles) => {
    console.log(`bike consoles at http://127.0.0.1:${consoles.port}/events`)
    for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => consoles.stop().then(() => process.exit(0)))
  })
}
