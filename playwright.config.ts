import { defineConfig } from '@playwright/test'

const chromium = {
  browserName: 'chromium' as const,
  launchOptions: {
    executablePath: process.env.CHROMIUM,
    chromiumSandbox: process.getuid?.() !== 0,
    args: [
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
      '--disable-quic',
    ],
  },
}
const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

/** Servers that `npm test` started, each with a database of its own. */
const servers = JSON.parse(process.env.SERVERS ?? '[]') as object[]

/** Driven by `npm test`. A spec file runs in one worker; the workers share nothing but the build. */
export default defineConfig({
  testDir: 'tests/browser',
  workers: Math.max(1, servers.length),
  // A test that hangs ends at last; none fails for being slow, whatever else the machine is doing.
  timeout: 600_000,
  expect: { timeout: 60_000 },
  // One broken selector must not cost an hour.
  maxFailures: 5,
  forbidOnly: true,
  outputDir: '.test-data/browser',
  reporter: [['list'], ['json', { outputFile: '.test-data/browser.json' }]],
  // Tests without a network allow the service worker themselves; all else would only wait for it to fill up.
  use: {
    ...chromium,
    screenshot: 'only-on-failure',
    // Far beyond what a loaded machine takes; a step that hangs is then named in the report.
    actionTimeout: 180_000,
    navigationTimeout: 180_000,
    reducedMotion: 'reduce',
    serviceWorkers: 'block',
    trace: 'off',
  } as object,
  projects: [
    {
      name: 'desk',
      testMatch: '*.spec.ts',
      testIgnore: ['journey.spec.ts', 'access.spec.ts'],
      use: { viewport: DESK },
    },
    // On the phone alone: other files walk the steps of the journey on the desk, and `access` turns to the desk itself.
    {
      name: 'phone',
      testMatch: ['journey.spec.ts', 'access.spec.ts'],
      use: { viewport: PHONE, hasTouch: true },
    },
  ],
})
