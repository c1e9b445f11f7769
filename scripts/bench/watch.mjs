/**
 * `npm run bench:watch -- --devices 40 --minutes 5 --taps 300`: the floor during a class, in a throwaway studio. Parts
 * alone with `--only size,interactive,code,taps,load`.
 *
 * 1. Script of the page's own beyond what every page has, gzipped; when the page answers to hands at a fourfold CPU
 *    slow-down.
 *    The same of the page that a machine's code opens (`code`).
 * 2. A tap to its paint with the server stopped.
 * 3. Devices that write ten notes a minute each, with the news open, beside a bare insert over a connection of its own.
 */
import { mkdtempSync, rmSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { chromium } from '@playwright/test'
import { createConnection } from 'mysql2/promise'
import { chromiumPath } from '../support/installed.mjs'
import { build } from '../support/production.mjs'
import { hallIn, root } from '../trials/hall.mjs'

const { values } = parseArgs({
  options: {
    devices: { type: 'string', default: '40' },
    minutes: { type: 'string', default: '5' },
    taps: { type: 'string', default: '300' },
    only: { type: 'string', default: 'size,interactive,code,taps,load' },
  },
})
const [DEVICES, MINUTES, TAPS] = [values.devices, values.minutes, values.taps].map(Number)
const CLASS = 'class-dusk'
const folder = mkdtempSync(join(tmpdir(), 'ys-watch-'))
const hall = await hallIn(folder)
const quantile = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]
const summary = (all) => {
  const sorted = [...all].sort((a, b) => a - b)
  return { median: quantile(sorted, 0.5), p95: quantile(sorted, 0.95), most: sorted.at(-1) }
}
const ms = (n) => `${n.toFixed(n < 10 ? 1 : 0)} ms`

async function bench() {
  const cookie = await hall.signIn()
  const browser = await chromium.launch({
    executablePath: chromiumPath(),
    chromiumSandbox: process.getuid?.() !== 0,
    args: ['--disable-background-networking', '--no-first-run'],
  })
  const open = async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: hall.base })
    await context.addCookies(
      cookie.split('; ').map((pair) => {
        const at = pair.indexOf('=')
        return { name: pair.slice(0, at), value: pair.slice(at + 1), url: hall.base }
      }),
    )
    return context
  }
  await seatEverybody(await open())
  const chosen = values.only.split(',')
  if (chosen.includes('size')) await size(await open())
  if (chosen.includes('interactive')) await interactive(await open())
  if (chosen.includes('code')) await codePage(await open(), await open())
  if (chosen.includes('taps')) await taps(await open())
  await browser.close()
  if (chosen.includes('load')) await load(cookie)
}

async function seatEverybody(context) {
  const page = await context.newPage()
  await page.goto(`/class/${CLASS}`)
  await page.locator('html[data-ready]').waitFor()
  await page.getByRole('button', { name: /^Place (\d+ riders|again)$/ }).click()
  await page.getByText(/placed around/).waitFor()
  await context.close()
}

/** Bytes of script as sent, of a page opened by a device that has nothing of it yet. */
async function scripts(context, path) {
  const page = await context.newPage()
  const client = await context.newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Network.setBypassServiceWorker', { bypass: true })
  const kinds = new Map()
  const sizes = new Map()
  client.on('Network.responseReceived', ({ requestId, type, response }) => {
    if (type === 'Script') kinds.set(requestId, response.url)
  })
  client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (kinds.has(requestId)) sizes.set(kinds.get(requestId), encodedDataLength)
  })
  await page.goto(path)
  await page.locator('html[data-ready]').waitFor()
  await wait(2000)
  await page.close()
  return sizes
}

