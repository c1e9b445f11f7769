import type { Page } from '@playwright/test'
import {
  addMember,
  done,
  floor,
  isKept,
  mark,
  newDevice,
  see,
  signIn,
  sitDown,
  STATE,
  step,
  tile,
  unique,
  watch,
  watched,
  workedOut,
} from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE, serviceWorkers: 'allow', warm: false })

const pill = (page: Page) => page.getByRole('button', { name: /on this device/ })
const CLOCK = new Intl.DateTimeFormat('sv', {
  timeZone: 'Europe/Oslo',
  dateStyle: 'short',
  timeStyle: 'short',
})

/** Drags what stands on one bike to another, as a hand with a mouse does; it lets go once the page says where it is. */
async function drag(page: Page, from: number, to: number): Promise<void> {
  const said = page.locator('[id^="DndLiveRegion"]')
  const middleOf = async (bike: number) => {
    await tile(page, bike).scrollIntoViewIfNeeded()
    const box = (await tile(page, bike).boundingBox())!
    return [box.x + box.width / 2, box.y + box.height / 2] as const
  }
  await expect(async () => {
    await page.mouse.up()
    await page.mouse.move(...(await middleOf(from)))
    await page.mouse.down()
    const [x, y] = await middleOf(to)
    await page.mouse.move(x - 12, y - 6, { steps: 8 })
    await page.mouse.move(x, y, { steps: 4 })
    await expect(said).toHaveText(new RegExp(`over bike ${to}\\.`), { timeout: 5000 })
  }).toPass()
  await page.mouse.up()
}

/** Picks up what has the focus, carries it one place, and sets it down: each step as the page says it is done. */
async function carry(page: Page, arrow: 'ArrowDown' | 'ArrowUp'): Promise<void> {
  const said = page.locator('[id^="DndLiveRegion"]')
  await page.keyboard.press('Space')
  // Over where it was: a bike, or a place in a list.
  await expect(said).toHaveText(/ over (bike|place) \d+\.$/)
  const before = await said.innerText()
  await page.keyboard.press(arrow)
  await expect(said).not.toHaveText(before)
  await page.keyboard.press('Space')
}

/** At the bike: by eye until it says stop, then saved. */
async function setUpByEye(page: Page): Promise<void> {
  await page.waitForURL('**/set-up/**')
  await expect(page.getByRole('img', { name: /^Side view/ })).toBeVisible()
  await step(page, 'Beside').click()
  await mark(page, 'Seat height', '9').click()
  await done(page).click()
  await page.getByRole('button', { name: 'Slight bend' }).click()
  await workedOut(page)
  await step(page, 'Numbers').click()
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await page.waitForURL(/\/class\/[0-9a-f-]{36}$/)
}

