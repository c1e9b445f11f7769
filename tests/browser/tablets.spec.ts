import type { Page } from '@playwright/test'
import { setPin } from '../../server/platform/accounts/pin'
import { requireSecondFactor } from '../../server/platform/accounts/secondFactor'
import { database } from '../../server/platform/db/connection'
import { addMember, isKept, MANAGER, seat, see, signIn, unique, watch, watched } from './support/hall'
import { expect, PASSWORD, test } from './support/test'

test.use({ serviceWorkers: 'allow', warm: false })

const PIN = { ines: '275031', bram: '904417' }

/** Everything a browser stores of the studio's pages, as text: databases, caches, storage. */
const storedText = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const found: unknown[] = [{ ...localStorage }, { ...sessionStorage }]
    for (const name of await caches.keys()) {
      const cache = await caches.open(name)
      for (const key of await cache.keys())
        if (!key.url.includes('/_next/static/')) found.push(key.url, await (await cache.match(key))!.text())
    }
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((resolve) => {
        const opening = indexedDB.open(name!)
        opening.onsuccess = () => resolve(opening.result)
      })
      for (const table of db.objectStoreNames) {
        const rows = await new Promise<unknown[]>((resolve) => {
          const reading = db.transaction(table).objectStore(table).getAll()
          reading.onsuccess = () => resolve(reading.result)
        })
        const bytes = (value: unknown) =>
          value instanceof ArrayBuffer || ArrayBuffer.isView(value) ? new TextDecoder().decode(value) : value
        found.push(
          table,
          JSON.stringify(rows, (_, value) => bytes(value)),
        )
      }
      db.close()
    }
    return JSON.stringify(found)
  })

/** Opens a shared tablet by PIN. */
async function open(page: Page, name: string, pin: string): Promise<void> {
  await page.getByRole('button', { name }).click()
  for (const digit of pin) await page.getByRole('button', { name: digit, exact: true }).click()
}

test('a tablet is paired, opened by PIN and locked: nothing of one person is readable for the next', async ({
  page,
  context,
}) => {
  const password = { ines: PASSWORD.ines, bram: PASSWORD.bram }
  await setPin(database(), { userId: 'ines-harrow' }, { password: password.ines, pin: PIN.ines })
  await setPin(database(), { userId: 'bram-okell' }, { password: password.bram, pin: PIN.bram })
  const rider = unique('Sunniva Pell')
  await signIn(page)
  await addMember(page, rider)
  await page.goto('/studio/devices')
  await page.getByLabel('What this tablet is called').fill('By the stage')
  await page.getByRole('button', { name: 'Pair it' }).click()

  await open(page, 'Bram Okell', '111222')
  await expect(page.getByText('This PIN does not fit.')).toBeVisible()
  await page.keyboard.type(PIN.bram)
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()

  await seat(page, 11, rider)
  await watch(page)
  await context.route('**/api/outbox', (route) => route.abort())
  await see(page, 11, 'Arms, hands', 'Wrist bent, left')
  await expect(page.getByText(/No network: kept on this device/)).toBeVisible()
  await page.getByRole('button', { name: 'Lock', exact: true }).click()
  await page.getByRole('button', { name: 'Lock all the same' }).click()

  await expect(page.getByRole('heading', { name: 'Who is here?' })).toBeVisible()
  const left = await storedText(page)
  expect(left).toContain('entries')
  expect(/.{60}(Sunniva|wrist).{60}/i.exec(left)?.[0]).toBeUndefined()

  // On a tablet a manager has no studio pages; what another person left is counted and no more.
  await open(page, 'Ines Harrow', PIN.ines)
  await expect(page.getByRole('button', { name: /1 of someone else/ })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Studio' })).toHaveCount(0)
  await expect.poll(() => isKept(page)).toBe(true)
  await context.unroute('**/api/outbox')
  await page.getByRole('button', { name: 'Lock', exact: true }).click()

  // Back to the page that was locked, where the note is sent under the name of its author.
  await open(page, 'Bram Okell', PIN.bram)
  await expect(watched(page, 11, 'wrist bent, left')).toBeVisible()
  await expect(page.getByRole('button', { name: /on this device|of someone else/ })).toHaveCount(0)
  const { rows } = await page.request
    .get('/api/accounts/device-key')
    .then(async (response) => ({ rows: (await response.json()) as { userId: string } }))
  expect(rows.userId).toBe('bram-okell')
})

/** Browsers give passkeys to names alone: the same server by another name. */
test('a passkey is added, signs in without a password, and is removed', async ({ page, baseURL }) => {
  const home = baseURL!.replace('127.0.0.1', 'localhost')
  const devtools = await page.context().newCDPSession(page)
  await devtools.send('WebAuthn.enable')
  const authenticator = (isUserVerified: boolean) =>
    devtools.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified,
        automaticPresenceSimulation: true,
      },
    })
  const { authenticatorId } = await authenticator(true)
  await page.goto(`${home}/sign-in`)
  await page.getByLabel('Name').fill('bram')
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD.bram)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()
  await page.goto(`${home}/account`)
  const passkeys = page.getByRole('region', { name: 'Passkeys' })
  await passkeys.getByRole('button', { name: 'Add a passkey of this device' }).click()
  await expect(passkeys.getByRole('listitem')).toHaveCount(1)

  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'With a passkey' }).click()
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()

  // Where a second factor is required a passkey is one, and the password alone opens nothing.
  await requireSecondFactor(database(), MANAGER, ['instructor'])
  await page.goto(`${home}/today`)
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByLabel('Name').fill('bram')
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD.bram)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByText('sign in with your passkey. Then the studio opens')).toBeVisible()
  await passkeys.getByRole('button', { name: 'Add a passkey of this device' }).click()
  await expect(passkeys.getByText('Sign in with your passkey first.', { exact: false })).toBeVisible()
  await page.goto(`${home}/members`)
  await page.waitForURL('**/account')
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'With a passkey' }).click()
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()
  await requireSecondFactor(database(), MANAGER, [])

  // A device that did not check who holds it is no second factor.
  await devtools.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false })
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'With a passkey' }).click()
  await expect(page.getByRole('button', { name: 'With a passkey' })).toBeEnabled()
  expect((await page.request.get(`${home}/api/auth/get-session`)).status()).toBe(200)
  expect(await (await page.request.get(`${home}/api/auth/get-session`)).json()).toBeNull()
  await devtools.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true })
  await page.getByRole('button', { name: 'With a passkey' }).click()
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible()

  await page.goto(`${home}/account`)
  await passkeys.getByRole('button', { name: 'Remove' }).click()
  await expect(passkeys.getByRole('listitem')).toHaveCount(0)
  await page.getByRole('button', { name: 'Sign out', exact: true }).click()
  await page.getByRole('button', { name: 'With a passkey' }).click()
  await expect(page.getByText('This did not work.')).toBeVisible()
})
