import type { Browser, BrowserContext, BrowserContextOptions, Page } from '@playwright/test'
import { createHash, randomUUID } from 'node:crypto'
import { giveConsent } from '../../../server/riders/consent'
import { addMember as insertMember } from '../../../server/riders/members/members'
import { database } from '../../../server/platform/db/connection'
import { appendEvidence, finishSetup } from '../../../server/setups/evidence'
import { startSetup } from '../../../server/setups/setups'
import type { Scope } from '../../../server/platform/accounts/scope'
import { expect, PASSWORD, patientContext, STATE, test } from './test'

export { STATE }

/** The demo's manager, for what a test does without the browser. */
export const MANAGER: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }

/** Signs in as the demo's manager (ines), instructor (bram) or desk (tove); waits where tries are limited. */
export async function signIn(page: Page, name: keyof typeof PASSWORD = 'ines'): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD[name])
  await expect(async () => {
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(
      page.getByText(/Too many tries|go together/).or(page.getByRole('heading', { name: 'Today' })),
    ).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible({ timeout: 1 })
  }).toPass({ timeout: 600_000, intervals: [4000] })
}

/** Adds a member of the demo's studio by name, who agreed to notes, without the browser, and opens their page. */
export async function addMember(page: Page, name: string, agrees = true): Promise<void> {
  const id = randomUUID()
  await insertMember(database(), MANAGER, { id, name }, new Date())
  if (agrees) await giveConsent(database(), MANAGER, id, 'spoken', new Date())
  await page.goto(`/riders/${id}`)
  await expect(page.getByRole('heading', { name })).toBeVisible()
}

/** The same by the page's own form, in any studio. */
export async function addMemberByForm(page: Page, name: string): Promise<void> {
  await page.goto('/members')
  await page.getByRole('button', { name: 'Add a member' }).click()
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('heading', { name })).toBeVisible()
}

/** From a rider's page to the set-up at a bike. */
export async function setUpAt(page: Page, bike: number): Promise<void> {
  await page.getByRole('button', { name: /Set up now|New set-up/ }).click()
  await page.getByRole('button', { name: new RegExp(`^${bike}(?!\\d)`) }).click()
  await page.waitForURL('**/set-up/**')
  await expect(page.getByRole('img', { name: /^Side view/ })).toBeVisible()
}

/** The mark of a scale, by its label as written on the bike. */
export const mark = (page: Page, scale: string, label: string) =>
  page.getByRole('button', { name: new RegExp(`^${scale} ${label.replace('+', '\\+')}(,|$)`) })
export const step = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name })
export const done = (page: Page) => page.getByRole('button', { name: /^Done, set to/ })
/** Waits until the arithmetic has caught up with the last tap. */
export const workedOut = (page: Page) =>
  expect(page.getByRole('region', { name: 'What to do next' })).toHaveAttribute('aria-busy', 'false')

let named = 0
/** A name no other test gives: its end comes from the test's own title, the same in every run. */
export function unique(name: string): string {
  const { project, titlePath } = test.info()
  const of = [project.name, ...titlePath, (named += 1)].join('/')
  const end = BigInt(`0x${createHash('sha256').update(of).digest('hex').slice(0, 12)}`)
  return `${name} ${end.toString(36).slice(-5).padStart(5, '0')}`
}

/** Waits until fonts are there and everything that moves has come to rest. */
export const settled = (page: Page) =>
  page.evaluate(async () => {
    await document.fonts.ready
    await Promise.allSettled(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
        .map((a) => a.finished),
    )
  })

/** Another device on which the same instructor is signed in. */
export const newDevice = async (browser: Browser, options: BrowserContextOptions = {}): Promise<BrowserContext> =>
  patientContext(await browser.newContext({ storageState: STATE, ...options }))