test('a whole class: brought in, placed, pinned, two set up, one late, notes without network, what is left', async ({
  page,
  context,
  browser,
}) => {
  const [first, second, late] = [unique('Gerda Inlow'), unique('Hanno Veld'), unique('Ismay Corran')]
  for (const name of [first, second, late]) await addMember(page, name)

  // Brought in: a list, half an hour from now, with a line that cannot be read and a name nobody has.
  const title = unique('Spec Ride')
  const [day, time] = CLOCK.format(Date.now() + 30 * 60_000).split(' ')
  const lines = ['Maren Tolle', 'Cassius Rell', 'Nobody Atall', first, second].map(
    (name, i) => `${day},${time},45,${title},Net loft,${name},${[20, 12, 9, 25, 18][i]}`,
  )
  const list = ['day,start,minutes,class,room,name,comes', ...lines, 'someday,18:00,45,Lost,,,'].join('\n')
  // The clock is scripted; the studio's, by which a device sets itself right, goes with it.
  let aheadMs = 0
  await context.route('**/api/health', (route) =>
    route.fulfill({ headers: { date: new Date(Date.now() + aheadMs).toUTCString() }, body: '{}' }),
  )
  await page.clock.install()
  await page.goto('/class')
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Import classes' }).click()
  await page.locator('input[type=file]').setInputFiles({
    name: 'week.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(list),
  })
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByText('nobody here is called Nobody Atall')).toBeVisible()
  await expect(dialog.getByText('“someday” is not a day')).toBeVisible()
  await dialog.getByRole('button', { name: 'Take them over' }).click()
  await expect(dialog.getByText(/1 class new; 4 bookings/)).toBeVisible()
  await dialog.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('link', { name: new RegExp(title) }).click()

  // Placed: everybody has a bike, newcomers are in the queue.
  await page.getByRole('button', { name: 'Place 4 riders' }).click()
  for (const name of ['Maren Tolle', 'Cassius Rell', first, second])
    await expect(floor(page).getByRole('button', { name: new RegExp(name) })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Next to set up' })).toContainText('first set-up')
  const classPage = page.url()

  // Pinned by dragging: to a free bike of another type and back by hand; what it costs is said.
  const seatOf = async (name: string) =>
    Number(
      /^\d+/.exec(
        await floor(page)
          .getByRole('button', { name: new RegExp(name) })
          .innerText(),
      )![0],
    )
  // In the second row: at the screen's edge the page would scroll under what is carried.
  const free = Number(/^\d+/.exec(await floor(page).getByRole('button', { name: /free$/ }).nth(6).innerText())![0])
  const before = await seatOf('Maren Tolle')
  await drag(page, before, free)
  await expect(page.getByText(new RegExp(`Maren Tolle to ${free}\\.`))).toBeVisible()
  await expect(tile(page, free)).toContainText('Maren Tolle')
  await expect(tile(page, free)).toHaveAccessibleName(/pinned/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(tile(page, before)).toContainText('Maren Tolle')

  // By keyboard: the same, and the rest stays solved around it.
  await tile(page, before).focus()
  await carry(page, 'ArrowDown')
  await expect(page.getByText(/Maren Tolle to \d+/)).toBeVisible()

  // Two newcomers are set up at the bike and are ready.
  for (const name of [first, second]) {
    await page.goto(classPage)
    const tileOf = floor(page).getByRole('button', { name: new RegExp(name) })
    await tileOf.click()
    await page.getByRole('button', { name: 'Not coming' }).click()
    await expect(tileOf).toHaveCount(0)
    const sorrel = [7, 8, 9, 10, 11].map((bike) => tile(page, bike))
    const taken = await Promise.all(sorrel.map((one) => one.innerText()))
    const at = [7, 8, 9, 10, 11][taken.findIndex((text) => /free$/.test(text.trim()))]
    await tile(page, at).click()
    await sitDown(page, name)
    await expect(tile(page, at)).toContainText(name)
    await tile(page, at).click()
    await page.getByRole('button', { name: 'Set up' }).click()
    await setUpByEye(page)
    await expect(floor(page).getByRole('button', { name: new RegExp(name) })).toContainText('ready ✓')
  }

  // The music starts; somebody comes in late: three taps, and a bike.
  aheadMs = 33 * 60_000
  await page.clock.fastForward('33:00')
  await page.getByRole('button', { name: 'Walk-in' }).click()
  await sitDown(page, late)
  await expect(page.getByText(new RegExp(`${late}: bike \\d+`))).toBeVisible()
  const lateBike = await seatOf(late)
  await page.goto(classPage)

  // During: notes, first with the network, then without it; the tab is killed, and opens again without network.
  await watch(page)
  await expect(page.getByText(/^Minute \d+$/)).toBeVisible()
  const other = await newDevice(browser, { storageState: { cookies: [], origins: [] } })
  const beside = await other.newPage()
  await signIn(beside, 'bram')
  await beside.goto(page.url())
  const cassius = await seatOf('Cassius Rell')
  await see(page, cassius, 'Feet', 'Toes pointing down, both')
  await expect(page.getByText('“Let the heel ride as low as the toes.”')).toBeVisible()
  await page.getByRole('button', { name: 'Said', exact: true }).click()
  // Somebody else's device has it without being asked.
  await expect(watched(beside, cassius, 'toes pointing down')).toBeVisible()
  await expect.poll(() => isKept(page)).toBe(true)
  await page.reload()
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true)

  // A request may still slip out beside the service worker, its answer lost: what counts is that all is there once.
  await context.setOffline(true)
  await see(page, lateBike, 'Knees', 'Out, left')
  const outLeft = page.getByRole('button', { name: 'Out, left', exact: true })
  await outLeft.click()
  await expect(outLeft).toContainText('clear')
  const address = page.url()
  await page.close()
  const again = await context.newPage()
  await again.goto(address)
  await expect(watched(again, lateBike, 'knees out, left')).toBeVisible()
  await expect(watched(again, cassius, 'toes pointing down')).toBeVisible()
  await watched(again, cassius).click()
  await again.getByRole('button', { name: 'Felt', exact: true }).click()
  await again.getByRole('button', { name: 'Low back' }).click()
  await again.getByRole('button', { name: 'Low back, 7 of 10' }).click()
  await expect(pill(again)).toBeVisible()

  // Back: all of it is there, once, also on the other device.
  await context.setOffline(false)
  await expect(pill(again)).toBeHidden()
  await expect(watched(beside, lateBike, 'knees out, left')).toBeVisible()
  await expect(watched(beside, cassius, 'low back 7 of 10')).toBeVisible()
  const notes = await again.request.get(address.replace('/class/', '/api/classes/'))
  const { notes: kept } = (await notes.json()) as { notes: { sign: string; strength: string | null; cued: boolean }[] }
  expect(kept.map(({ sign, strength, cued }) => [sign, strength, cued])).toEqual([
    ['toesDown', null, true],
    ['kneesOut', 'clear', false],
    ['felt', null, false],
  ])

  // After: everything that is left, the pressing first; each opens the rider.
  await again.getByRole('link', { name: 'After' }).click()
  await again.waitForURL('**/after')
  const headings = await again.getByRole('heading', { level: 2 }).allTextContents()
  expect(headings).toEqual(['Felt', 'Noted, and not changed', 'Numbers nobody looked at', 'Not looked at'])
  await expect(again.getByRole('region', { name: 'Numbers nobody looked at' })).toContainText(late)
  await expect(again.getByRole('region', { name: 'Felt', exact: true })).toContainText('felt: low back 7 of 10')
  const csv = await (
    await again.request.get(address.replace('/class/', '/api/classes/').replace('watch', 'notes.csv'))
  ).text()
  expect(csv.trim().split('\r\n')).toHaveLength(4)
  // A line is ticked, and taken back.
  const felt = again.getByRole('region', { name: 'Felt', exact: true })
  await felt.getByRole('checkbox').click()
  await expect(felt.getByText('Seen to by Ines Harrow')).toBeVisible()
  await again.getByRole('button', { name: 'Undo' }).click()
  await expect(felt.getByText('Seen to by Ines Harrow')).toBeHidden()
  await felt.getByRole('link').click()
  await expect(again.getByText('The low back, both sides, 7 of 10')).toBeVisible()
  await other.close()
})

