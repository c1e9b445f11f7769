import { createConnection } from 'mysql2/promise'
import { readFileSync } from 'node:fs'
import { setUpAt, STATE, unique, workedOut } from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE })

test('with / from anywhere and three letters the numbers stand there, with which is which', async ({ page }) => {
  await page.goto('/class')
  await page.keyboard.press('/')
  await page.getByRole('textbox', { name: 'Find a rider’s numbers' }).fill('mar')
  const found = page.getByRole('dialog').getByRole('button', { name: /^Maren Tolle/ })
  await expect(found).toContainText('Seat height')
  await expect(found).toContainText('Sorrel')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Maren Tolle' })).toBeVisible()
})

test('worked out for another type and kept; the tape on one machine is the truth and moves its mark', async ({
  page,
}) => {
  await page.goto('/riders/member-05')
  const others = page.getByRole('region', { name: 'On other bikes' })
  const row = others.getByRole('button', { name: /^Sorrel/ })
  await expect(row).not.toContainText('…')
  await row.click()
  await others.getByRole('button', { name: 'Keep for Sorrel' }).click()
  await expect(row).toContainText('Kept there as well, worked out')
  await others.getByRole('combobox', { name: 'On which machine' }).press('ArrowDown')
  await page.keyboard.press('Enter')
  const wanted = others.getByLabel(/^saddle height, wanted/)
  await expect(wanted).toBeVisible()
  const before = await others.locator('p b').first().innerText()
  const label = (await wanted.locator('..').innerText()).match(/wanted (\d+) mm/)![1]
  // The seat stands three centimetres lower than its mark says.
  await wanted.fill(String(Number(label) - 30))
  await others.getByRole('button', { name: 'Keep what the tape reads' }).click()
  const changed = page.getByRole('button', { name: 'The bike has changed, keep it' })
  await changed.click()
  await expect(others.getByText(/post reads low/)).toBeVisible()
  await expect(others.locator('p b').first()).not.toHaveText(before)
})

test('back to earlier numbers with one tap, itself on the time line', async ({ page }) => {
  await page.goto('/riders/member-02')
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Shoes or saddle changed' }).click()
  await page.getByLabel('Sole thicker by').fill('30')
  await page.getByRole('button', { name: 'Keep for all' }).click()
  const line = page.getByRole('region', { name: 'Time line' })
  await expect(line).toContainText('new shoes, 30 mm thicker')
  await line.getByRole('button', { name: 'Use again' }).click()
  await expect(line).toContainText('back to the numbers of')
  await line.getByRole('button', { name: 'Compare' }).nth(0).click()
  await line.getByRole('button', { name: 'Compare' }).nth(1).click()
  await expect(page.getByRole('region', { name: 'Compared' })).toContainText(/Saddle \d+ mm lower\./)
})

test('a knee that does not go with the marks: what may be mis-set, and a tap takes the looks where it stood', async ({
  page,
}) => {
  await page.goto('/riders/member-07')
  await setUpAt(page, 1)
  await page.getByRole('button', { name: /^All as before/ }).click()
  await page.getByRole('button', { name: 'Deep bend' }).click()
  await page.getByText('Goniometer', { exact: true }).click()
  await page.getByLabel('Type the knee angle').fill('46')
  await page.keyboard.press('Enter')
  await workedOut(page)
  const before = await page.getByRole('button', { name: /^Seat height .*set here/ }).getAttribute('aria-label')
  await page.getByText('Mis-set?').click()
  const causes = page.getByRole('list').filter({ hasText: 'a mark off' })
  await expect(causes.getByRole('link', { name: 'Take the tape' })).toHaveAttribute('href', '/bikes/bike-1')
  await causes
    .getByRole('listitem')
    .filter({ hasText: /seat height stands at/ })
    .first()
    .getByRole('button', { name: /^It stood at/ })
    .click()
  await expect(page.getByText('What was seen counts there now')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Seat height .*set here/ })).not.toHaveAttribute('aria-label', before!)
})

