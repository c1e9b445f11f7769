import { randomUUID } from 'node:crypto'
import { DEFAULT_EQUIPMENT } from '../../core/bikes/bike/equipment'
import { contactPoints, resolveMarks } from '../../core/bikes/bike/contactPoints'
import type { Marks } from '../../core/base/conventions'
import { NO_SLIDE_BIKE, SIX_BIKE } from '../../core/testing/furtherTypes'
import { addBikes, listBikes } from '../../server/bikes/bikes'
import { writeVersion } from '../../server/bikes/versions'
import { assignBike } from '../../server/classes/assignments'
import { database } from '../../server/platform/db/connection'
import { openLink } from '../../server/riders/memberPage/links'
import { expect, test } from './support/test'
import {
  addMemberByForm,
  done,
  MANAGER,
  mark,
  openFloor,
  setUpAt,
  STATE,
  step,
  unique,
  watch,
  watched,
} from './support/hall'

test.use({ storageState: STATE })

const FIELDS = [
  ['Saddle height', 'saddleHeightMm'],
  ['Setback', 'setbackMm'],
  ['Reach', 'reachMm'],
  ['Stack', 'stackMm'],
] as const

test('a machine with a frame that lifts and a choice of cranks: described, taped, set up, moved, printed', async ({
  page,
}) => {
  const [type, name] = [unique('Lifting'), unique('Orla Sixnumbers')]
  await page.goto('/bikes/types/new')
  await page.getByLabel('Name', { exact: true }).first().fill(type)
  for (const what of ['Frame height', 'Crank length']) {
    await page.getByRole('combobox', { name: 'Add an adjustment' }).click()
    await page.getByTitle(what === 'Frame height' ? /^How high saddle/ : /^How wide the circle/).click()
  }
  await page.getByLabel('Frame height: Called on the bike').fill('Lift')
  await page.getByRole('textbox', { name: 'Crank length: Lengths' }).fill('160 170 short')
  await expect(page.getByText('Crank length: “short” is not a length.')).toBeVisible()
  await page.getByRole('textbox', { name: 'Crank length: Lengths' }).fill('160 165 170')
  await page.getByRole('button', { name: 'Save, then lay the tape' }).click()
  await page.waitForURL('**/tape')

  // The bike as it truly is: as described, with its frame's marks 24 mm apart instead of 25.
  const asked = page.locator('dl').first()
  await expect(asked.locator('dt').last()).toHaveText('Lift')
  await expect(asked.getByText('Crank length')).toBeHidden()
  const AXES = ['seatHeight', 'seatSlide', 'barHeight', 'barSlide', 'frameHeight'] as const
  const truth = {
    ...SIX_BIKE,
    seatOrigin: { xMm: -160, yMm: 540 },
    gripOrigin: { xMm: 400, yMm: 600 },
    axes: {
      seatHeight: { directionDeg: 107, scale: evenly('1 2 3 4 5 6 7 8 9 10 11 12 13 14 15', 20, 0) },
      seatSlide: { directionDeg: 0, scale: evenly('A B C D E F G H', 10, -40) },
      barHeight: { directionDeg: 90, scale: evenly('1 2 3 4 5 6 7 8 9 10', 20, 0) },
      barSlide: { directionDeg: 0, scale: evenly('1 2 3 4 5 6', 15, -45) },
      frameHeight: { directionDeg: 90, scale: evenly('A B C D E F', 24, 0) },
    },
  }
  for (let reading = 0; reading < 14; reading++) {
    const labels = await asked.locator('dd').allInnerTexts()
    const marks: Marks = Object.fromEntries(AXES.map((axis, i) => [axis, labels[i]]))
    const { lengths } = contactPoints(truth, undefined, resolveMarks(truth, marks).positions)
    for (const [title, length] of FIELDS)
      await page.getByRole('textbox', { name: new RegExp(`^${title}`) }).fill(lengths[length].toFixed(0))
    await page.getByRole('button', { name: 'Keep the reading' }).click()
    await expect(page.getByRole('region', { name: 'Readings' }).locator('tbody tr')).toHaveCount(reading + 1)
    if (await page.getByText(/^Done:/).isVisible()) break
  }
  await page.getByRole('button', { name: 'Put it in force' }).click()
  await page.waitForURL('**/bikes')

  await page.getByRole('button', { name: 'Add machines' }).click()
  await page.getByRole('dialog').getByRole('combobox', { name: 'Type' }).click()
  await page.getByTitle(type, { exact: true }).click()
  await page.getByLabel('Numbers, such as 1-4 7').fill('961')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('dialog')).toBeHidden()

  await addMemberByForm(page, name)
  const rider = page.url()
  await setUpAt(page, 961)
  await page.getByRole('button', { name: 'Skip talk' }).or(step(page, 'Beside')).first().click()
  await done(page)
    .or(page.getByRole('button', { name: /^Skip, set to/ }))
    .click()
  await expect(mark(page, 'Crank length', '170')).toHaveAttribute('aria-pressed', 'true')
  await mark(page, 'Lift', 'B').click()
  await expect(mark(page, 'Lift', 'B')).toHaveAttribute('aria-pressed', 'true')
  await step(page, 'Numbers').click()
  await expect(page.getByText(/^Say every number aloud/)).toBeVisible()
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await expect(page.getByRole('region', { name: 'Numbers' })).toContainText(`${type}, bike 961`)
  await expect(page.getByText('Lift', { exact: true }).first()).toBeVisible()
  const memberId = /riders\/([^/?]+)/.exec(rider)![1]

  // The card, the member's own page, and the floor.
  const card = await page.request.get(`/api/cards/rider/${memberId}`)
  expect([card.status(), card.headers()['content-type']]).toEqual([200, 'application/pdf'])
  const { token } = (await openLink(database(), MANAGER, memberId, new Date()))!
  await page.goto(`/m/${token}`)
  await expect(page.getByText('lift or lower the frame with both hands').first()).toBeAttached()
  await expect(page.getByText('Crank length', { exact: true }).first()).toBeVisible()
  await openFloor(page)
  const classId = page.url().split('/').at(-1)!
  const bikeId = (await listBikes(database(), MANAGER)).find(({ number }) => number === 961)!.id
  await assignBike(database(), MANAGER, { id: randomUUID(), classId, bikeId, memberId }, new Date())
  await watch(page)
  await watched(page, 961).click()
  const numbers = page.getByRole('group', { name: 'Numbers' })
  await expect(numbers.getByRole('button')).toHaveCount(5)
  await numbers.getByRole('button', { name: 'Frame height B, move it' }).click()
  await page.getByRole('group', { name: 'Frame height up' }).getByRole('button', { name: 'Comfort' }).click()
  await page.getByRole('button', { name: 'Move it', exact: true }).click()
  await expect(watched(page, 961, 'frame height B → C')).toBeVisible()
})

