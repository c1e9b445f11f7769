import { expect, test } from './support/test'
import { HOLES_BIKE } from '../../core/testing/meanRider'
import { database } from '../../server/platform/db/connection'
import { openLink } from '../../server/riders/memberPage/links'
import { MANAGER, seat, see, signIn, STATE, watch, watched } from './support/hall'

const REQUEST = { bikeType: HOLES_BIKE, evidence: [{ kind: 'stature', mm: 1700 }], samples: 300 }

test('signed out, every page leads to sign-in and every operation answers 401', async ({ page, request }) => {
  for (const path of ['/', '/members', '/class', '/riders/member-01', '/set-up/setup-member-01']) {
    await page.goto(path)
    await page.waitForURL('**/sign-in')
  }
  for (const operation of ['place', 'pose', 'recommend', 'nothing']) {
    expect((await request.post(`/api/v1/${operation}`, { data: REQUEST })).status()).toBe(401)
  }
})

test('a wrong password is said in words and keeps the name typed; nobody can sign themselves up', async ({
  page,
  request,
}) => {
  await page.goto('/sign-in')
  await page.getByLabel('Name').fill('ines')
  await page.getByLabel('Password', { exact: true }).fill('wrong')
  // Tests before this one may have used up the tries of a minute.
  await expect(async () => {
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByText(/do not go together/)).toBeVisible({ timeout: 4000 })
  }).toPass({ timeout: 600_000 })
  await expect(page.getByLabel('Name')).toHaveValue('ines')
  const signUp = await request.post('/api/auth/sign-up/email', {
    data: { email: 'x@y.example', password: 'long enough', name: 'X', username: 'xyz' },
  })
  expect(signUp.ok()).toBe(false)
})

test('pages carry a content security policy without unsafe-eval and the usual headers', async ({ request }) => {
  const headers = (await request.get('/sign-in')).headers()
  expect(headers['content-security-policy']).toContain("script-src 'self' 'nonce-")
  expect(headers['content-security-policy']).not.toContain('unsafe-eval')
  expect(headers['x-content-type-options']).toBe('nosniff')
  expect(headers['x-frame-options']).toBe('DENY')
  expect(headers['x-powered-by']).toBeUndefined()
})

const EVIDENCE_ROWS = /evidence\\?":\[\{/

test('the desk sees numbers and places, no health notes, and no page of the workbench or of a set-up', async ({
  page,
}) => {
  await signIn(page, 'tove')
  await page.goto('/riders/member-01')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Seen in class' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: /Set up now|New set-up/ })).toHaveCount(0)
  // What the page carries, not only what it shows.
  expect(await page.content()).not.toMatch(EVIDENCE_ROWS)
  for (const path of [
    '/bikes/types/meadowsweet',
    '/bikes/types/sorrel/tape',
    '/bikes/round',
    '/set-up/setup-member-01',
    '/riders/member-01/reasons',
    '/riders/member-05/story',
    '/studio/picture',
    '/class/exercises',
  ]) {
    await page.goto(path)
    await expect(page.getByRole('heading', { name: 'Not for your role' })).toBeVisible()
  }
  await seat(page, 2, 'Runa Sollie')
  await expect(page.getByRole('link', { name: 'During' })).toHaveCount(0)
  for (const moment of ['watch', 'after', 'blocks', 'round']) {
    await page.goto(`/class/class-dawn/${moment}`)
    await expect(page.getByRole('heading', { name: 'Not for your role' })).toBeVisible()
  }
  // What was noted in yesterday's class is in no page the desk can open.
  await page.goto('/class/class-dawn')
  expect(await page.content()).not.toMatch(/toes pointing down|low back/i)
  for (const path of ['watch', 'notes.csv'])
    expect((await page.request.get(`/api/classes/class-dawn/${path}`)).status()).toBe(403)
})

/** What is noted, felt or measured of a body, in the demo's data. */
const HEALTH = /toes pointing|low back|of 10 during the trial|front of the knee|Felt:|evidence\\?":\[\{/i
/** Pages that the desk may open; what they lead to is opened too. */
const DESK_PAGES = ['/members', '/riders/member-01', '/riders/member-05', '/class', '/class/class-dawn', '/bikes']

