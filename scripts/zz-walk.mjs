import { chromium } from 'playwright-core'
const base = 'http://localhost:4077'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] })
const go = async (w, h, dim, steps) => {
  const c = await browser.newContext({ viewport: { width: w, height: h }, baseURL: base, reducedMotion: 'reduce', hasTouch: true })
  if (dim) await c.addCookies([{ name: 'light', value: 'dim', url: base }])
  const page = await c.newPage(); page.shot = (n, fullPage=false) => page.screenshot({ path: `/tmp/shots/${n}.png`, fullPage })
  page.signIn = async () => { await page.goto('/sign-in'); await page.getByLabel('Name').fill('ines'); await page.getByLabel('Password', { exact: true }).fill('tarn-ferry-rows-east'); await page.getByRole('button', { name: 'Sign in', exact: true }).click(); await page.waitForURL(/today/) }
  await steps(page); await c.close()
}
await go(1280, 800, false, async (p) => { await p.goto('/sign-in'); await p.waitForTimeout(700); await p.shot('signin'); await p.signIn(); await p.goto('/account'); await p.waitForTimeout(700)
  const d = await p.context().newCDPSession(p); await d.send('WebAuthn.enable'); await d.send('WebAuthn.addVirtualAuthenticator', { options: { protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true, isUserVerified: true, automaticPresenceSimulation: true } })
  await p.getByRole('button', { name: 'Add a passkey of this device' }).click(); await p.waitForTimeout(2500); await p.shot('account', true) })
await go(390, 844, true, async (p) => { await p.signIn(); await p.request.post('/api/accounts/pin', { data: { password: 'tarn-ferry-rows-east', pin: '275031' }, headers: { origin: base } }); await p.goto('/account'); await p.waitForTimeout(700); await p.shot('account-phone', true); await p.goto('/studio/devices'); await p.waitForTimeout(700); await p.getByLabel('What this tablet is called').fill('By the stage'); await p.shot('devices-phone', true); await p.getByRole('button', { name: 'Pair it' }).click(); await p.waitForURL(/sign-in/); await p.waitForTimeout(700); await p.shot('names-phone'); await p.getByRole('button', { name: 'Ines' }).click(); await p.keyboard.type('123'); await p.waitForTimeout(300); await p.shot('pad-phone') })
await browser.close()
