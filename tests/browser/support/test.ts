import { expect, request, test as base, type BrowserContext, type Page } from '@playwright/test'
import { existsSync, readFileSync } from 'node:fs'
import { closeDatabase } from '../../../server/platform/db/connection'
import { setTimeout as wait } from 'node:timers/promises'

/** The server and the database of this worker; `npm test` starts one pair for each. */
const worker = Number(process.env.TEST_PARALLEL_INDEX ?? 0)
const { baseUrl, databaseUrl } = (
  JSON.parse(process.env.SERVERS ?? '[{}]') as Partial<Record<'baseUrl' | 'databaseUrl', string>>[]
)[worker]
if (databaseUrl) process.env.DATABASE_URL = databaseUrl

/** What a browser stores once the demo's manager has signed in to this worker's server. */
export const STATE = `.test-data/signed-in-${worker}.json`
export const PASSWORD = { ines: 'tarn-ferry-rows-east', bram: 'netloft-hall-at-dusk', tove: 'keys-by-the-ferry-door' }

/** A page opened answers to hands before the test goes on: on a busy machine it is seen long before it does. */
function patient(page: Page): void {
  const goto = page.goto.bind(page)
  page.goto = async (url, options) => {
    const response = await goto(url, options)
    await answersToHands(page)
    return response
  }
  const reload = page.reload.bind(page)
  page.reload = async (options) => {
    const response = await reload(options)
    await answersToHands(page)
    return response
  }
}

const answersToHands = (page: Page) => expect(page.locator('html')).toHaveAttribute('data-ready', 'true')

/** Makes every page of a context patient, those opened later too. */
export function patientContext(context: BrowserContext): BrowserContext {
  context.pages().forEach(patient)
  context.on('page', patient)
  return context
}

/** After this a context is left as it is, and the next test gets a new one. */
const EMPTIED_WITHIN_MS = 60_000

/** A context that the tests of one file share, with what it was made with. */
let shared: Readonly<{ key: string; context: BrowserContext }> | null = null

export const test = base.extend<{ warm: boolean }, { session: void }>({
  /** Whether the tests of a file share one browser context, so that the application is fetched and compiled once. */
  warm: [true, { option: true }],
  baseURL: baseUrl,
  session: [
    async ({}, provide) => {
      if (!existsSync(STATE)) await signInByRequest()
      await provide()
      await closeDatabase()
    },
    { scope: 'worker', auto: true },
  ],
  context: async ({ browser, warm, storageState, viewport, hasTouch }, provide, { file, project }) => {
    const key = JSON.stringify([file, project.name, storageState, viewport, hasTouch])
    if (!warm || shared?.key !== key) {
      await shared?.context.close()
      shared = { key: warm ? key : '', context: patientContext(await browser.newContext()) }
    }
    const { context } = shared!
    await provide(context)
    const isEmptied = await Promise.race([
      emptied(context, typeof storageState === 'string' ? storageState : null).then(() => true),
      wait(EMPTIED_WITHIN_MS, false, { ref: false }),
    ])
    // A browser that does not answer must not cost the next test its time.
    if (!isEmptied) shared = null
  },
})

/** Puts a context back to where it began: no page, nothing stored; what the browser fetched of the build stays. */
async function emptied(context: BrowserContext, storageState: string | null): Promise<void> {
  await context.unrouteAll()
  await context.setOffline(false)
  const last = await context.newPage()
  const browser = await context.newCDPSession(last)
  for (const page of context.pages()) if (page !== last) await page.close()
  await browser.send('Storage.clearDataForOrigin', { origin: baseUrl!, storageTypes: 'all' })
  await last.close()
  await context.clearCookies()
  if (storageState) await context.addCookies(JSON.parse(readFileSync(storageState, 'utf8')).cookies)
}

async function signInByRequest(): Promise<void> {
  const requests = await request.newContext({ baseURL: baseUrl })
  const response = await requests.post('/api/auth/sign-in/username', {
    data: { username: 'ines', password: PASSWORD.ines },
    headers: { origin: baseUrl! },
  })
  expect(response.status()).toBe(200)
  await requests.storageState({ path: STATE })
  await requests.dispose()
}

export { expect }
