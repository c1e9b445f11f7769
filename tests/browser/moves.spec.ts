import { expect, test } from './support/test'
import { floor, isKept, newDevice, riderOn, seat, STATE, tile, unique, watch, watched } from './support/hall'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false })

test('a mark moved offline with three taps is stored once, undone, and shown before and after class', async ({
  page,
  context,
}) => {
  const name = unique('Ansel Threetap')
  const memberId = await riderOn('bike-2', name)
  await seat(page, 2, name)
  await watch(page)
  const during = page.url()
  await expect.poll(() => isKept(page)).toBe(true)
  await context.setOffline(true)
  const numbers = page.getByRole('group', { name: 'Numbers' })
  const shown = async () => (await numbers.getByRole('button').allInnerTexts()).map((text) => text.split(/\s/).at(-1))
  // Three taps: the bike, the number, the way with its reason.
  await watched(page, 2).click()
  const before = await shown()
  await numbers.getByRole('button', { name: /^Bar height/ }).click()
  const up = page.getByRole('group', { name: 'Bar height up' })
  const label = await up.locator('b').innerText()
  await up.getByRole('button', { name: 'Comfort' }).click()
  await expect(watched(page, 2, `bar height ${before[2]} → ${label}`)).toBeVisible()
  expect(await shown()).toEqual(before.with(2, label))
  // The page reloads while nothing reached the server: the bike and the tap to take back are still there.
  await page.getByRole('group', { name: 'Region' }).getByRole('button', { name: 'Knees', exact: true }).click()
  await page.reload()
  await expect(watched(page, 2, 'bar height')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByRole('button', { name: 'Knees', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeVisible()
  expect(await shown()).toEqual(before.with(2, label))

  // After opens before the move is delivered: its line comes by itself.
  let deliver: () => void = () => undefined
  const held = new Promise<void>((resolve) => (deliver = resolve))
  await page.route('**/api/outbox', async (route) => {
    await held
    await route.continue()
  })
  await context.setOffline(false)
  await page.getByRole('link', { name: 'After' }).click()
  await page.waitForURL('**/after')
  await expect(page.getByText('lines to see to').or(page.getByText('line to see to'))).toBeVisible()
  const line = page.getByRole('listitem').filter({ hasText: name }).filter({ hasText: 'bar height' })
  await expect(line).toHaveCount(0)
  deliver()
  await expect(line).toContainText('should be looked at again')

  // Before: a second change the same day asks why it does not wait; it stays where it is.
  await page.getByRole('link', { name: 'Before' }).click()
  await tile(page, 2).click()
  await numbers.getByRole('button', { name: `Bar height ${label}, move it` }).click()
  await page.getByRole('group', { name: 'Bar height down' }).getByRole('button', { name: 'Felt' }).click()
  // Where the outlook was there before the tap, it asks first whether the mark is meant.
  const again = page.getByText('A mark was moved today already')
  const meant = page.getByRole('button', { name: 'Move it', exact: true })
  await expect(again.or(meant)).toBeVisible()
  if (await meant.isVisible()) await meant.click()
  await expect(again).toBeVisible()
  await page.getByRole('button', { name: 'Went too far' }).click()
  await expect(page.getByRole('status').filter({ hasText: `${label} → ${before[2]}` })).toBeVisible()
  await expect(numbers.getByRole('button', { name: `Bar height ${before[2]}, move it` })).toBeVisible()
  // The number is back at once, also before the server has it.
  const undone = page.waitForResponse((answer) => answer.request().postData()?.includes('undoMove') ?? false)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(numbers.getByRole('button', { name: `Bar height ${label}, move it` })).toBeVisible()
  expect((await undone).ok()).toBe(true)

  await page.goto(`/riders/${memberId}`)
  await expect(page.getByRole('region', { name: 'Numbers' }).locator('dd')).toHaveText(
    before.with(2, label) as string[],
  )
  await expect(page.getByRole('region', { name: 'Time line' })).toContainText('moved for comfort')
  await page.goto(during)
  await expect(watched(page, 2, 'bar height')).toBeVisible()
})

test('the later of two devices that move one axis shows the present mark and its author; undo is one tap', async ({
  page,
  browser,
}) => {
  const name = unique('Tova Twice')
  await riderOn('bike-1', name)
  await seat(page, 1, name)
  await watch(page)
  const other = await newDevice(browser, { serviceWorkers: 'allow' })
  const second = await other.newPage()
  await second.goto(page.url())
  await expect.poll(() => isKept(second)).toBe(true)
  await other.setOffline(true)
  const moved = async (on: typeof page, way: string) => {
    await watched(on, 1).click()
    await on.getByRole('button', { name: /^Bar height/ }).click()
    await on.getByRole('group', { name: way }).getByRole('button', { name: 'Comfort' }).click()
  }
  await moved(second, 'Bar height down')
  const taken = page.waitForResponse('**/api/outbox')
  await moved(page, 'Bar height up')
  expect((await taken).ok()).toBe(true)
  await other.setOffline(false)
  const told = second.getByRole('complementary', { name: 'Notes' }).getByRole('alert')
  await expect(told).toContainText(/Not moved: Ines Harrow set this to \S+ at \d\d:\d\d/)
  await second.getByRole('button', { name: 'Got it' }).click()
  await expect(told).toBeHidden()
  await expect(watched(second, 1, 'bar height')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(watched(page, 1, 'bar height')).toHaveCount(0)
  await expect(watched(second, 1, 'bar height')).toHaveCount(0)
  await expect(floor(page)).toBeVisible()
  await other.close()
})