/** The page of a machine's code, opened by somebody without an account. */
async function codePage(studio, fresh) {
  const machine = await (await studio.request.get('/bikes/bike-8')).text()
  const path = machine.match(/\/b\/[a-z0-9]{10}/)[0]
  await fresh.clearCookies()
  const first = await fresh.newPage()
  await first.goto(path)
  await first.locator('html[data-ready]').waitFor()
  // What the first paint waits for; the steps and the arithmetic come behind it.
  const own = await first.evaluate(() => {
    const [paint] = performance.getEntriesByName('first-contentful-paint')
    return performance
      .getEntriesByType('resource')
      .filter(({ name, startTime }) => name.endsWith('.js') && startTime <= paint.startTime)
      .reduce((sum, { transferSize }) => sum + transferSize, 0)
  })
  await first.close()
  const [empty, page] = [await answers(studio, '/nowhere'), await answers(fresh, path)]
  await fresh.close()
  await studio.close()
  console.log(
    `the page of a code: script up to its first paint ${kb(own)}; answers to hands at a fourfold slow-down: ` +
      `median ${ms(page.median)}, an empty page ${ms(empty.median)}: ${(page.median / empty.median).toFixed(2)} times`,
  )
}

async function size(context) {
  const common = await scripts(context, '/not-allowed')
  const fresh = await context.browser().newContext({ baseURL: hall.base })
  await fresh.addCookies(await context.cookies())
  const own = await scripts(fresh, `/class/${CLASS}/watch`)
  await fresh.close()
  await context.close()
  const sum = (sizes) => [...sizes.values()].reduce((a, b) => a + b, 0)
  const beyond = [...own].filter(([url]) => !common.has(url)).reduce((total, [, bytes]) => total + bytes, 0)
  console.log(`script of the page ${kb(sum(own))}, of it beyond what every page has ${kb(beyond)}`)
}
const kb = (bytes) => `${(bytes / 1000).toFixed(0)} kB`

/** A page opened goes on fetching what it may need later: the next one is opened after that, ms. */
const REST_MS = 10_000

/** Against the emptiest page of the same framework: what no page of it can be quicker than here. */
async function interactive(context) {
  const [empty, floor] = [await answers(context, '/nowhere'), await answers(context, `/class/${CLASS}/watch`)]
  await context.close()
  console.log(
    `answers to hands at a fourfold slow-down: median ${ms(floor.median)}, most ${ms(floor.most)} of ${OPENED}; ` +
      `an empty page of the framework ${ms(empty.median)}, most ${ms(empty.most)}`,
  )
}
const OPENED = 7

async function answers(context, path) {
  const times = []
  for (let i = 0; i < OPENED + 1; i++) {
    const page = await context.newPage()
    const client = await context.newCDPSession(page)
    await client.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    await page.addInitScript(() => {
      new MutationObserver((_, observer) => {
        if (document.documentElement.dataset.ready !== 'true') return
        observer.disconnect()
        performance.mark('answers')
      }).observe(document, { attributes: true, subtree: true, attributeFilter: ['data-ready'] })
    })
    await page.goto(path)
    await page.locator('html[data-ready]').waitFor()
    times.push(await page.evaluate(() => performance.getEntriesByName('answers')[0].startTime))
    await wait(REST_MS)
    await page.close()
  }
  // The first fills the browser's own cache.
  return summary(times.slice(1))
}

/** From the press to the frame after it, as the browser itself times events. */
async function taps(context) {
  const page = await context.newPage()
  await page.addInitScript(() => {
    window.painted = []
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        if (entry.name === 'pointerup' || entry.name === 'click') window.painted.push(entry.duration)
    }).observe({ type: 'event', buffered: true, durationThreshold: 16 })
  })
  await page.goto(`/class/${CLASS}/watch`)
  await page.locator('html[data-ready]').waitFor()
  await wait(2000)
  await hall.stopped('SIGTERM')
  const tiles = await page.locator('[aria-label="The floor"] button').all()
  const regions = ['Feet', 'Knees', 'Hips', 'Spine', 'Shoulders', 'Head']
  let count = 0
  while (count < TAPS) {
    await tiles[count % tiles.length].click()
    await page
      .getByRole('group', { name: 'Region' })
      .getByRole('button', { name: regions[count % regions.length], exact: true })
      .click()
    await page
      .locator('[aria-label="Notes"] [role="group"][aria-label] [aria-label][aria-pressed]')
      .nth(count % 5)
      .click()
    count += 3
  }
  await wait(500)
  const painted = await page.evaluate(() => window.painted)
  // What the browser does not report was painted within 16 ms.
  const all = [...painted, ...Array(Math.max(0, 2 * count - painted.length)).fill(16)]
  const { median, p95, most } = summary(all)
  console.log(
    `a tap to its paint, server stopped, ${count} taps: ` +
      `median ${ms(median)} or less, p95 ${ms(p95)}, most ${ms(most)}`,
  )
  await context.close()
  hall.start()
  await hall.open()
}

