import { CacheableResponsePlugin, CacheFirst, ExpirationPlugin, NetworkFirst, NetworkOnly, Serwist } from 'serwist'
import { PAGES, STATIC } from './caches'

/** Timeout of the network before a stored page is shown, s. */
const PATIENCE_S = 5
const DAY_S = 86_400

/** Pages that open without network, as they were last seen on this device. */
const STORED_PATHS = /^\/(class|today)(\/|$)/

const isPage = (request: Request): boolean => request.mode === 'navigate'
/**
 * What a web worker starts from: all share one script and read their role from the address's fragment, and a stored
 * response carries the fragment of the first request. These go to the server.
 */
const isWorker = (request: Request): boolean => request.destination === 'worker'

/**
 * The service worker: Today and the floor of a class open without network, as they were last seen on this device;
 * everything else goes to the server as ever. What is tapped meanwhile is the outbox's business.
 */
const serwist = new Serwist({
  skipWaiting: true,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ request, url, sameOrigin }) =>
        sameOrigin && !isWorker(request) && url.pathname.startsWith('/_next/static/'),
      handler: new CacheFirst({
        cacheName: STATIC,
        plugins: [new ExpirationPlugin({ maxEntries: 500, maxAgeSeconds: 30 * DAY_S })],
      }),
    },
    {
      matcher: ({ request, url, sameOrigin }) => sameOrigin && isPage(request) && STORED_PATHS.test(url.pathname),
      handler: new NetworkFirst({
        cacheName: PAGES,
        networkTimeoutSeconds: PATIENCE_S,
        matchOptions: { ignoreVary: true, ignoreSearch: true },
        plugins: [
          new CacheableResponsePlugin({ statuses: [200] }),
          new ExpirationPlugin({ maxEntries: 40, maxAgeSeconds: 3 * DAY_S }),
        ],
      }),
    },
    { matcher: ({ request, sameOrigin }) => sameOrigin && isPage(request), handler: new NetworkOnly() },
  ],
})

serwist.setCatchHandler(async ({ request }) => (isPage(request) ? offlinePage() : Response.error()))
serwist.addEventListeners()

/** What is shown where a page was never opened on this device. */
async function offlinePage(): Promise<Response> {
  const stored = await (await caches.open(PAGES)).keys()
  const paths = stored.map(({ url }) => new URL(url).pathname)
  const today = paths.includes('/today') ? ['<p><a href="/today">Today, as it was last seen here</a></p>'] : []
  const watches = paths.filter((path) => path.endsWith('/watch'))
  const classes = watches.map((path) => `<p><a href="${path}">A class opened on this device</a></p>`)
  const links = [...today, ...classes].join('')
  const html =
    '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">' +
    '<title>No network</title><body style="font:18px system-ui;margin:40px;max-width:30em"><h1>No network.</h1>' +
    '<p>This page was not opened on this device before. What you tapped is kept here, and sent when the network ' +
    `is back.</p>${links}</body></html>`
  return new Response(html, {
    status: 503,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
    },
  })
}
