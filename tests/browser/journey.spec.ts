import { expect, test } from './support/test'
import {
  addMember,
  addMemberByForm,
  done,
  mark,
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
} from './support/hall'

test(
  'with nothing but taps: set up a new member, note the knees in class, and find both ' + 'again after signing in anew',
  async ({ page }) => {
    const name = unique('Wenna Tarrow')
    await signIn(page, 'bram')
    await addMemberByForm(page, name)
    await expect(page.getByText('No numbers yet')).toBeVisible()
    await setUpAt(page, 1)

    await page.getByRole('button', { name: 'New', exact: true }).click()
    await page.getByRole('button', { name: 'Cage' }).click()
    await page.getByRole('button', { name: /Next\s*Beside/ }).click()
    await page.getByRole('button', { name: 'Hip crest' }).click()
    await mark(page, 'Seat height', '10').click()
    await expect(page.getByText(/^Set the seat at \d+, its slide at [A-H]/)).toBeVisible()
    await done(page).click()

    // The knee: seen too straight once, changed as told, then seen well.
    await page.getByRole('button', { name: 'Locked' }).click()
    await page.getByRole('button', { name: 'Lifts off' }).click()
    await expect(page.getByText('Stay in the saddle: level the cranks and hang the plumb line too.')).toBeVisible()
    await page.getByRole('button', { name: /Next\s*Cranks/ }).click()
    await page.getByRole('slider').click()
    await page.getByRole('button', { name: 'keep this' }).click()
    await expect(page.getByText(/^Lower the seat .*[.:] [Tt]he knee should come /)).toBeVisible()
    await done(page).click()
    for (let looks = 0; looks < 5; looks++) {
      await page.getByRole('button', { name: 'Slight bend' }).click()
      await page.getByRole('button', { name: 'Still bent' }).click()
      await workedOut(page)
      await page.getByRole('button', { name: /Next\s*Cranks/ }).click()
      await page.getByRole('slider').click()
      await page.getByRole('button', { name: 'keep this' }).click()
      await expect(page.getByRole('button', { name: 'kept' })).toBeVisible()
      await workedOut(page)
      if (await page.getByText(/^Leave the seat at/).isVisible()) break
      await done(page).click()
    }
    await expect(page.getByText(/^Leave the seat at/)).toBeVisible()
    await step(page, 'Bars').click()
    await expect(page.getByText(/^Bars at .* above the saddle, a new rider sits easier/)).toBeVisible()
    await page.getByRole('button', { name: /Next\s*Numbers/ }).click()
    const numbers = await page.locator('dl dd').allTextContents()
    expect(numbers).toHaveLength(4)
    await page.getByRole('button', { name: 'Save the numbers' }).click()
    await page.waitForURL('**/riders/**')
    await expect(page.getByRole('region', { name: 'Numbers' }).locator('dd')).toHaveText(numbers)
    await expect(page.getByText(/Checked on the bike by eye; the knee is right here for \d+ in 100/)).toBeVisible()

    // In class.
    await seat(page, 6, name)
    await watch(page)
    const sent = page.waitForResponse('**/api/outbox')
    // Somebody new is asked first; the yes goes with the note.
    await watched(page, 6).first().click()
    await expect(page.getByText(`${name} has not agreed to notes yet`)).toBeVisible()
    await page.getByRole('button', { name: 'They agree', exact: true }).click()
    await see(page, 6, 'Knees', 'Out, left')
    await expect(page.getByText(/“Feet first/)).toBeVisible()
    await sent

    await page.getByRole('button', { name: 'More', exact: true }).click()
    await page.getByRole('button', { name: 'Sign out' }).click()
    await page.waitForURL('**/sign-in')
    await page.goto('/members')
    await page.waitForURL('**/sign-in')

    await signIn(page, 'ines')
    await page.goto('/members')
    await expect(async () => {
      await page.keyboard.press('/')
      await expect(page.getByLabel('Find by name')).toBeFocused()
    }).toPass()
    await page.keyboard.type(name)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('region', { name: 'Numbers' }).locator('dd')).toHaveText(numbers)
    await expect(page.getByText('Knees: out')).toBeVisible()
    await expect(page.getByText(/Say: “Feet first/)).toBeVisible()
  },
)

