import { test } from './test'
import { signIn, STATE } from './hall'

test('an instructor signs in', async ({ page }) => {
  await signIn(page)
  await page.context().storageState({ path: STATE })
})
