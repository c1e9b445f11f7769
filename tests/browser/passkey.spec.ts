import { expect, PASSWORD, test } from './test'

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