test.describe('signed in', () => {
  test.use({ storageState: STATE })

  test(
    'with tape and goniometer: what cannot be is refused and kept, what is rare is asked ' +
      'about, and the numbers are saved',
    async ({ page }) => {
      const name = unique('Corin Vash')
      await addMember(page, name)
      await setUpAt(page, 3)
      await page.getByRole('button', { name: 'Regular' }).click()
      await page.getByRole('button', { name: /Next\s*Beside/ }).click()
      await page.getByText('Tape', { exact: true }).click()
      const [stature, inseam, keep] = [
        page.getByLabel('Stature'),
        page.getByLabel('Inseam'),
        page.getByRole('button', { name: 'Keep', exact: true }),
      ]
      await stature.fill('1700')
      await keep.click()
      await expect(page.getByText('A stature of 1700 cm cannot be; 100 cm to 250 cm can.')).toBeVisible()
      await expect(stature).toHaveValue('1700')
      await stature.fill('tall')
      await expect(page.getByText('“tall” is not a length.', { exact: false })).toBeHidden()
      await keep.click()
      await expect(page.getByText('“tall” is not a length. Write 172, 1.72 m or 5′8″.')).toBeVisible()
      await expect(stature).toHaveValue('tall')
      await stature.fill("5'7¾")
      await inseam.fill('103')
      await keep.click()
      await expect(page.getByText('That inseam is rare for this stature. Measured twice?')).toBeVisible()
      await inseam.fill('83')
      await keep.click()
      await expect(page.getByText(/^Set the seat at/)).toBeVisible()
      await done(page).click()
      await page.getByText('Goniometer').click()
      const dial = page.getByRole('slider', { name: /Knee bend/ })
      await dial.fill('41')
      await page.getByRole('button', { name: /41°/ }).click()
      await expect(page.getByText('Stay in the saddle: level the cranks and hang the plumb line too.')).toBeVisible()
      await expect(page.getByRole('img', { name: /Side view: knee bend at the bottom 41°/ })).toBeVisible()
      await page.getByRole('button', { name: /Next\s*Cranks/ }).click()
      await page.getByRole('slider', { name: /String/ }).fill('8')
      await page.getByRole('button', { name: /8 mm/ }).click()
      await expect(
        page.getByText(/^Raise the seat .*[.:] [Tt]he knee should come from (3|4)\d° to about (2|3)\d/),
      ).toBeVisible()
      await done(page).click()
      await page.getByRole('slider', { name: /Knee bend/ }).fill('30')
      await page.getByRole('button', { name: /30°/ }).click()
      await page.getByRole('button', { name: /Next\s*Cranks/ }).click()
      await page.getByRole('slider', { name: /String/ }).fill('2')
      await page.getByRole('button', { name: /2 mm/ }).click()
      await expect(page.getByText(/^Leave the seat at .*: the knee reads 30°/)).toBeVisible()
      await page.getByRole('button', { name: /Next\s*Bars/ }).click()
      await page.getByRole('button', { name: /Next\s*Numbers/ }).click()
      await page.getByRole('button', { name: 'Save the numbers' }).click()
      await expect(page.getByText('Measured on the bike', { exact: false })).toBeVisible()
      await expect(page.getByRole('region', { name: 'Numbers' })).toContainText('Meadowsweet, bike 3')
    },
  )

  test('leaving and coming back loses nothing, undo takes the last tap back, and a broken network only waits', async ({
    page,
    context,
  }) => {
    const name = unique('Ness Ardal')
    await addMember(page, name)
    await setUpAt(page, 5)
    await page.getByRole('button', { name: 'Experienced' }).click()
    await step(page, 'Beside').click()
    await mark(page, 'Seat height', 'K').click()
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()
    await page.waitForLoadState('networkidle')
    await page.getByRole('link', { name: /Leave/ }).click()
    await page.getByRole('link', { name: 'Go on with it' }).click()
    await expect(step(page, 'Beside')).toHaveAttribute('aria-current', 'step')
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()

    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.getByText(/then tap the mark it meets/)).toBeVisible()

    await context.route('**/api/outbox', (route) => route.abort())
    await mark(page, 'Seat height', 'L').click()
    await expect(page.getByText(/No network: kept on this device/)).toBeVisible()
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()
    await page.reload()
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()
    await context.unroute('**/api/outbox')
    await expect(page.getByText(/No network/)).toBeHidden()
    await page.evaluate(() => localStorage.clear())
    await page.reload()
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()
  })
})