async function load(cookie) {
  const url = readFileSync(`/proc/${await serverPid()}/environ`, 'utf8').match(/DATABASE_URL=([^\0]+)/)[1]
  const connection = await createConnection({ uri: url })
  const insert =
    'INSERT INTO class_note SET id = ?, studio_id = ?, member_id = ?, bike_id = ?, region = ?, sign = ?, side = ?, ' +
    'class_id = ?, created_by = ?, created_at = NOW(3)'
  const row = (id) => [id, 'netloft-hall', 'member-01', 'bike-1', 'knees', 'kneesOut', 'left', CLASS, 'ines-harrow']
  const timed = async (work) => {
    const began = performance.now()
    await work()
    return performance.now() - began
  }
  const bare = []
  const empty = []
  const sent = []
  let taken = 0
  let failed = 0
  let news = 0
  const stop = new AbortController()
  const end = Date.now() + MINUTES * 60_000
  const person = { author: 'ines-harrow', op: 'addNote', sign: 'kneesOut', side: 'left', classId: CLASS }
  const device = async (n) => {
    const stream = await fetch(`${hall.base}/api/classes/${CLASS}/news`, { headers: { cookie }, signal: stop.signal })
    void (async () => {
      for await (const chunk of stream.body) news += (new TextDecoder().decode(chunk).match(/^data:/gm) ?? []).length
    })().catch(() => undefined)
    await wait((6000 * n) / DEVICES)
    while (Date.now() < end) {
      const began = Date.now()
      const who = { memberId: `member-0${1 + (n % 9)}`, bikeId: `bike-${1 + (n % 12)}` }
      const body = { ...person, ...who, id: crypto.randomUUID(), madeAtMs: Date.now(), sentAtMs: Date.now() }
      sent.push(
        await timed(async () => {
          const response = await fetch(`${hall.base}/api/outbox`, {
            method: 'POST',
            headers: { cookie, 'content-type': 'application/json', origin: hall.base },
            body: JSON.stringify(body),
          })
          if (response.status === 200) taken += 1
          else failed += 1
          await response.arrayBuffer()
        }),
      )
      await wait(Math.max(0, 6000 - (Date.now() - began)))
    }
  }
  const beside = (async () => {
    while (Date.now() < end) {
      bare.push(await timed(() => connection.query(insert, row(crypto.randomUUID()))))
      await wait(75)
      empty.push(await timed(async () => (await fetch(`${hall.base}/api/health`)).arrayBuffer()))
      await wait(75)
    }
  })()
  await Promise.all([beside, ...Array.from({ length: DEVICES }, (_, n) => device(n))])
  stop.abort()
  const [[{ stored }]] = await connection.query(
    `SELECT COUNT(*) AS stored FROM class_note WHERE class_id = '${CLASS}' AND sign = 'kneesOut'`,
  )
  await connection.end()
  const [note, insertOnly, request] = [summary(sent), summary(bare), summary(empty)]
  console.log(
    `${DEVICES} devices, 10 notes a minute each for ${MINUTES} min: ` +
      `${sent.length} sent, ${taken} taken, ${failed} refused, ${stored - bare.length} stored; ` +
      `heard by others ${news}\n` +
      `a note median ${ms(note.median)}, p95 ${ms(note.p95)}; a bare insert beside it ` +
      `median ${ms(insertOnly.median)}, p95 ${ms(insertOnly.p95)}: ${(note.p95 / insertOnly.p95).toFixed(1)} times\n` +
      `the emptiest request beside it median ${ms(request.median)}, p95 ${ms(request.p95)}: ` +
      `${(note.p95 / request.p95).toFixed(1)} times`,
  )
}

/** The web server that the demo of this bench runs. */
async function serverPid() {
  return readFileSync(join(folder, 'server.pid'), 'utf8').match(/\d+/)[0]
}

try {
  await build(root, process.env.NEXT_DIST ?? '.next')
  hall.start()
  await hall.open()
  await bench()
} catch (error) {
  console.error(error)
  process.exitCode = 1
} finally {
  await hall.stopped('SIGTERM')
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 300 })
}
