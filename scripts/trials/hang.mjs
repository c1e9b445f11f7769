/**
 * `npm run trial:hang`: a hung server, in a temporary data folder.
 *
 * The trial stops the server process (SIGSTOP) twice while it reads a calendar feed whose response never ends. Each
 * time the start command must detect the hang, print it, kill the process and restart, and sign-in must work. After the
 * second restart the server must skip the feed, and the class page must name it.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { build } from '../support/production.mjs'
import { hallIn, root } from './hall.mjs'

/** Time limit for detection and restart, ms. */
const NOTICED_WITHIN_MS = 400_000
const folder = mkdtempSync(join(tmpdir(), 'ys-hang-'))

/** A calendar server that sends one byte at a time, without end. */
function drippingFeed() {
  let requests = 0
  const server = createServer((_, response) => {
    requests += 1
    response.writeHead(200, { 'content-type': 'text/calendar' })
    const drip = setInterval(() => response.write('X'), 200)
    response.on('close', () => clearInterval(drip))
  })
  return new Promise((resolve) =>
    server.listen(0, '127.0.0.1', () =>
      resolve({
        url: `http://127.0.0.1:${server.address().port}/calendar.ics`,
        requestCount: () => requests,
        stop: () => {
          server.closeAllConnections()
          server.close()
        },
      }),
    ),
  )
}

const serverPid = () => Number(readFileSync(join(folder, 'server.pid'), 'utf8').split(' ')[0])
const until = async (what, done) => {
  const end = Date.now() + NOTICED_WITHIN_MS
  while (Date.now() < end) {
    if (await done()) return
    await wait(200)
  }
  throw new Error(`${what} within ${NOTICED_WITHIN_MS / 1000} s: ${hall.output()}`)
}
const isOpen = (base) =>
  fetch(`${base}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
    ({ ok }) => ok,
    () => false,
  )

const feed = await drippingFeed()
// The start command uses this address instead of the simulated service's.
const hall = await hallIn(folder, { CALENDAR_FEED_URL: feed.url })

/** Stops the server process; resolves with the seconds until a new one responds. */
async function hang() {
  const [pid, began] = [serverPid(), Date.now()]
  process.kill(pid, 'SIGSTOP')
  await until('the server was not started again', async () => serverPid() !== pid && (await isOpen(hall.base)))
  return (Date.now() - began) / 1000
}

try {
  await build(root, process.env.NEXT_DIST ?? '.next')
  hall.start()
  await hall.open()
  await hall.signIn()
  const seconds = []
  for (let i = 1; i <= 2; i++) {
    await until(`feed not asked for the ${i}. time`, () => feed.requestCount() >= i)
    seconds.push(await hang())
    await hall.signIn()
  }
  const requestsBefore = feed.requestCount()
  const cookie = await hall.signIn()
  await until('the feed is not named as left out', async () => {
    const page = await fetch(`${hall.base}/class`, { headers: { cookie } })
    return (await page.text()).includes('stopped the server twice')
  })
  if (feed.requestCount() !== requestsBefore) throw new Error('the feed was requestsBefore for once more')
  const reports = hall.output().match(/has not answered for about \d+ s: it hangs, and is ended/g) ?? []
  if (reports.length !== 2) throw new Error(`reports ${reports.length} times that it hangs`)
  console.log(
    'A server that did not answer was noticed, named and open again after ' +
      `${seconds.map((s) => `${s.toFixed(0)} s`).join(' and ')}; the feed it read both times is left out since, ` +
      'and the page of the classes says so.',
  )
} catch (error) {
  console.error(error)
  process.exitCode = 1
} finally {
  feed.stop()
  await hall.stopped('SIGTERM')
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 300 })
}
