import type { BrowserContext, Page } from '@playwright/test'
import {
  addMember,
  mark,
  newDevice,
  seat,
  see,
  setUpAt,
  signIn,
  STATE,
  step,
  unique,
  watch,
  watched,
  workedOut,
  isKept,
} from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false })

/** The way to the server is cut for what the outbox sends, and only that. */
const cut = (context: BrowserContext) => context.route('**/api/outbox', (route) => route.abort())
const mend = (context: BrowserContext) => context.unroute('**/api/outbox')
const pill = (page: Page) => page.getByRole('button', { name: /on this device/ })

/** A new rider's set-up with the saddle set and seen to be right: nothing is left but to save. */
async function readyToSave(page: Page, name: string, bike: number): Promise<void> {
  await addMember(page, unique(name))
  await setUpAt(page, bike)
  await step(page, 'Beside').click()
  await mark(page, 'Seat height', '9').click()
  await page.getByRole('button', { name: /^Done, set to/ }).click()
  await page.getByRole('button', { name: 'Slight bend' }).click()
  await step(page, 'Numbers').click()
}

test('numbers saved without network are kept on the device behind what was seen, and saved when it is back', async ({
  page,
  context,
}) => {
  await readyToSave(page, 'Orla Fenwick', 1)
  await cut(context)
  const rider = await page.getByRole('link', { name: /Leave/ }).getAttribute('href')
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await expect(page.getByText(/the numbers are kept on this device and saved when it is back/)).toBeVisible()
  await page.goto(rider!)
  await expect(pill(page)).toBeVisible()
  await pill(page).click()
  await page.getByRole('button', { name: 'Send now' }).click()
  await expect(page.getByText('No network.')).toBeVisible()
  await mend(context)
  await expect(page.getByText('Everything is on the studio’s server.')).toBeVisible()
  await page.goto(rider!)
  await expect(page.getByRole('region', { name: 'Numbers' })).toContainText('Sorrel, bike 1')
})

test('with the service worker at work, each page’s web worker computes its own thing', async ({ page }) => {
  await page.goto('/members')
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready
  })
  await addMember(page, unique('Ottar Quayle'))
  await setUpAt(page, 3)
  await workedOut(page)
  await page.goto('/bikes/fits')
  await expect(page.getByRole('list', { name: 'Limits' })).toBeVisible()
})

test('two tabs of one device keep one queue: both taps arrive', async ({ page, context }) => {
  await addMember(page, unique('Una Tarnwick'))
  await setUpAt(page, 2)
  const other = await context.newPage()
  await addMember(other, unique('Vidar Oxlade'))
  await setUpAt(other, 2)
  await cut(context)
  await page.getByRole('button', { name: 'Experienced' }).click()
  await other.getByRole('button', { name: 'Regular' }).click()
  for (const tab of [page, other]) await expect(tab.getByText(/No network: kept on this device/)).toBeVisible()
  await mend(context)
  for (const tab of [page, other]) await expect(tab.getByText(/No network/)).toBeHidden()
  await page.reload()
  await step(page, 'Talk').click()
  await expect(page.getByRole('button', { name: 'Experienced', pressed: true })).toBeVisible()
  await other.reload()
  await step(other, 'Talk').click()
  await expect(other.getByRole('button', { name: 'Regular', pressed: true })).toBeVisible()
})

