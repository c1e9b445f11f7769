import { readFileSync } from 'node:fs'
import { expect, test } from './support/test'
import { newDevice, settled, STATE, unique } from './support/hall'

test.use({ storageState: STATE })

test('a round on the phone: what is wrong takes a bike out of use, mended puts it back', async ({ browser }) => {
  const phone = await (
    await newDevice(browser, { viewport: { width: 390, height: 844 }, hasTouch: true, reducedMotion: 'reduce' })
  ).newPage()
  await phone.goto('/bikes/round?bike=7')
  await expect(phone.getByRole('heading', { name: 'Bike 7' })).toBeVisible()
  await phone.getByRole('group', { name: 'Stop' }).getByText('wrong').tap()
  await phone.getByLabel('What is wrong: Stop').fill('knob does not reach the wheel')
  await phone.getByRole('button', { name: 'The rest is good' }).tap()
  await phone.getByRole('button', { name: 'Keep, out of use' }).tap()
  await expect(phone.getByRole('heading', { name: 'Bike 7' })).toBeHidden()

  await phone.goto('/riders/member-16')
  await phone.getByRole('button', { name: /Set up now|New set-up/ }).tap()
  await expect(phone.getByRole('dialog').getByRole('button', { name: /^8(?!\d)/ })).toBeVisible()
  await expect(phone.getByRole('dialog').getByRole('button', { name: /^7(?!\d)/ })).toBeHidden()

  await phone.goto('/bikes')
  await phone.getByRole('link', { name: /^7(?!\d).*out of use/ }).tap()
  await expect(phone.getByText('knob does not reach the wheel')).toBeVisible()
  await phone.getByRole('button', { name: 'Mended' }).tap()
  await expect(phone.getByText('Good until', { exact: false })).toBeVisible()
  await expect(phone.getByText('7 of 8 good')).toBeVisible()
  await phone.close()
})

test('a saddle’s tilt is judged with the floor taken off, and says where to look first', async ({ page }) => {
  await page.goto('/bikes/bike-16')
  await page.getByLabel('Saddle, ° (minus is nose down)').fill('-0.5')
  await page.getByLabel('Floor here, °').fill('0.5')
  await expect(page.getByText('Nose down 1.0°; 2 to 4° down is wanted.')).toBeVisible()
  await expect(page.getByText('look there before levelling', { exact: false })).toBeVisible()
  await page.getByLabel('Saddle, ° (minus is nose down)').fill('-2,5')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('Saddle -2.5° over its two highest points, floor 0.5°')).toBeVisible()
  await page.getByRole('button', { name: 'A wedge or uneven foot' }).click()
  await page.getByLabel('Lifts the front by, mm').fill('100')
  await expect(page.getByText('Turns the saddle 6.3° nose up.')).toBeVisible()
})

test('a part seen to and one replaced; another saddle put on asks for tape and board again', async ({ page }) => {
  await page.goto('/bikes/bike-7')
  const care = page.getByRole('region', { name: 'Care' })
  const clamp = care.getByRole('listitem', { name: 'Bar clamp' })
  await expect(clamp).toContainText('the reach grows unnoticed')
  await clamp.getByRole('button', { name: 'Seen to' }).click()
  await expect(clamp).toBeHidden()
  await care.getByRole('button', { name: 'Every part' }).click()
  await expect(clamp).toContainText(/good until/)
  const straps = care.getByRole('listitem', { name: 'Straps and cages' })
  await straps.getByRole('button', { name: 'Replaced' }).click()
  await straps.getByLabel('Straps and cages: by what').fill('wider ones')
  await straps.getByRole('button', { name: 'Keep' }).click()
  await care.getByText('What was done').click()
  await expect(care.getByText('Straps and cages replaced: wider ones')).toBeVisible()

  const name = unique('Broad')
  await page.getByRole('button', { name: 'Another saddle' }).click()
  const form = page.getByRole('dialog')
  await form.getByLabel('Called here').fill(name)
  await form.getByLabel('Width at its widest').fill('172 mm')
  await form.getByRole('button', { name: 'Keep' }).click()
  await expect(form).toBeHidden()
  await page.getByRole('button', { name: 'It is on: tape and board again' }).click()
  await expect(page.getByText(/^Saddle replaced: what the tape said of this bike counts no longer/)).toBeVisible()
  await expect(page.getByText('172 mm wide, flat, no relief, medium', { exact: true })).toBeVisible()
  await care
    .getByRole('listitem')
    .filter({ hasText: `Saddle replaced: ${name}` })
    .getByRole('button', { name: 'Take back' })
    .click()
  await expect(page.getByText(/^Saddle replaced: what the tape said/)).toBeHidden()
})