test('a machine whose saddle does not slide: no slide is set, asked for or shown', async ({ page }) => {
  const [type, name] = [unique('Fixed'), unique('Pim Noslide')]
  const document = { bikeType: { ...NO_SLIDE_BIKE, name: type }, equipment: DEFAULT_EQUIPMENT }
  const written = await writeVersion(database(), MANAGER, { id: randomUUID(), baseId: null, document }, new Date())
  if (written.outcome !== 'kept') throw new Error(written.outcome)
  await addBikes(database(), MANAGER, written.lineId, [962])
  await addMemberByForm(page, name)
  await setUpAt(page, 962)
  await step(page, 'Beside').click()
  await page.getByRole('button', { name: /^Skip, set to/ }).click()
  await expect(page.getByText('Seat slide')).toHaveCount(0)
  await page.getByRole('button', { name: 'Deep bend' }).click()
  await expect(page.getByRole('region', { name: 'What to do next' })).toContainText(/raise the seat/i)
  await step(page, 'Numbers').click()
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await expect(page.getByRole('region', { name: 'Numbers' })).toContainText(`${type}, bike 962`)
  await expect(page.getByRole('region', { name: 'Numbers' })).toContainText('Bar slide')
  await expect(page.getByRole('region', { name: 'Numbers' })).not.toContainText('Seat slide')
})

function evenly(labels: string, apartMm: number, firstMm: number) {
  const marks = labels.split(' ').map((label, i) => ({ label, mm: firstMm + i * apartMm }))
  return { marks, halfMarks: false }
}
