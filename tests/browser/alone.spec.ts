import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import type { AxisName } from '../../core/base/conventions'
import { axesOf, axisOf } from '../../core/bikes/bike/bike'
import { middlePosition } from '../../core/bikes/scale/scale'
import { codesOfBikes } from '../../server/bikes/codes'
import { listTypes } from '../../server/bikes/versions'
import { database } from '../../server/platform/db/connection'
import { member } from '../../server/riders/tables'
import { recordEntry } from '../../server/setups/register'
import { openLink } from '../../server/riders/memberPage/links'
import { MANAGER, openFloor, riderOn, STATE, unique } from './support/hall'
import { expect, test } from './support/test'

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, warm: false })

const codeOf = async (bikeId: string) => (await codesOfBikes(database(), MANAGER, [bikeId], new Date())).get(bikeId)!

/** A 3G network: round trips of 300 ms, 1.6 Mbit/s down (figures of browsers' own throttling, from memory). */
async function slow(page: Page): Promise<void> {
  const client = await page.context().newCDPSession(page)
  await client.send('Network.enable')
  const [downloadThroughput, uploadThroughput] = [1.6e6 / 8, 750e3 / 8]
  await client.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 300,
    downloadThroughput,
    uploadThroughput,
  })
}

test('alone from the code to the card in twelve taps, to the instructor’s list and the first look', async ({
  page,
  browser,
}) => {
  const name = unique('Vesla Codewick')
  await slow(page)
  await page.goto(`/b/${await codeOf('bike-8')}`)
  await expect(page.getByRole('heading', { name: /^Bike 8/ })).toBeVisible()
  let taps = 0
  const tap = async (button: ReturnType<Page['getByRole']>) => {
    await button.click()
    taps += 1
  }
  await tap(page.getByRole('button', { name: 'Never' }))
  const card = page.getByRole('region', { name: 'Set it up' })
  const marks = card.getByRole('group', { name: /tap where it is set/ }).getByRole('button')
  await expect(marks.first()).toBeVisible()
  await tap(marks.nth(4))
  const numbers = card.getByRole('heading', { name: 'Your numbers on this bike' })
  const answers = /^(Set and shaken|Changed and shaken|Fingertips reach|Still bent|Slightly bent|It just hides|Softly)/
  await expect(card.getByRole('heading', { name: 'First too low, to feel it' })).toBeVisible()
  // Wrong beside right, on the rider's own body.
  await expect(card.getByRole('region', { name: 'Seat height' }).getByRole('figure')).toHaveCount(3)
  while (!(await numbers.isVisible())) {
    const heading = await card.getByRole('heading').first().innerText()
    await tap(card.getByRole('button', { name: answers }).first())
    await expect(card.getByRole('heading', { name: heading, exact: true })).toHaveCount(0)
    await expect(card).toHaveAttribute('aria-busy', 'false')
  }
  expect(taps).toBeLessThanOrEqual(12)
  await expect(card.getByText('Set alone, not looked at')).toBeVisible()
  const own = await card.locator('dd:first-of-type').allInnerTexts()
  expect(own).toHaveLength(4)

  // The page was closed: the phone still has them, and one tap is taken back.
  await page.reload()
  await expect(numbers).toBeVisible()
  await card.getByRole('button', { name: 'One back' }).click()
  await card.getByRole('button', { name: answers }).first().click()
  await expect(numbers).toBeVisible()

  await card.getByLabel('Your name').fill(name)
  await expect(card.getByRole('button', { name: 'Ask for a look' })).toBeDisabled()
  await card.getByRole('checkbox').check()
  await card.getByRole('button', { name: 'Ask for a look' }).click()
  await expect(card.getByRole('status')).toContainText('They look at you first')

  const studio = await browser.newContext({ storageState: STATE, viewport: { width: 1280, height: 800 } })
  const desk = await studio.newPage()
  await openFloor(desk)
  const waiting = desk.getByRole('region', { name: 'Set alone, not looked at' })
  await expect(waiting.getByRole('listitem').filter({ hasText: name })).toContainText(own.join(' · '))
  await waiting.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'Look' }).click()
  await desk.getByRole('button', { name: `Add “${name}” and look` }).click()
  await desk.waitForURL('**/set-up/**')
  // What they read of themselves is there: the look is a reading of the knee.
  await expect(desk.getByRole('heading', { name })).toBeVisible()
  await expect(desk.getByRole('img', { name: /^Side view/ })).toBeVisible()
  await desk.getByRole('button', { name: 'Show it' }).click()
  await expect(desk.getByRole('dialog').getByRole('region', { name: 'Seat height' }).getByRole('figure')).toHaveCount(3)
  await desk.keyboard.press('Escape')
  await openFloor(desk)
  await expect(desk.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'Look' })).toHaveCount(
    0,
  )
  await studio.close()
})