test('nothing that the desk can open, nor what that leads to, tells of a body: addresses are followed one hop', async ({
  page,
}) => {
  // Somebody who may see notes has made the rider's link.
  const link = `/m/${(await openLink(database(), MANAGER, 'member-05', new Date()))!.token}`
  await signIn(page, 'tove')
  const textOf = async (path: string) => (await page.request.get(path)).text()

  /** Pages that tell of a body, of these and of what they lead to; of a private link's page its story as well. */
  async function walk(starts: readonly string[]): Promise<{ opened: number; tells: string[] }> {
    const found = new Set(starts)
    for (const path of starts) {
      const text = await textOf(path)
      for (const [, to] of text.matchAll(/href\\?="(\/[^"\\#]*)/g)) found.add(to)
      for (const [to] of text.matchAll(/\/m\/[\w-]{43}/g)) found.add(to).add(`${to}/story`)
    }
    const pages = [...found].filter((to) => !/^\/_next|\.(css|js|svg|woff2?|webmanifest)$/.test(to))
    const tells: string[] = []
    for (const path of pages) if (HEALTH.test(await textOf(path))) tells.push(path)
    return { opened: pages.length, tells }
  }
  const { opened, tells } = await walk(DESK_PAGES)
  expect(opened).toBeGreaterThan(30)
  expect(tells).toEqual([])
  // Were one link among them, the walk would find what it opens.
  expect((await walk([link])).tells).toContain(`${link}/story`)
})

test('whoever signs in next on a device finds nothing of who was there before in the page', async ({ page }) => {
  await signIn(page, 'ines')
  await page.goto('/riders/member-05')
  await expect(page.getByRole('heading', { name: 'Seen in class' })).toBeVisible()
  await page.evaluate(() => ((window as unknown as { of: string }).of = 'ines'))
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.waitForURL('**/sign-in')
  const left = () => page.evaluate(() => (window as unknown as { of?: string }).of ?? null)
  expect(await left()).toBeNull()
  await page.evaluate(() => ((window as unknown as { of: string }).of = 'nobody'))
  await page.getByLabel('Name').fill('tove')
  await page.getByLabel('Password', { exact: true }).fill('keys-by-the-ferry-door')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()
  expect(await left()).toBeNull()
  await page.goBack()
  await expect(page.getByRole('heading', { name: 'Seen in class' })).toHaveCount(0)
})

test.describe('signed in', () => {
  test.use({ storageState: STATE })

  test('operations answer as the command line does: 200, 400 with faults, 404', async ({ page }) => {
    const post = (path: string, data: object | string) =>
      page.request.post(`/api/v1/${path}`, { data, headers: { 'content-type': 'application/json' } })
    const good = await post('recommend', REQUEST)
    expect(good.status()).toBe(200)
    expect((await good.json()).next.kind).toBe('start')
    const faulty = await post('recommend', { ...REQUEST, evidence: [{ kind: 'stature', mm: 17_000 }] })
    expect(faulty.status()).toBe(400)
    expect((await faulty.json()).error.faults[0].pointer).toBe('/evidence/0/mm')
    expect((await post('place', '{"')).status()).toBe(400)
    expect((await post('fly', {})).status()).toBe(404)
  })

  test('the rider’s page carries the evidence for who may see it', async ({ page }) => {
    await page.goto('/riders/member-01')
    await expect(page.getByRole('heading', { name: 'Seen in class' })).toBeVisible()
    expect(await page.content()).toMatch(EVIDENCE_ROWS)
  })

  test('saved numbers cannot be changed by going back into their set-up', async ({ page }) => {
    await page.goto('/set-up/setup-member-01')
    await expect(page.getByText('These numbers are saved.')).toBeVisible()
    await expect(page.getByRole('button', { name: /^Seat height 5/ })).toBeDisabled()
  })

  test('what does not exist is said so, and the way on is shown', async ({ page }) => {
    for (const path of ['/riders/nobody', '/set-up/nothing', '/nowhere']) {
      await page.goto(path)
      await expect(page.getByText('Nobody here.')).toBeVisible()
      await expect(page.getByRole('link', { name: 'To the members' })).toBeVisible()
    }
  })

  test('a member without a name is refused; one of the same name is asked about', async ({ page }) => {
    await page.goto('/members')
    await page.getByRole('button', { name: 'Add a member' }).click()
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByText('A member needs a name.')).toBeVisible()
    await page.getByLabel('Name', { exact: true }).fill('Maren Tolle')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByText('There is already a Maren Tolle. Add another one of that name?')).toBeVisible()
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Maren Tolle')
  })

  test('a mark tapped by keyboard is a mark set: arrows walk the scale', async ({ page }) => {
    await page.goto('/riders/member-23')
    await page.getByRole('button', { name: /Set up now|New set-up/ }).click()
    await page.getByRole('button', { name: /^2(?!\d)/ }).click()
    await page.waitForURL('**/set-up/**')
    await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: 'Beside' }).click()
    const marks = page.getByRole('group', { name: /^Seat height/ })
    await marks.getByRole('button', { name: /wanted next/ }).focus()
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Enter')
    await expect(page.getByText(/^Set the seat at/)).toBeVisible()
  })

  test('a note can be taken back', async ({ page }) => {
    await seat(page, 4, 'Silas Thackway')
    await watch(page)
    await see(page, 4, 'Hips', 'Rocking')
    await expect(watched(page, 4, 'hips rocking')).toBeVisible()
    const takenBack = page.waitForResponse(
      (response) =>
        response.url().endsWith('/api/outbox') && response.request().postData()?.includes('withdrawNote') === true,
    )
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(watched(page, 4, 'hips rocking')).toBeHidden()
    expect((await takenBack).status()).toBe(200)
    await page.reload()
    await expect(watched(page, 4, 'Silas Thackway')).toBeVisible()
    await expect(watched(page, 4, 'hips rocking')).toBeHidden()
  })
})
