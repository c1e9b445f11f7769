import { expect, test } from './test'
import { floor, isKept, seat, STATE, watch, watched } from './hall'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false, actionTimeout: 15_000 })

test('a mark moved in the warm-up without network: three taps, kept, written once, and taken back', async ({
  page,
  context,
}) => {
  await seat(page, 2, 'Maren Tolle')
  await watch(page)
  await expect.poll(() => isKept(page)).toBe(true)
  await context.setOffline(true)
  // Three taps: the bike, the number, the way with its reason.
  await watched(page, 2).click()
  await page.screenshot({ path: '/tmp/m1.png' })
  await page.getByRole('button', { name: 'Bar height 5, move it' }).click()
  await page.screenshot({ path: '/tmp/m2.png' })
  await page.getByRole('group', { name: 'Bar height up' }).getByRole('button', { name: 'Comfort' }).click()
  await expect(watched(page, 2, 'bar height 5 → 6')).toBeVisible()
  await page.screenshot({ path: '/tmp/m3.png' })
  await context.setOffline(false)
  await expect(page.getByRole('button', { name: /on this device/ })).toBeHidden()
  await page.setViewportSize({ width: 390, height: 844 })
  await page.getByRole('button', { name: 'Seat height 8, move it' }).click()
  await expect(page.getByRole('region', { name: 'Move a mark' })).toHaveAttribute('aria-busy', 'false')
  await page.screenshot({ path: '/tmp/m4.png' })
  await page.getByRole('group', { name: 'Seat height up' }).getByRole('button', { name: 'Checked' }).click()
  await page.screenshot({ path: '/tmp/m5.png' })
  await page.goto('/riders/member-01')
  await page.getByRole('button', { name: 'Move a mark' }).click()
  await page.getByRole('button', { name: /^Seat slide/ }).click()
  await page.setViewportSize({ width: 1280, height: 800 })
  await expect(page.getByRole('region', { name: 'Move a mark' })).toHaveAttribute('aria-busy', 'false')
  await page.screenshot({ path: '/tmp/m6.png' })
  await expect(floor(page)).toBeHidden()
})