/** Too low, yours and too high with the rider's own lengths, on every type of the studio. */
async function showsOnEveryType(desk: Page, memberId: string): Promise<void> {
  const types = await listTypes(database(), MANAGER)
  expect(types.length).toBeGreaterThan(2)
  for (const { id: typeId, lineId, bikeType } of types) {
    const middle = (axis: AxisName) => middlePosition(axisOf(bikeType, axis)!.scale).label
    const marks = Object.fromEntries(axesOf(bikeType).map((axis) => [axis, middle(axis)]))
    const numbers = {
      memberId,
      lineId,
      typeId,
      purpose: 'usual',
      source: 'translated',
      certainty: 'translated',
    } as const
    await recordEntry(database(), MANAGER, { id: randomUUID(), ...numbers, marks }, new Date())
  }
  await desk.goto(`/riders/${memberId}/show`)
  for (const { bikeType } of types) {
    const height = desk.getByRole('region', { name: bikeType.name }).getByRole('region', { name: 'Seat height' })
    await expect(height.locator('figcaption b')).toHaveText(['too low', 'yours', 'too high'])
    const knees = (await height.locator('figcaption em').allInnerTexts()).map(parseFloat)
    expect(knees).toEqual(knees.toSorted((a, b) => b - a))
    expect(new Set(knees).size).toBe(3)
  }
  await expect(desk.getByText('a body of middle size')).toHaveCount(0)
}

test('no page that a machine’s code leads to tells of a member: addresses are followed one hop', async ({
  request,
}) => {
  const names = (await database().select({ name: member.name }).from(member)).map(({ name }) => name)
  expect(names.length).toBeGreaterThan(20)
  const code = await codeOf('bike-9')
  const opened = new Set([`/b/${code}`])
  for (const start of [...opened]) {
    const text = await (await request.get(start)).text()
    for (const [, to] of text.matchAll(/(?:href|action|src)\\?="(\/[^"\\]*)/g)) opened.add(to)
  }
  const pages = [...opened].filter((to) => !/\.(css|js|svg|woff2?|ico|png|webmanifest)(\?|$)/.test(to))
  expect(pages).toContain(`/b/${code}`)
  const told = async (path: string) => {
    const text = await (await request.get(path)).text()
    return names.filter((name) => text.includes(name))
  }
  for (const path of [...pages, '/members', '/today', '/riders/member-05', '/api/files/members.csv'])
    expect([path, await told(path)]).toEqual([path, []])
  // Were a member's own page among them, it would be found.
  const { token } = (await openLink(database(), MANAGER, 'member-05', new Date()))!
  expect(await told(`/m/${token}`)).toHaveLength(1)
})

test('with a health matter there is no advice; a code that is none is typed again', async ({ page }) => {
  await page.goto(`/b/${await codeOf('bike-9')}`)
  await page.getByRole('button', { name: 'One of these' }).click()
  await expect(page.getByText('Ask the instructor before you ride')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Set it up' })).toHaveCount(0)
  await page.goto('/b/zzzzzzzzzz')
  await expect(page.getByRole('heading', { name: 'No bike has this code' })).toBeVisible()
  await page.getByLabel('Code').fill(` ${(await codeOf('bike-9')).toUpperCase()} `)
  await page.getByRole('button', { name: 'Open the bike' }).click()
  await expect(page.getByRole('heading', { name: /^Bike 9/ })).toBeVisible()
})

test('a phone that opened a member’s own page shows their numbers at a code, until it is told to forget', async ({
  page,
  browser,
}) => {
  const name = unique('Hanne Phonekept')
  const memberId = await riderOn('bike-8', name)
  const { token } = (await openLink(database(), MANAGER, memberId, new Date()))!
  const code = await codeOf('bike-10')
  await page.goto(`/b/${code}`)
  await expect(page.getByRole('link', { name: 'Your numbers on this bike' })).toHaveCount(0)
  await page.goto(`/m/${token}`)
  await expect(page.getByRole('heading', { name })).toBeVisible()
  await page.goto(`/b/${code}`)
  await page.getByRole('link', { name: 'Your numbers on this bike' }).click()
  await expect(page.getByRole('heading', { name: 'Bike 10' })).toBeVisible()
  await expect(page.locator('dd').first()).not.toBeEmpty()
  await page.getByRole('button', { name: 'Forget it on this phone' }).click()
  await page.goto(`/b/${code}`)
  await expect(page.getByRole('button', { name: 'Never' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Your numbers on this bike' })).toHaveCount(0)

  // A device of the studio keeps no member's link.
  const studio = await browser.newContext({ storageState: STATE })
  const desk = await studio.newPage()
  await desk.goto(`/m/${token}`)
  await expect(desk.getByRole('heading', { name })).toBeVisible()
  await expect(desk.getByRole('button', { name: 'Forget it on this phone' })).toHaveCount(0)
  expect(await desk.evaluate(() => localStorage.getItem('own-link'))).toBeNull()
  await showsOnEveryType(desk, memberId)
  await studio.close()
})
