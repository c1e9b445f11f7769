import type { Page } from '@playwright/test'
import { addMember, done, floor, mark, STATE, sitDown, step, tile, turnLight, unique, workedOut } from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE })

/** Counts what a hand does on a page and the pages after it: taps, and keys pressed. */
async function counting(page: Page): Promise<Readonly<{ taps: () => Promise<number>; keys: () => Promise<number> }>> {
  await page.addInitScript(() => {
    for (const kind of ['pointerdown', 'keydown'])
      addEventListener(
        kind,
        (event) => {
          if (event.isTrusted) sessionStorage.setItem(kind, String(Number(sessionStorage.getItem(kind) ?? 0) + 1))
        },
        true,
      )
  })
  const read = (kind: string) => page.evaluate((key) => Number(sessionStorage.getItem(key) ?? 0), kind)
  return { taps: () => read('pointerdown'), keys: () => read('keydown') }
}
const reset = (page: Page) => page.evaluate(() => sessionStorage.clear())
const dock = (page: Page, name: string | RegExp) =>
  page.getByRole('region', { name: 'What to do next' }).getByRole('button', { name })
const forward = (page: Page) => page.locator('[data-forward]')

test('taps of an evening: a newcomer with knee and plumb, the same rider again, by keyboard', async ({ page }) => {
  const { taps, keys } = await counting(page)
  const name = unique('Tapp Newcomer')
  await addMember(page, name)
  const rider = page.url()
  await reset(page)
  await page.getByRole('button', { name: 'Set up now' }).click()
  await page.getByRole('button', { name: /^9(?!\d)/ }).click()
  await page.waitForURL('**/set-up/**')
  await expect(page.getByRole('img', { name: /^Side view/ })).toBeVisible()
  await dock(page, 'New').click()
  await workedOut(page)
  await forward(page).click()
  await mark(page, 'Seat height', '9').click()
  await workedOut(page)
  await done(page).click()
  await dock(page, 'Slight bend').click()
  await workedOut(page)
  await forward(page).click()
  const plumb = page.getByRole('slider')
  await plumb.click()
  await dock(page, /keep this/).click()
  await workedOut(page)
  // Whatever it advises from here is done, until the numbers stand there.
  for (let more = 0; more < 8; more++) {
    if ((await page.getByRole('button', { name: 'Save the numbers' }).count()) > 0) break
    await forward(page).click()
    await workedOut(page)
  }
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await page.waitForURL(rider)
  expect(await taps()).toBeLessThanOrEqual(16)

  // The same rider on another evening: all as before, a glance, save.
  await page.getByRole('button', { name: 'New set-up' }).click()
  await page.getByRole('button', { name: /^9(?!\d)/ }).click()
  await page.waitForURL('**/set-up/**')
  await expect(page.getByRole('img', { name: /^Side view/ })).toBeVisible()
  await reset(page)
  await dock(page, /All as before/).click()
  await dock(page, 'Slight bend').click()
  await workedOut(page)
  await dock(page, /Save/).click()
  await page.waitForURL(rider)
  expect(await taps()).toBeLessThanOrEqual(3)

  // Another newcomer, with keys alone.
  await addMember(page, unique('Keyes Newcomer'))
  await page.getByRole('button', { name: 'Set up now' }).click()
  await page.getByRole('button', { name: /^9(?!\d)/ }).click()
  await page.waitForURL('**/set-up/**')
  await expect(page.getByRole('img', { name: /^Side view/ })).toBeVisible()
  await reset(page)
  const press = async (...names: string[]) => {
    for (const one of names) await page.keyboard.press(one)
  }
  await step(page, 'Talk').focus()
  // To the first answer of the first step.
  for (let i = 0; i < 20 && !(await focusIs(page, 'New')); i++) await press('Tab')
  await press('Enter')
  await workedOut(page)
  await expect(forward(page)).toBeFocused()
  await press('Enter')
  await expect(page.locator('[data-asking] [data-focus]')).toBeFocused()
  await press('ArrowDown', 'Enter')
  await workedOut(page)
  await expect(forward(page)).toBeFocused()
  await press('Enter')
  await expect(dock(page, 'Locked')).toBeFocused()
  await press('Tab', 'Enter')
  for (let more = 0; more < 8; more++) {
    await workedOut(page)
    await expect(forward(page)).toBeFocused()
    if ((await forward(page).innerText()).includes('Save')) break
    const [before, way] = [await currentStep(page), await forward(page).innerText()]
    await press('Enter')
    // Enter did something: another step, or another way on within this one.
    await expect.poll(async () => [await currentStep(page), await forward(page).innerText()]).not.toEqual([before, way])
    await workedOut(page)
    const after = await currentStep(page)
    if (after === before) continue
    if (after === 'Cranks') {
      await page.getByRole('slider').waitFor()
      for (let i = 0; i < 8 && !(await page.getByRole('slider').evaluate((e) => e === document.activeElement)); i++)
        await press('Tab')
      await press('4', 'Enter')
    } else
      for (let i = 0; i < 12 && !(await forward(page).evaluate((e) => e === document.activeElement)); i++)
        await press('Tab')
  }
  await press('Enter')
  await page.waitForURL('**/riders/**')
  expect(await keys()).toBeLessThanOrEqual(45)
})

