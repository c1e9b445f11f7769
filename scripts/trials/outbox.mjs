/**
 * `npm run trial:outbox -- --words 200 --kills 20 --seed 1`: one device with four tabs, each at a set-up of its own,
 * where marks are tapped without pause. Tabs are killed at random moments and opened again, the session ends once and
 * somebody signs in again, and the server answers 500 to one entry in twenty (half of these it stored all the same).
 * At the end the server must have exactly what was tapped, in order.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import { chromium } from '@playwright/test'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { chromiumPath } from '../support/installed.mjs'
import { build } from '../support/production.mjs'
import { hallIn, root } from './hall.mjs'

const { values } = parseArgs({
  options: {
    words: { type: 'string', default: '200' },
    kills: { type: 'string', default: '20' },
    seed: { type: 'string', default: '1' },
  },
})
const [WORDS, KILLS] = [Number(values.words), Number(values.kills)]
/** Bikes of the type whose seat heights are the numbers 1 to 15: a tab each. */
const BIKES = [1, 2, 7, 8]
const TABS = BIKES.length
const generator = xoroshiro128plus(Number(values.seed))
const random = () => uniformFloat64(generator)
const whole = (below) => Math.floor(random() * below)
const folder = mkdtempSync(join(tmpdir(), 'ys-outbox-'))
const hall = await hallIn(folder)
const PATIENCE_MS = Number(process.env.PATIENCE_MS ?? 600_000)