test('the side view and the scales go out as SVG files that stand alone', async ({ page }) => {
  await page.goto('/riders/member-01')
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Drawings, SVG' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('img', { name: /^Side view/ })).toBeVisible()
  for (const [which, shows] of [
    ['Side view', 'path'],
    ['Scales', 'text'],
  ] as const) {
    const file = page.waitForEvent('download')
    await dialog.getByRole('figure', { name: which }).getByRole('button', { name: 'SVG' }).click()
    const text = readFileSync(await (await file).path(), 'utf8')
    const found = await page.evaluate((svg) => {
      const read = new DOMParser().parseFromString(svg, 'image/svg+xml')
      const [root] = [read.documentElement]
      return {
        root: root.nodeName,
        paths: read.querySelectorAll('path').length,
        texts: read.querySelectorAll('text').length,
      }
    }, text)
    expect(found.root).toBe('svg')
    expect(shows === 'path' ? found.paths : found.texts).toBeGreaterThan(8)
    // Colours and sizes are its own: nothing of the page is needed to see it.
    expect(text).not.toMatch(/var\(|class=/)
    expect(text).toMatch(/fill:rgb|fill: rgb/)
  }
})

test('a list with faults is told line by line; corrected it is brought in, and goes out the same', async ({ page }) => {
  const name = unique('Ida Kestrand')
  const head = 'name,bike type,purpose,seat height,seat slide,bar height,bar slide,how sure,sole mm,pedal,since'
  const lines = (height: string) =>
    [head, `${name},Sorrel,usual,${height},C,5,2,told,12,cleat,2026-01-31`, ''].join('\r\n')
  const file = (text: string) => ({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await page.goto('/studio/files')
  const choose = page.locator('input[type=file]')
  await choose.setInputFiles(file(lines('77')))
  await page.getByRole('button', { name: 'Check every line' }).click()
  await expect(page.getByText(/^Line 2, seat height: Sorrel has no 77 here/)).toBeVisible()
  await choose.setInputFiles(file(lines('7')))
  await page.getByRole('button', { name: 'Check every line' }).click()
  await expect(page.getByText(/1 lines, all right\. 1 new member/)).toBeVisible()
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByText(/^Imported\./)).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Members and numbers' }).click()
  const out = readFileSync(await (await download).path(), 'utf8').split('\r\n')
  // By the names of its columns: the file has others that stayed empty, or that another test's type brought.
  const [headings, row] = [out[0], out.find((line) => line.includes(name))!].map((line) => line.split(','))
  expect(
    head
      .split(',')
      .map((column) => row[headings.indexOf(column)])
      .join(','),
  ).toBe(lines('7').split('\r\n')[1])
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } })

  test('a member’s own page: the numbers, how it felt, and once the link is taken back or too old, neither', async ({
    page,
    browser,
  }) => {
    await page.goto('/riders/member-03')
    const own = page.getByRole('region', { name: 'Their own page' })
    await own.getByRole('button', { name: 'Make a link' }).click()
    const address = await own.getByText('/m/').innerText()
    // Somebody who signs in nowhere.
    const phone = await browser.newContext({
      storageState: { cookies: [], origins: [] },
      viewport: { width: 390, height: 844 },
    })
    const theirs = await phone.newPage()
    await theirs.goto(address)
    await expect(theirs.getByText('Seat height').first()).toBeVisible()
    await expect(theirs.getByText('Direct drive', { exact: false })).toBeVisible()
    await theirs.getByRole('button', { name: '7', exact: true }).click()
    await theirs.getByRole('button', { name: 'Knees' }).click()
    await theirs.getByRole('button', { name: 'Send' }).click()
    await expect(theirs.getByRole('status')).toContainText('Thank you')
    await page.reload()
    await expect(own).toContainText('Felt 7 of 10, knees')
    const answer = await theirs.goto(address)
    expect(answer!.headers()['x-robots-tag']).toContain('noindex')

    const database = await createConnection({ uri: process.env.DATABASE_URL })
    await database.query("UPDATE member_link SET expires_at = '2026-01-01' WHERE member_id = 'member-03'")
    await database.end()
    expect((await theirs.goto(address))!.status()).toBe(404)
    await expect(theirs.getByRole('heading', { name: 'This link has ended' })).toBeVisible()

    await page.reload()
    await own.getByRole('button', { name: 'Make a link' }).click()
    const next = await own.getByText('/m/').innerText()
    expect(next).not.toBe(address)
    expect((await theirs.goto(next))!.status()).toBe(200)
    await own.getByRole('button', { name: 'End this link' }).click()
    await expect(own.getByRole('button', { name: 'Make a link' })).toBeVisible()
    expect((await theirs.goto(next))!.status()).toBe(404)
    await phone.close()
  })
})
