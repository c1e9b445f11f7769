import { chromium } from 'playwright-core'
const base = 'http://127.0.0.1:4077'
const [, , ...args] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] })
const sizes = { desk: [1280, 800], tablet: [820, 1180], phone: [390, 844] }
for (const arg of args) {
  const [name, size, path, dim, script] = arg.split('|')
  const [width, height] = sizes[size]
  const context = await browser.newContext({ viewport: { width, height }, reducedMotion: 'reduce' })
  const page = await context.newPage()
  if (!path.startsWith('/m/')) {
    await page.goto(base + '/sign-in')
    await page.getByLabel('Name').fill('ines')
    await page.getByLabel('Password', { exact: true }).fill('tarn-ferry-rows-east')
    await page.getByRole('button', { name: /sign in/i }).click()
    await page.waitForURL(/today/)
  }
  if (dim === 'dim') await context.addCookies([{ name: 'light', value: 'dim', url: base }])
  await page.goto(base + path)
  await page.waitForTimeout(1200)
  if (script) {
    await page.evaluate(script).catch((e) => console.log(e.message))
    await page.waitForTimeout(900)
  }
  await page.screenshot({ path: `/tmp/shots/${name}.png` })
  await context.close()
}
await browser.close()
