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

/** Driven by `npm test`, which starts database and server and says where they are. */
export default defineConfig({
  testDir: 'tests/browser',
  workers: 1,
  // A test that hangs ends at last; none fails for being slow, whatever else the machine is doing.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  forbidOnly: true,
  outputDir: '.test-data/browser',
  reporter: [['list'], ['json', { outputFile: '.test-data/browser.json' }]],
  // What is tried without a network asks for the service worker itself; all else would only wait for it to fill up.
  use: {
    ...chromium,
    baseURL: process.env.BASE_URL,
    reducedMotion: 'reduce',
    serviceWorkers: 'block',
    trace: 'off',
  } as object,
  projects: [
    { name: 'sign in', testMatch: 'signIn.setup.ts', use: { viewport: DESK } },
    {
      name: 'desk',
      dependencies: ['sign in'],
      testMatch: '*.spec.ts',
      grepInvert: /access\.spec\.ts bright /,
      use: { viewport: DESK },
    },
    {
      name: 'phone',
      dependencies: ['sign in'],
      testMatch: ['journey.spec.ts', 'access.spec.ts'],
      grepInvert: /access\.spec\.ts dim /,
      use: { viewport: PHONE, hasTouch: true },
    },
  ],
})
