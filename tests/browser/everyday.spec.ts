import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { expect, test } from './support/test'
import { addMember, STATE, unique } from './support/hall'

test.use({ storageState: STATE })

const menu = async (page: Page, item: string) => {
  await page.getByRole('button', { name: /More$/ }).click()
  await page.getByRole('menuitem', { name: item }).click()
}

test('a member entered twice is merged, found under the old address, and at last erased for good', async ({ page }) => {
  const [twice, once] = [unique('Ada Twyce'), unique('Ada Onse')]
  await addMember(page, once)
  const kept = page.url()
  await addMember(page, twice)
  const merged = page.url()
  await menu(page, 'Edit name and details')
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Member number').fill(`T-${twice.slice(-5)}`)
  await dialog.getByLabel('Height, without shoes').fill('17')
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText(/no height of an adult/)).toBeVisible()
  await dialog.getByLabel('Height, without shoes').fill('1,71')
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText(`No. T-${twice.slice(-5)}, 171 cm`)).toBeVisible()

  await menu(page, 'Merge with another member')
  await dialog.getByRole('combobox').fill(once)
  await page.getByTitle(once).click()
  await expect(dialog.getByText('This cannot be undone.', { exact: false })).toBeVisible()
  await dialog.getByRole('button', { name: `Merge into ${once}` }).click()
  await page.waitForURL(kept)
  await page.goto(merged)
  await page.waitForURL(kept)
  await expect(page.getByText(`No. T-${twice.slice(-5)}, 171 cm`)).toBeVisible()

  await menu(page, 'Their data: take or erase')
  const file = page.waitForEvent('download')
  await page.getByRole('link', { name: 'All rows, JSON' }).click()
  expect(readFileSync(await (await file).path(), 'utf8')).toContain(once)
  await page.getByRole('button', { name: 'Erase' }).click()
  const erase = dialog.getByRole('button', { name: 'Erase for good' })
  await dialog.getByLabel('Type the name to erase it').fill(twice)
  await expect(erase).toBeDisabled()
  await dialog.getByLabel('Type the name to erase it').fill(once)
  await erase.click()
  await page.waitForURL('**/members')
  // Neither by name, nor under the address of either entry.
  await page.getByLabel('Find by name').fill(once)
  await expect(page.getByText(`Nobody here is called “${once}”.`)).toBeVisible()
  for (const address of [kept, merged]) {
    await page.goto(address)
    await expect(page.getByText(once)).toBeHidden()
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(once)
  }
})

test('a class is renamed with undo, repeated and called off; a bike gets another number, retires and returns', async ({
  page,
}) => {
  const title = unique('Evening Spin')
  await page.goto('/class')
  await page.getByRole('button', { name: 'Add a class' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill(title)
  await dialog.getByRole('button', { name: 'Add the class' }).click()
  await page.getByRole('link', { name: new RegExp(title) }).click()
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toContainText(title)
  await page.getByRole('button', { name: 'Edit class' }).click()
  await dialog.getByLabel('Name').fill(`${title} late`)
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(heading).toContainText(`${title} late`)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(heading).not.toContainText('late')
  await page.getByRole('button', { name: 'Edit class' }).click()
  await dialog.getByRole('button', { name: 'Call off' }).click()
  await expect(page.getByText('cancelled')).toBeVisible()

  await page.goto('/bikes')
  await page.getByRole('button', { name: 'Add machines' }).click()
  await dialog.getByLabel(/^Numbers/).fill('990')
  await dialog.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('link', { name: /^990/ }).click()
  await menu(page, 'Change its number')
  await dialog.getByLabel('Number').fill('1')
  await dialog.getByRole('button', { name: 'Change the number' }).click()
  await expect(page.getByText('another bike has this number', { exact: false })).toBeVisible()
  await dialog.getByLabel('Number').fill('991')
  await dialog.getByRole('button', { name: 'Change the number' }).click()
  await expect(heading).toContainText('Bike 991')
  await menu(page, 'Retire it')
  await dialog.getByRole('button', { name: 'Retire it' }).click()
  await expect(page.getByText(/^Retired on/)).toBeVisible()
  await page.getByRole('main').getByRole('button', { name: 'Back into use' }).click()
  await expect(page.getByText(/^Retired on/)).toBeHidden()
  await menu(page, 'Remove: added by mistake')
  await page.waitForURL('**/bikes')
  await expect(page.getByRole('link', { name: /^991/ })).toBeHidden()
})