test('an ended session keeps what is tapped, says so, and sends it after signing in again', async ({ browser }) => {
  const device = await newDevice(browser, { storageState: { cookies: [], origins: [] } })
  const page = await device.newPage()
  await signIn(page)
  await addMember(page, unique('Runa Marram'))
  await setUpAt(page, 7)
  const address = page.url()
  await device.clearCookies()
  await page.getByRole('button', { name: 'Regular' }).click()
  await expect(page.getByText(/You are signed out. What you tap is kept on this device/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Regular', pressed: true })).toBeVisible()
  await signIn(page)
  await page.goto(address)
  await expect(pill(page)).toBeHidden()
  await page.reload()
  await step(page, 'Talk').click()
  await expect(page.getByRole('button', { name: 'Regular', pressed: true })).toBeVisible()
  await device.close()
})

test('a note in class without network is shown, outlives the page, and arrives once', async ({ page, context }) => {
  await page.goto('/today')
  await expect.poll(() => isKept(page)).toBe(true)
  await seat(page, 13, 'Pilar Venn')
  await watch(page)
  const watching = page.url()
  await cut(context)
  await page.goto('/today')
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible()
  await page.goto(watching)
  await see(page, 13, 'Shoulders', 'Shrugged, left')
  const noted = watched(page, 13, 'shoulders shrugged, left')
  await expect(noted).toBeVisible()
  await expect(page.getByText(/No network: kept on this device/)).toBeVisible()
  await page.reload()
  await expect(noted).toBeVisible()

  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByText(/1 tap of yours is only on this device, and there is no network/)).toBeVisible()
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
  await mend(context)
  await expect(page.getByText(/No network/)).toBeHidden()
  await page.reload()
  await expect(noted).toHaveCount(1)
  await expect(pill(page)).toBeHidden()

  // Taken back, and the page made anew while that is still on its way: it stays taken back.
  await cut(context)
  await see(page, 13, 'Arms, hands', 'Wrist bent, left')
  await mend(context)
  const second = watched(page, 13, 'wrist bent, left')
  await expect(second).toBeVisible()
  await expect(page.getByText(/No network/)).toBeHidden()
  await cut(context)
  await page.getByRole('button', { name: 'Wrist bent, left', exact: true }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(second).toBeHidden()
  await expect(page.getByText(/No network: kept on this device/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/No network: kept on this device/)).toBeVisible()
  await expect(second).toBeHidden()
  await mend(context)
  await expect(page.getByText(/No network/)).toBeHidden()
  await expect(second).toBeHidden()
})

test(
  'two at one set-up: each sees the other’s taps, a tap on the bars leaves the seat where ' +
    'the other put it, and the second to save is told',
  async ({ page, browser }) => {
    await readyToSave(page, 'Ylva Reedham', 8)
    const device = await newDevice(browser, { storageState: { cookies: [], origins: [] } })
    const other = await device.newPage()
    await signIn(other, 'bram')
    await other.goto(page.url())
    await expect(mark(other, 'Seat height', '9')).toBeVisible()

    await mark(page, 'Seat height', '11').click()
    await mark(other, 'Bar height', '4').click()
    for (const one of [page, other]) {
      await expect(one.getByRole('button', { name: /^Seat height 11, set/ })).toBeVisible()
      await expect(one.getByRole('button', { name: /^Bar height 4, set/ })).toBeVisible()
    }
    await step(other, 'Numbers').click()
    await other.getByRole('button', { name: 'Save the numbers' }).click()
    await other.waitForURL('**/riders/**')
    await expect(page.getByText('Somebody else saved the numbers of this set-up.')).toBeVisible()
    await page.getByRole('button', { name: 'New set-up from this' }).click()
    await expect(page.getByText('Somebody else saved the numbers of this set-up.')).toBeHidden()
    await expect(page.getByRole('button', { name: /^Seat height 11, set/ })).toBeVisible()
    await device.close()
  },
)

test.describe('by the page’s own traffic, no worker between', () => {
  test.use({ serviceWorkers: 'block' })

  test('a page made while a note is on its way shows it, also when the note arrived before the page did', async ({
    page,
    context,
  }) => {
    const beside = await context.newPage()
    await beside.goto('/members')
    await seat(page, 15, 'Bettany Crewe')
    await watch(page)
    let pageIsMade = () => undefined as void
    const made = new Promise<void>((resolve) => (pageIsMade = resolve))
    await context.route('**/api/outbox', async (route) => {
      await made
      await route.fulfill({ response: await route.fetch() })
    })
    await see(page, 15, 'Hips', 'Rocking')
    const noted = watched(page, 15, 'hips rocking')
    await expect(noted).toBeVisible()
    // The page is made without the note; the note arrives and leaves the device; only then the page is handed over.
    await page.route(
      /\/class\/[^/]+\/watch$/,
      async (route) => {
        const response = await route.fetch()
        pageIsMade()
        await expect.poll(() => leftOnDevice(beside)).toBe(0)
        await route.fulfill({ response })
      },
      { times: 1 },
    )
    await page.goto(page.url())
    await expect(noted).toBeVisible()
  })
})

const leftOnDevice = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open('yielding-saddle')
        opening.onerror = () => reject(opening.error)
        opening.onsuccess = () => {
          const counting = opening.result.transaction('entries').objectStore('entries').count()
          counting.onsuccess = () => {
            opening.result.close()
            resolve(counting.result)
          }
        }
      }),
  )
