import { randomUUID } from 'node:crypto'
import type { Browser, Page } from '@playwright/test'
import { createConnection } from 'mysql2/promise'
import { addMember, mark, newDevice, setUpAt, STATE, step, unique } from './support/hall'
import { expect, test } from './support/test'

test.use({ storageState: STATE })

const DAY_MS = 86_400_000
const daysAgo = (days: number) => new Date(Date.now() - days * DAY_MS)

async function sql(statement: string, values: readonly unknown[]): Promise<void> {
  const connection = await createConnection({ uri: process.env.DATABASE_URL, timezone: 'Z' })
  try {
    await connection.query(statement, [...values])
  } finally {
    await connection.end()
  }
}

/** A page that does not answer to hands yet would lose the tap. */
async function open(page: Page, path: string): Promise<void> {
  await page.goto(path)
  await page.locator('html[data-ready]').waitFor()
}

/** A class so many days ago in which the rider sat on a bike. */
async function rode(memberId: string, bikeId: string, days: number): Promise<string> {
  const [id, at] = [randomUUID(), daysAgo(days)]
  await sql(
    'INSERT INTO studio_class (id, studio_id, room_id, title, starts_at, ends_at, source, created_at) ' +
      "VALUES (?, 'netloft-hall', 'net-loft', 'Felt Ride', ?, ?, 'hand', ?)",
    [id, at, new Date(at.getTime() + 45 * 60_000), at],
  )
  await sql(
    'INSERT INTO bike_assignment (studio_id, class_id, bike_id, member_id, created_at, created_by) ' +
      "VALUES ('netloft-hall', ?, ?, ?, ?, 'ines-harrow')",
    [id, bikeId, memberId, at],
  )
  return id
}

/** The clock of what is on trial goes on: it and its complaint are so many days older. */
const daysPass = async (memberId: string, days: number) => {
  for (const [table, column] of [
    ['trial', 'started_at'],
    ['complaint', 'created_at'],
  ])
    await sql(`UPDATE ${table} SET ${column} = ${column} - INTERVAL ? DAY WHERE member_id = ?`, [days, memberId])
}

/** A rider with numbers on bike 1 whose knee was read to bend too much; their id and name. */
async function newRider(page: Page, name: string, agrees = true): Promise<Readonly<{ id: string; name: string }>> {
  const called = unique(name)
  await addMember(page, called, agrees)
  await setUpAt(page, 1)
  await step(page, 'Beside').click()
  await mark(page, 'Seat height', '9').click()
  await page.getByRole('button', { name: /^Done, set to/ }).click()
  // A knee that was measured: without it no seat height is moved.
  await page.getByText('Goniometer').click()
  await page.getByRole('slider', { name: /Knee bend/ }).fill('41')
  await page.getByRole('button', { name: /41°/ }).click()
  await expect(page.getByText(/^Stay in the saddle: level the cranks/)).toBeVisible()
  await step(page, 'Numbers').click()
  await page.getByRole('button', { name: 'Save the numbers' }).click()
  await page.waitForURL('**/riders/**')
  await expect(page.getByRole('region', { name: 'Numbers' })).toContainText('Sorrel, bike 1')
  return { id: page.url().split('/').at(-1)!, name: called }
}
/** All numbers that hold. */
const numbers = (page: Page) => page.getByRole('region', { name: 'Numbers' }).locator('dd').allInnerTexts()

/** The rider's own page on their own phone, where nobody is signed in. */
async function ownPage(page: Page, browser: Browser, riderId: string): Promise<Page> {
  await open(page, `/riders/${riderId}`)
  await page.getByRole('button', { name: 'Make a link' }).click()
  const address = await page.getByText('/m/').innerText()
  const phone = await newDevice(browser, {
    storageState: { cookies: [], origins: [] },
    viewport: { width: 390, height: 844 },
  })
  const own = await phone.newPage()
  await open(own, address)
  return own
}

