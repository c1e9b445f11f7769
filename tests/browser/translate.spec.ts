import { signIn, STATE } from './support/hall'
import { expect, test } from './support/test'

test.describe('signed in', () => {
  test.use({ storageState: STATE })

  test('a rider’s numbers stand on every other type, with what is left over, why, and both bikes drawn', async ({
    page,
  }) => {
    await page.goto('/riders/member-01')
    const others = page.getByRole('region', { name: 'On other bikes' })
    const row = others.getByRole('button', { name: /^Bracken/ })
    await expect(row).toContainText(
      /the saddle \d+ mm higher, the reach \d+ mm longer and the bars \d+ mm higher against the saddle\.$/,
    )
    await row.click()
    await expect(others.getByRole('img', { name: /faint behind Bracken, to scale/ })).toBeVisible()
    await expect(others.getByText(/keeps its distance to the farthest pedal/)).toBeVisible()
    await expect(others.getByText(/^Translated, not looked at/)).toBeVisible()
    await row.click()
    await expect(others.getByRole('img')).toBeHidden()
  })
})

test('the desk reads the numbers on another type as well', async ({ page }) => {
  await signIn(page, 'tove')
  await page.goto('/riders/member-01')
  const row = page.getByRole('region', { name: 'On other bikes' }).getByRole('button', { name: /^Bracken/ })
  await expect(row).toContainText(/the reach \d+ mm longer/)
})