const currentStep = (page: Page): Promise<string> =>
  page.getByRole('navigation', { name: 'Steps' }).locator('[aria-current]').innerText()

const focusIs = (page: Page, text: string): Promise<boolean> =>
  page.evaluate((wanted) => document.activeElement?.textContent?.trim() === wanted, text)

test('taps at the door: twenty-four booked, somebody nobody knows walks in, nobody moves unasked', async ({ page }) => {
  const { taps } = await counting(page)
  await page.goto('/class')
  const title = unique('Door Ride')
  await page.getByRole('button', { name: 'Add a class' }).click()
  await page.getByRole('dialog').getByRole('textbox', { name: 'Name' }).fill(title)
  await page.getByRole('dialog').getByRole('button', { name: 'Add the class' }).click()
  await page.getByRole('link', { name: new RegExp(title) }).click()
  await expect(page.getByRole('heading', { name: title })).toBeVisible()
  await reset(page)
  await page.getByRole('button', { name: 'Book' }).click()
  const names = page.getByRole('dialog').getByRole('listitem').getByRole('button')
  for (let i = 0; i < 24; i++) {
    await names.filter({ hasNotText: '✓' }).first().click()
    await expect(names.filter({ hasText: '✓' })).toHaveCount(i + 1)
  }
  expect(await taps()).toBeLessThanOrEqual(30)
  await page.keyboard.press('Escape')
  const seats = async (): Promise<Record<string, string>> => {
    const spoken = await floor(page)
      .getByRole('button')
      .evaluateAll((tiles) => tiles.map((one) => one.getAttribute('aria-label') ?? ''))
    return Object.fromEntries(spoken.map((one) => /^(\d+) ([^,]*)/.exec(one)!.slice(1, 3)))
  }
  await expect(floor(page).getByRole('button', { name: /free$/ })).toHaveCount(0)
  // Three do not come: two who had no bike sit down, one bike stays free. The next who comes in is in no list at all.
  const isFree = floor(page).getByRole('button', { name: /free$/ })
  for (let gone = 0; gone < 3; gone++) {
    const there = await tile(page, 12).innerText()
    await tile(page, 12).click()
    await page.getByRole('button', { name: 'Not coming' }).click()
    await expect(tile(page, 12)).not.toHaveText(there, { useInnerText: true })
  }
  await expect(isFree).toHaveCount(1)
  const before = await seats()
  await reset(page)
  const walkIn = unique('Nobody Yet')
  await page.getByRole('button', { name: 'Walk-in' }).click()
  await page.getByLabel('Find by name').fill(walkIn)
  await page.getByRole('button', { name: `Add “${walkIn}” and give a bike` }).click()
  // A message under the pointer stays, however long the looks below take.
  await page.getByText(new RegExp(`${walkIn}: bike \\d+`)).hover()
  expect(await taps()).toBeLessThanOrEqual(4)
  await expect(floor(page).getByRole('button', { name: new RegExp(walkIn) })).toBeVisible()
  const [at] = Object.entries(before).find(([, name]) => name === 'free')!
  expect(await seats()).toEqual({ ...before, [at]: walkIn })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(isFree).toHaveCount(1)

  // A note: bike, region, sign.
  await page.getByRole('link', { name: 'During' }).click()
  await page.waitForURL('**/watch')
  await reset(page)
  await tile(page, 1).click()
  await page.getByRole('group', { name: 'Region' }).getByRole('button', { name: 'Knees', exact: true }).click()
  await page.getByRole('button', { name: 'Out, left', exact: true }).click()
  await expect(tile(page, 1)).toContainText('knees out, left')
  expect(await taps()).toBe(3)
})