/** Says in the open drawer who sits on the bike: searched by name, since a studio has more members than fit. */
export async function sitDown(page: Page, name: string): Promise<void> {
  const names = page.getByRole('dialog').getByRole('listitem').getByRole('button')
  await expect(names.first()).toBeVisible()
  await page.getByLabel('Find by name').fill(name)
  // The list of everybody goes first: a name in it would move away under the tap.
  await expect(names.filter({ hasNotText: name })).toHaveCount(0)
  await names.filter({ hasText: name }).first().click()
  // A tap while it closes would meet what lies under it.
  await expect(page.getByRole('dialog')).toBeHidden()
}

/** The room's bikes, as they stand on the page before or during a class. */
export const floor = (page: Page) => page.getByRole('region', { name: 'The floor' })
export const tile = (page: Page, bike: number) =>
  floor(page).getByRole('button', { name: new RegExp(`^${bike}(?!\\d)`) })

/** Whether the page is kept on the device for when there is no network. */
export const isKept = (page: Page): Promise<boolean> =>
  page.evaluate(async () => {
    const cache = await caches.open('class-pages')
    return (await cache.match(location.pathname, { ignoreVary: true })) !== undefined
  })

/** Today's open floor, before anybody rides. */
export async function openFloor(page: Page): Promise<void> {
  await page.goto('/class/open')
  await page.waitForURL(/\/class\/[0-9a-f-]{36}$/)
}

/** Says on today's open floor who sits on a bike; whoever sat there before gets up. */
export async function seat(page: Page, bike: number, name: string): Promise<void> {
  await openFloor(page)
  const there = tile(page, bike)
  if (!/free$/.test((await there.innerText()).trim())) {
    await there.click()
    await page.getByRole('button', { name: 'Free this bike' }).click()
    await expect(there).toContainText('free')
  }
  await there.click()
  await sitDown(page, name)
  await expect(there).toContainText(name)
}

/** During a class: from any of its pages to the floor that takes notes. */
export async function watch(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'During' }).click()
  await page.waitForURL('**/watch')
}

/** A bike of the floor during a class, by what stands on it. */
export const watched = (page: Page, bike: number, text = '') =>
  floor(page).getByRole('button', { name: new RegExp(`^${bike}(?!\\d).*${text}`) })

/**
 * One thing seen of whoever sits on a bike: bike, region, sign. Where the network goes while the page asks for its
 * rows, the page reloads, and a tap may meet the page that is going: it is made again.
 */
export async function see(page: Page, bike: number, region: string, sign: string): Promise<void> {
  const part = page.getByRole('group', { name: 'Region' }).getByRole('button', { name: region, exact: true })
  const there = watched(page, bike).first()
  await expect(async () => {
    if ((await there.getAttribute('aria-pressed')) !== 'true') await there.click()
    await part.click({ timeout: 10_000 })
    await page.getByRole('button', { name: sign, exact: true }).click({ timeout: 10_000 })
  }).toPass()
}

/** Turns the light by the page's own switch, which may be covered or behind "More". */
export async function turnLight(page: Page, light: 'bright' | 'dim'): Promise<void> {
  await page.getByTitle(light === 'dim' ? 'Dim light' : 'Bright light').dispatchEvent('click')
  await expect(page.locator('html')).toHaveAttribute('data-light', light)
}

/** Somebody of this test alone, set up on a bike of the first type; resolves with their id. */
export async function riderOn(bikeId: string, name: string): Promise<string> {
  const [memberId, setupId, db] = [randomUUID(), randomUUID(), database()]
  const marks = { seatHeight: '8', seatSlide: 'B', barHeight: '5', barSlide: '1' }
  await insertMember(db, MANAGER, { id: memberId, name }, new Date())
  await giveConsent(db, MANAGER, memberId, 'spoken', new Date())
  await startSetup(db, MANAGER, { id: setupId, memberId, bikeId }, new Date())
  const row = { kind: 'kneeAngle', deg: 33, by: 'goniometer', at: marks } as const
  await appendEvidence(db, MANAGER, setupId, { id: randomUUID(), row }, new Date())
  await finishSetup(db, MANAGER, setupId, { id: randomUUID(), marks }, new Date())
  return memberId
}