async function trial() {
  const browser = await chromium.launch({
    executablePath: chromiumPath(),
    chromiumSandbox: process.getuid?.() !== 0,
    args: ['--disable-background-networking', '--no-first-run'],
  })
  const device = await browser.newContext({
    viewport: { width: 1024, height: 768 },
    reducedMotion: 'reduce',
    baseURL: hall.base,
  })
  device.setDefaultTimeout(PATIENCE_MS)
  const counted = { faults: 0, kills: 0, sessions: 0 }
  const faulty = new Map()

  await device.route('**/api/outbox', async (route) => {
    const { id } = route.request().postDataJSON() ?? {}
    const met = faulty.get(id)
    if (met === undefined) faulty.set(id, random() < 1 / 20 ? 1 + whole(2) : 0)
    if (faulty.get(id) === 0) return route.continue().catch(() => undefined)
    faulty.set(id, faulty.get(id) - 1)
    counted.faults += 1
    if (random() < 0.5) await route.fetch().catch(() => undefined)
    return route.fulfill({ status: 500, body: 'out of order' }).catch(() => undefined)
  })

  await signInAt(await device.newPage())
  const tabs = []
  for (let t = 0; t < TABS; t++) {
    const page = await device.newPage()
    await page.goto(`/riders/member-${20 + t}`)
    await page.getByRole('button', { name: /Set up now|New set-up/ }).click()
    await page.getByRole('button', { name: new RegExp(`^${BIKES[t]}(?!\\d)`) }).click()
    await page.waitForURL('**/set-up/**')
    const tab = { page, url: page.url(), tapped: [], last: '9' }
    await ready(tab)
    await tap(tab, '9')
    await page.getByRole('button', { name: /^Done, set to/ }).click()
    await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: 'Beside' }).click()
    tab.tapped.length = 0
    tabs.push(tab)
  }

  const killAt = new Set(Array.from({ length: KILLS }, () => whole(WORDS * TABS)))
  while (killAt.size < KILLS) killAt.add(whole(WORDS * TABS))
  const signedOutFor = Math.ceil((WORDS * TABS) / 20)
  const endSessionAt = Math.floor(WORDS * TABS * (0.3 + 0.3 * random()))
  for (let n = 0; n < WORDS * TABS; n++) {
    const open = tabs.filter((tab) => tab.tapped.length < WORDS)
    const tab = open[whole(open.length)]
    await tap(tab, another(tab.last))
    if (n === endSessionAt) {
      await device.clearCookies()
      counted.sessions += 1
    }
    if (n === endSessionAt + signedOutFor) await signInAt(await device.newPage())
    if (!killAt.has(n)) continue
    // Without a session a page could not be opened again: that kill comes right after.
    if (n >= endSessionAt && n < endSessionAt + signedOutFor) {
      killAt.add(endSessionAt + signedOutFor + counted.kills)
      continue
    }
    await tab.page.close()
    counted.kills += 1
    tab.page = await device.newPage()
    await tab.page.goto(tab.url)
    await ready(tab)
  }
  // What was left when the session ended is sent by pages opened since; all are opened again, as after a break.
  for (const tab of tabs) {
    await tab.page.reload()
    await ready(tab)
  }
  const end = Date.now() + PATIENCE_MS
  while ((await waiting(tabs[0].page)) > 0 && Date.now() < end) await wait(1000)

  const cookie = (await device.cookies()).map((c) => `${c.name}=${c.value}`).join('; ')
  let [lost, twice, outOfOrder, stored] = [0, 0, 0, 0]
  for (const tab of tabs) {
    const answer = await fetch(`${hall.base}/api/set-ups/${tab.url.split('/').at(-1)}/rows`, { headers: { cookie } })
    const { rows } = await answer.json()
    const stored = rows
      .filter(({ row }) => row.kind === 'set')
      .map(({ row }) => row.at.seatHeight)
      .slice(1)
    stored += stored.length
    lost += Math.max(0, tab.tapped.length - stored.length)
    twice += Math.max(0, stored.length - tab.tapped.length)
    if (stored.join() !== tab.tapped.join()) outOfOrder += 1
  }
  await browser.close()
  const left = end < Date.now() ? 'some' : 'none'
  return {
    tabs: TABS,
    leftOnDevice: left,
    tapped: WORDS * TABS,
    stored,
    lost,
    twice,
    tabsOutOfOrder: outOfOrder,
    ...counted,
  }

  async function signInAt(page) {
    await page.goto('/sign-in')
    await page.getByLabel('Name').fill('ines')
    await page.getByLabel('Password', { exact: true }).fill('tarn-ferry-rows-east')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('heading', { name: 'Members' }).waitFor()
    await page.close()
  }

  /** Taps a mark of the seat height; when this returns the tap was made, not more. */
  async function tap(tab, label) {
    await tab.page.evaluate((label) => {
      const marks = [...document.querySelectorAll('[aria-label^="Seat height "]')]
      const mark = marks.find((m) => new RegExp(`^Seat height ${label}(,|$)`).test(m.getAttribute('aria-label')))
      if (!mark) throw new Error(`no mark ${label}`)
      mark.dispatchEvent(new MouseEvent('click', { bubbles: true }))
    }, label)
    tab.tapped.push(label)
    tab.last = label
  }
}

/** How many entries the device still has. */
const waiting = (page) =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open('yielding-saddle')
        opening.onerror = () => reject(opening.error)
        opening.onsuccess = () => {
          const count = opening.result.transaction('entries').objectStore('entries').count()
          count.onsuccess = () => {
            opening.result.close()
            resolve(count.result)
          }
        }
      }),
  )

async function ready(tab) {
  await tab.page.locator('html[data-ready]').waitFor()
  const beside = tab.page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: 'Beside' })
  await beside.click()
  await tab.page.getByRole('button', { name: /^Seat height 9(,|$)/ }).waitFor()
}

function another(than) {
  const labels = Array.from({ length: 15 }, (_, i) => String(i + 1)).filter((label) => label !== than)
  return labels[whole(labels.length)]
}

try {
  await build(root, process.env.NEXT_DIST ?? '.next')
  hall.start()
  await hall.open()
  const result = await trial()
  console.log(JSON.stringify(result))
  if (result.lost + result.twice + result.tabsOutOfOrder > 0) process.exitCode = 1
} catch (error) {
  console.error(error)
  process.exitCode = 1
} finally {
  await hall.stopped('SIGTERM')
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 300 })
}