/** Elements whose text is cut off sideways, and by how far the page is wider than the screen. */
const cutOff = (page: Page) =>
  page.evaluate(() => {
    const cut = [...document.querySelectorAll<HTMLElement>('main *, header *')].filter((element) => {
      const style = getComputedStyle(element)
      const clips = style.overflowX !== 'visible' && style.textOverflow !== 'ellipsis'
      const hasText = [...element.childNodes].some((node) => node.nodeType === 3 && node.textContent!.trim() !== '')
      const isSeen = element.clientWidth > 1
      return isSeen && clips && hasText && element.scrollWidth > element.clientWidth + 1 && style.overflowX === 'hidden'
    })
    return {
      wider: document.documentElement.scrollWidth - innerWidth,
      cut: cut.map((element) => `${element.tagName} ${element.textContent!.slice(0, 40)}`),
    }
  })

const SIZES = [
  [1280, 800],
  [1024, 768],
  [820, 1180],
  [390, 844],
] as const

test('nothing is cut off and no page is wider than the screen, with names of forty letters', async ({
  page,
  context,
}) => {
  const long = unique('Wilhelmina Quentina Marlowe-Thornb').slice(0, 40)
  await addMember(page, long)
  const rider = page.url()
  await page.goto('/class/open')
  await page.waitForURL(/\/class\/[0-9a-f-]{36}$/)
  const open = page.url()
  const free = floor(page).getByRole('button', { name: /free$/ }).first()
  await free.click()
  await sitDown(page, long)
  await expect(floor(page).getByRole('button', { name: new RegExp(long) })).toBeVisible()
  const faults: string[] = []
  for (const path of ['/today', '/members', rider, '/class', open, `${open}/watch`, `${open}/after`, '/bikes']) {
    await page.goto(path)
    await page.locator('h1').first().waitFor()
    // Turned and resized like a window: no page needs to be opened for each size and light.
    for (const light of ['bright', 'dim'] as const) {
      if (light === 'dim') await turnLight(page, light)
      for (const [width, height] of SIZES) {
        await page.setViewportSize({ width, height })
        const { wider, cut } = await cutOff(page)
        if (wider > 0 || cut.length > 0) faults.push(`${path} ${width} ${light}: wider ${wider}; ${cut.join(' | ')}`)
      }
    }
    await turnLight(page, 'bright')
  }
  // Offline on a phone, with something on the device. The rider is chosen before: the page has its rows by then.
  await page.goto(`${open}/watch`)
  await page.locator('html[data-ready]').waitFor()
  await floor(page)
    .getByRole('button', { name: new RegExp(long) })
    .click()
  await expect(page.getByRole('button', { name: 'All well' })).toBeVisible()
  await context.setOffline(true)
  await page.getByRole('button', { name: 'All well' }).click()
  await expect(page.getByRole('button', { name: /on this device/ })).toBeVisible()
  expect(await cutOff(page)).toEqual({ wider: 0, cut: [] })
  await context.setOffline(false)
  expect(faults).toEqual([])
})