async function tellOf(own: Page, what: string, strength: number, more: readonly string[] = []): Promise<void> {
  const part = own.getByRole('region', { name: 'Does something bother you' })
  await part.getByRole('button', { name: 'Tell us' }).click()
  await part.getByRole('button', { name: what, exact: true }).click()
  await part
    .getByRole('group', { name: /^How strong/ })
    .getByRole('button', { name: String(strength), exact: true })
    .click()
  for (const answer of more) await part.getByRole('button', { name: answer, exact: true }).click()
}
const send = async (own: Page) => {
  const part = own.getByRole('region', { name: 'Does something bother you' })
  await part.getByRole('button', { name: 'Send' }).click()
  await expect(part.getByText(/^Thank you/)).toBeVisible()
}
const onTrial = (page: Page) => page.getByRole('region', { name: 'On trial' })

/** Exercises for the knee are given, ticked by the rider, seen by the instructor, and ended. */
async function exercise(page: Page, own: Page, riderId: string): Promise<void> {
  const given = page.getByRole('region', { name: 'Exercises' })
  const yours = own.getByRole('region', { name: 'Your exercises' })
  await open(page, `/riders/${riderId}`)
  await given.getByRole('button', { name: 'Give exercises' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Give to the rider' }).click()
  await expect(given).toContainText('week 1 of 4')
  await expect(given).toContainText('the next go: 5 minutes')
  await open(own, own.url())
  const today = yours.getByRole('button', { name: 'today' })
  await today.click()
  await expect(today).toHaveAttribute('aria-pressed', 'true')
  await open(page, `/riders/${riderId}`)
  await expect(given).toContainText('1 of 3 goes')
  await given.getByRole('button', { name: 'End' }).click()
  await expect(given).toContainText('ended')
  await open(own, own.url())
  await expect(own.getByRole('region', { name: 'Before you ride' })).toBeVisible()
  await expect(yours).toBeHidden()
}

test('told on the own page, weighed, tried over two classes, rated by the rider, and kept', async ({
  page,
  browser,
}) => {
  const rider = await newRider(page, 'Sunniva Aldgate')
  const before = await numbers(page)
  const classId = await rode(rider.id, 'bike-1', 0.5)
  const own = await ownPage(page, browser, rider.id)
  await tellOf(own, 'Front of the knee', 6, ['Left', 'Gone', 'Seated'])
  await send(own)

  await open(page, `/class/${classId}/after`)
  const felt = page.getByRole('region', { name: 'Felt' })
  await expect(felt).toContainText('The front of the knee, left, 6 of 10')
  await felt.getByRole('link', { name: new RegExp(rider.name) }).click()
  await expect(page.getByRole('region', { name: 'Complaints' })).toContainText('From their page')
  await expect(page.getByRole('region', { name: 'What may be behind it' })).toContainText('The saddle is too low')
  const next = page.getByRole('region', { name: 'The next step' })
  await expect(next).toContainText(new RegExp(`Raise the seat .*, ${before[0]} to`))
  await next.getByRole('button', { name: 'Try it' }).click()
  await next.getByRole('button', { name: 'Begin the trial' }).click()
  await expect(onTrial(page)).toContainText('day 1 of 14, 0 rides')
  await expect(next).toBeHidden()
  await exercise(page, own, rider.id)

  await daysPass(rider.id, 8)
  await rode(rider.id, 'bike-1', 5)
  const second = await rode(rider.id, 'bike-1', 0.1)
  await open(own, own.url())
  await onTrial(own).getByRole('button', { name: '2', exact: true }).click()
  await expect(onTrial(own).getByText('Kept: 2 of 10')).toBeVisible()
  await own.getByRole('link', { name: 'Read it' }).click()
  await expect(own.getByText('2 of 10 during the trial')).toBeVisible()

  await open(page, `/class/${second}/after`)
  const due = page.getByRole('region', { name: 'Trials due' })
  await expect(due).toContainText('keeping it is proposed')
  await due.getByRole('link', { name: new RegExp(rider.name) }).click()
  await expect(onTrial(page)).toContainText('6 → 2 of 10')
  await onTrial(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('region', { name: 'Earlier trials' })).toContainText('kept; 6 → 2 of 10')
  await expect(page.getByText(/^Nothing is open/)).toBeVisible()
  await open(page, `/riders/${rider.id}`)
  expect(Number((await numbers(page))[0])).toBeGreaterThan(Number(before[0]))
  await own.context().close()
})

test('heard by the instructor, tried, and gone back from: the numbers of before hold everywhere', async ({ page }) => {
  const rider = await newRider(page, 'Torvald Eskdale', false)
  const before = await numbers(page)
  await open(page, `/riders/${rider.id}/reasons`)
  await expect(page.getByText(/^Nothing is open/)).toBeVisible()
  await page.getByRole('button', { name: 'Add a complaint' }).click()
  const form = page.getByRole('dialog')
  // Somebody new is asked before the first note about their body.
  await expect(form.getByText('has not agreed to notes yet')).toBeVisible()
  await form.getByRole('button', { name: 'They agree', exact: true }).click()
  await form.getByRole('button', { name: 'Front of the knee' }).click()
  await form
    .getByRole('group', { name: /^How strong/ })
    .getByRole('button', { name: '5', exact: true })
    .click()
  await form.getByRole('button', { name: 'Record it' }).click()
  const tried = await page.getByRole('region', { name: 'The next step' }).getByRole('heading').innerText()
  await page.getByRole('button', { name: 'Try it' }).click()
  await page.getByRole('button', { name: 'One week' }).click()
  await page.getByRole('button', { name: 'Begin the trial' }).click()
  await expect(onTrial(page)).toContainText('day 1 of 7')
  await open(page, `/riders/${rider.id}`)
  expect(await numbers(page)).not.toEqual(before)

  await daysPass(rider.id, 8)
  await open(page, `/riders/${rider.id}/reasons`)
  const scores = onTrial(page).getByRole('group', { name: /^How is it now/ })
  await scores.getByRole('button', { name: '8', exact: true }).click()
  await expect(onTrial(page)).toContainText('It is worse than before')
  await onTrial(page).getByRole('button', { name: 'Go back', exact: true }).click()
  await expect(page.getByRole('region', { name: 'Earlier trials' })).toContainText('undone; 5 → 8 of 10')
  // What was tried without help is not proposed once more.
  await expect(page.getByRole('region', { name: 'The next step' }).getByRole('heading')).not.toHaveText(tried)
  await open(page, `/riders/${rider.id}`)
  expect(await numbers(page)).toEqual(before)
  await expect(page.getByRole('region', { name: 'Time line' })).toContainText('back to the numbers of')
})

test('a red flag stops: said at once to the rider, first after class, and no change but a referral', async ({
  page,
  browser,
}) => {
  const rider = await newRider(page, 'Ylva Ormside')
  const classId = await rode(rider.id, 'bike-1', 0.5)
  const own = await ownPage(page, browser, rider.id)
  await tellOf(own, 'Side of the knee', 7, ['Right', 'Swelling'])
  const stop = own.getByRole('alert').filter({ hasText: 'looked at by a doctor' })
  await expect(stop).toBeVisible()
  await own.getByRole('region', { name: 'Does something bother you' }).getByRole('button', { name: 'Send' }).click()
  await expect(own.getByText(/^Your instructor has been told/)).toBeVisible()
  await expect(stop).toBeVisible()
  await own.context().close()

  await open(page, `/class/${classId}/after`)
  const flags = page.getByRole('region', { name: 'Red flags' })
  await flags.getByRole('link', { name: new RegExp(rider.name) }).click()
  const refer = page.getByRole('region', { name: 'Refer' })
  await expect(refer).toContainText('No change of the bike: swelling')
  await expect(page.getByRole('button', { name: 'Try it' })).toBeHidden()
  await expect(page.getByRole('region', { name: 'What may be behind it' })).toBeHidden()
  await refer.getByLabel('Who was told').fill('the rider, and the desk')
  await refer.getByRole('button', { name: 'Referred' }).click()
  await expect(refer).toContainText('told: the rider, and the desk')
  await open(page, `/class/${classId}/after`)
  await expect(page.getByText('Nothing is left to see to.')).toBeVisible()
})