test('one’s own export changes nothing; a broken file is refused whole, with every place', async ({ page }) => {
  await page.goto('/bikes')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export' }).click(),
  ])
  const text = readFileSync((await download.path())!, 'utf8')
  const bring = (body: string) =>
    page
      .locator('input[type=file]')
      .first()
      .setInputFiles({ name: 'types.json', mimeType: 'application/json', buffer: Buffer.from(body) })
  await bring(text)
  await expect(page.getByText('Nothing to import: all these types are here already.')).toBeVisible()
  const file = JSON.parse(text) as { types: { bikeType: { name: string; crankMm: number } }[] }
  file.types[0].bikeType.crankMm = 5
  file.types[1].bikeType.name = ''
  await bring(JSON.stringify(file))
  await expect(page.getByText('/types/0/bikeType/crankMm: is out of range: at least 50 is possible')).toBeVisible()
  await expect(page.getByText('/types/1/bikeType/name: must not be empty')).toBeVisible()
})

test('two managers edit a copied type: the second is told, and what was typed stays', async ({ page, browser }) => {
  const name = unique('Campion')
  await page.goto('/bikes/types/new?copy=sorrel')
  await page.getByLabel('Name').fill(name)
  await page.getByRole('button', { name: 'Save, then lay the tape' }).click()
  await page.waitForURL('**/tape')
  const editor = page.url().replace('/tape', '')
  const other = await (await newDevice(browser)).newPage()
  await Promise.all([page.goto(editor), other.goto(editor)])
  await page.getByLabel('Crank', { exact: true }).fill('172.5')
  await other.getByLabel('Crank', { exact: true }).fill('165')
  await page.getByRole('button', { name: 'Save version 2' }).click()
  await page.waitForURL('**/bikes')
  await other.getByRole('button', { name: 'Save version 2' }).click()
  await expect(other.getByText(/Ines Harrow changed this type on .* while you were editing it/)).toBeVisible()
  await expect(other.getByLabel('Crank', { exact: true })).toHaveValue('165')
  await other.reload()
  await expect(other.getByRole('heading', { level: 1, name })).toBeVisible()
  await expect(other.getByLabel('Crank', { exact: true })).toHaveValue('172.5 mm')
})

test('what is typed of a type and not saved is still there after the page was closed; one may begin anew', async ({
  page,
}) => {
  await page.goto('/bikes/types/bracken')
  await page.getByLabel('Crank', { exact: true }).fill('167.5')
  await settled(page)
  await page.goto('/members')
  await page.goto('/bikes/types/bracken')
  await expect(page.getByText('What was typed here last is still here, not saved yet.')).toBeVisible()
  await expect(page.getByLabel('Crank', { exact: true })).toHaveValue('167.5')
  await page.getByRole('button', { name: 'Begin anew' }).click()
  await expect(page.getByLabel('Crank', { exact: true })).toHaveValue('170 mm')
})

test('who fits is worked out in a thread of its own and said in a sentence; lengths by choice in feet', async ({
  page,
}) => {
  await page.goto('/bikes/fits')
  await expect(page.getByText(/^At 14\d cm and below, .* riders find no seat height mark on Bracken\.$/)).toBeVisible()
  await expect(page.getByText(/at least four riders in five find all their marks on some type/)).toBeVisible()
  await page.getByRole('button', { name: 'Lengths in feet and inches' }).click()
  await expect(
    page.getByText(/^At 4′\d+(½)?″ and below, .* riders find no seat height mark on Bracken\.$/),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Lengths in centimetres' }).click()
})
