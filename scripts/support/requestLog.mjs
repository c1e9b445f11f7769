/** What is measured and logged of requests: never who, and nothing of what was sent. */
import { createHash, randomUUID, timingSafeEqual } from 'node:crypto'
import pino from 'pino'
import { collectDefaultMetrics, Histogram, Registry } from 'prom-client'

/** A request that took longer is logged, ms. */
const SLOW_MS = 1000
/** Pages behind a secret address: what follows is never logged. */
const SECRET_PAGES = new Set(['m', 'invited'])
const MAX_SEGMENTS = 6
/** Maximum of distinct patterns; invented addresses must not fill the memory. */
const MAX_ROUTES = 200

/**
 * The pattern of an address, without queries, names, numbers and secrets: `/riders/:id/reasons`. Only short words of
 * small letters stay as they are, and none behind a secret page.
 */
export function routeOf(url) {
  const segments = url.split('?')[0].split('/').filter(Boolean)
  if (segments[0] === '_next') return '/_next'
  const shown = segments
    .slice(0, MAX_SEGMENTS)
    .map((one, i) =>
      /^[a-z][a-z-]{0,24}(\.[a-z]{2,4})?$/.test(one) && !SECRET_PAGES.has(segments[i - 1]) ? one : ':id',
    )
  return `/${shown.join('/')}${segments.length > MAX_SEGMENTS ? '/…' : ''}`
}

/**
 * Watches requests: `observe(request, response)` gives each an id (header `x-request-id`, also for the application),
 * measures it, and logs it as one line of JSON where it failed or was slow. `metrics(request, response)` answers
 * Prometheus' text behind `Authorization: Bearer <key>`: 401 without it, 404 where no key is set.
 */
export function requestLog({ key, log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime }) } = {}) {
  const registry = new Registry()
  collectDefaultMetrics({ register: registry })
  const seconds = new Histogram({
    name: 'saddle_request_seconds',
    help: 'Time to answer a request, by method, pattern of the address and status',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10],
    registers: [registry],
  })
  const routes = new Set()
  /** The pattern itself while there are few, then one for all others. */
  const bounded = (route) => {
    if (routes.size < MAX_ROUTES) routes.add(route)
    return routes.has(route) ? route : '/…'
  }
  return {
    observe(request, response) {
      const began = performance.now()
      const id = randomUUID()
      request.headers['x-request-id'] = id
      response.setHeader('x-request-id', id)
      // The application changes the address while it answers.
      const [route, { method }] = [bounded(routeOf(request.url)), request]
      response.once('close', () => {
        const ms = Math.round(performance.now() - began)
        const status = response.statusCode
        seconds.observe({ method, route, status }, ms / 1000)
        // A stream of news is open as long as its page.
        const isStream = String(response.getHeader('content-type') ?? '').startsWith('text/event-stream')
        if (status >= 500 || (ms >= SLOW_MS && !isStream))
          log[status >= 500 ? 'error' : 'info']({ id, method, route, status, ms }, status >= 500 ? 'failed' : 'slow')
      })
    },
    async metrics(request, response) {
      if (!key) return response.writeHead(404).end()
      const given = String(request.headers.authorization ?? '').replace(/^Bearer /, '')
      const digest = (text) => createHash('sha256').update(text).digest()
      if (!timingSafeEqual(digest(given), digest(key)))
        return response.writeHead(401, { 'www-authenticate': 'Bearer' }).end()
      response.writeHead(200, { 'content-type': registry.contentType }).end(await registry.metrics())
    },
  }
}