test('a cue to the room: who it met, a second look, and what that says', async ({ page }) => {
  await page.goto('/class/class-dawn/watch')
  // One of seven is below a quarter of the room; two are above.
  await see(page, 1, 'Feet', 'Toes pointing down, both')
  await page.getByRole('button', { name: 'Room cue' }).click()
  await expect(page.getByText('“Let the heel ride as low as the toes.”')).toBeVisible()
  await page.getByRole('button', { name: 'Said', exact: true }).click()
  const scan = page.getByRole('list', { name: 'Second look' }).getByRole('listitem')
  await expect(scan.first()).toContainText('toes pointing down')
  await scan.first().getByRole('button', { name: 'Changed' }).click()
  await expect(page.getByText(/^Changed in 1 of [12] it was meant for; nobody else was looked at again/)).toBeVisible()
  await scan.filter({ hasText: 'beside' }).first().getByRole('button', { name: 'Not yet' }).click()
  await expect(page.getByText(/and in 0 of 1 it was not: .* That may be chance\./)).toBeVisible()
})

test('a room is drawn: a bike moved by arrows and turned, a screen added, kept, and undone', async ({ page }) => {
  await page.goto('/rooms?room=new')
  const name = unique('Side room')
  await page.getByLabel('Name').fill(name)
  await page.getByRole('button', { name: 'Add a screen' }).click()
  await page.getByRole('button', { name: /^24/ }).click()
  const bike = page.getByRole('button', { name: 'bike 24' })
  await bike.focus()
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press(']')
  await expect(page.getByText(/^Instructor \d+° to the/)).toBeVisible()
  await page.keyboard.press('Delete')
  await expect(bike).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(bike).toBeVisible()
  // Given back to where it stood before this test.
  await bike.click()
  await page.getByRole('button', { name: 'Remove' }).click()
  await page.getByRole('button', { name: 'Keep the room' }).click()
  await expect(page.getByText('The room is kept.')).toBeVisible()
  await page.waitForURL(/room=[0-9a-f-]{36}/)
  await page.reload()
  await expect(page.getByRole('button', { name: 'screen 1' })).toBeVisible()
  await page.getByRole('button', { name: 'Take this room away' }).click()
  await expect(page.getByRole('link', { name })).toHaveCount(0)
})

test('blocks: beats and turns follow each other, a block is copied and moved, the plan is kept and goes out', async ({
  page,
}) => {
  await page.goto('/class/class-first/blocks')
  await page.getByRole('button', { name: 'Add a block' }).click()
  await page.getByLabel('Beats a minute of block').last().fill('106')
  await page.keyboard.press('Tab')
  await expect(page.getByLabel('Turns a minute of block').last()).toHaveValue('53')
  const count = await page.getByLabel('Name of the block').count()
  await page.getByRole('button', { name: 'Copy block' }).last().click()
  await expect(page.getByLabel('Name of the block')).toHaveCount(count + 1)
  await page.getByLabel('Name of the block').last().fill('The very last')
  await page.getByRole('button', { name: 'Move The very last' }).focus()
  await carry(page, 'ArrowUp')
  await expect(page.getByLabel('Name of the block').last()).not.toHaveValue('The very last')
  await page.getByRole('button', { name: 'Keep the plan' }).click()
  await expect(page.getByText('The plan is kept.')).toBeVisible()
  const csv = await (await page.request.get('/api/classes/class-first/plan.csv')).text()
  expect(csv).toContain('The very last,5,53,106,seated')
})
