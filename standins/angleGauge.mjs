/**
 * A simulated digital angle gauge, strapped to a leg: a small HTTP server on loopback that sends readings as
 * server-sent events. It ships with the product so that the set-up can be tried without one; a real gauge's bridge
 * speaks the same lines (docs/angle-gauge.md).
 *
 *   node standins/angleGauge.mjs --port 4078 --deg 33
 *
 * GET /events?…    the stream; for trying things out: noise, drift (degrees a minute), dropEvery (readings, 0 never),
 *                  dropFor (readings), side, axis, everyMs
 * POST /deg        {"deg": 31} sets what the leg truly does from now on
 */
import { createServer } from 'node:http'
import { pathToFileURL } from 'node:url'
import { parseArgs } from 'node:util'

/** Readings of a gauge whose leg holds still: seeded noise and drift, in degrees; null while the signal is lost. */
export function simulatedReadings({
  deg,
  noise = 0.6,
  drift = 0,
  dropEvery = 0,
  dropFor = 8,
  everyMs = 200,
  seed = 1,
}) {
  let state = seed >>> 0
  const uniform = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return (state + 0.5) / 4294967296
  }
  const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
  let seq = 0
  return () => {
    seq += 1
    const lost = dropEvery > 0 && seq % (dropEvery + dropFor) >= dropEvery
    const minutes = (seq * everyMs) / 60_000
    return { seq, deg: lost ? null : Math.round(10 * (deg() + drift * minutes + noise * normal())) / 10 }
  }
}

const number = (value, usual) => (value !== null && Number.isFinite(Number(value)) ? Number(value) : usual)

/** Starts the gauge on a port of loopback (0: any). Resolves with its port and how to stop it. */
export function startGauge({ port = 0, deg = 33 } = {}) {
  let truth = deg
  const open = new Set()
  const server = createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://127.0.0.1')
    if (request.method === 'POST' && url.pathname === '/deg') return setDeg(request, response)
    if (url.pathname !== '/events') return response.writeHead(404).end()
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    const query = url.searchParams
    const everyMs = Math.max(20, number(query.get('everyMs'), 200))
    const next = simulatedReadings({
      deg: () => truth,
      noise: number(query.get('noise'), 0.6),
      drift: number(query.get('drift'), 0),
      dropEvery: number(query.get('dropEvery'), 0),
      dropFor: number(query.get('dropFor'), 8),
      everyMs,
    })
    const [side, axis] = [query.get('side') ?? 'left', query.get('axis') ?? 'knee']
    const timer = setInterval(() => {
      const { seq, deg: read } = next()
      const [event, data] =
        read === null ? ['lost', { seq }] : ['reading', { seq, deg: read, side, axis, batteryPct: 80 }]
      response.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`)
    }, everyMs)
    open.add(response)
    response.on('close', () => {
      clearInterval(timer)
      open.delete(response)
    })
  })
  function setDeg(request, response) {
    let body = ''
    request.on('data', (part) => {
      body += part
      if (body.length > 1000) request.destroy()
    })
    request.on('end', () => {
      let deg
      try {
        deg = JSON.parse(body).deg
      } catch {
        deg = undefined
      }
      if (typeof deg !== 'number' || !(deg >= -20 && deg <= 150)) return response.writeHead(400).end()
      truth = deg
      response.writeHead(204).end()
    })
  }
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const stop = () =>
        new Promise((done) => {
          for (const response of open) response.destroy()
          server.close(() => done())
        })
      resolve({ port: server.address().port, stop })
    })
  })
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { values } = parseArgs({ options: { port: { type: 'string' }, deg: { type: 'string' } } })
  const gauge = await startGauge({ port: Number(values.port ?? 0), deg: Number(values.deg ?? 33) })
  console.log(`angle gauge at http://127.0.0.1:${gauge.port}/events`)
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => gauge.stop().then(() => process.exit(0)))
}
