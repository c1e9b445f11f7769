import nextJest from 'next/jest.js'

const withNext = nextJest({ dir: './' })
const shared = {
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
  testPathIgnorePatterns: [
    '/node_modules/',
    '/.next',
    '/tests/browser/',
    ...(process.env.DATABASE_URL ? [] : ['/tests/database/']),
    '/.data/',
    '/.test-data/',
  ],
  modulePathIgnorePatterns: ['/.next/', '/.next-test/', '/.data/', '/.test-data/'],
}

/** Packages that ship only modules are turned into what Jest runs. */
const AS_MODULES = [
  '@freesewing',
  '@ant-design',
  'better-auth',
  '@better-auth',
  'better-call',
  '@better-fetch',
  '@noble',
  'jose',
  'nanostores',
  'uncrypto',
  'defu',
  'rou3',
  'kysely',
  'set-cookie-parser',
  'p-retry',
  'is-network-error',
  'd3-interpolate',
  'd3-color',
]
const transformIgnorePatterns = [`/node_modules/(?!(${AS_MODULES.join('|')})/)`]

/** What needs nothing, what needs a page, and what needs the database that the test script starts. */
const config = async () => ({
  // A test that hangs ends at last; none fails for being slow, whatever else the machine is doing.
  testTimeout: 600_000,
  projects: [
    {
      ...(await withNext({
        ...shared,
        displayName: 'plain',
        testEnvironment: 'node',
        testMatch: ['<rootDir>/**/*.test.ts'],
      })()),
      transformIgnorePatterns,
    },
    {
      ...(await withNext({
        ...shared,
        displayName: 'page',
        testEnvironment: 'jsdom',
        testMatch: ['<rootDir>/**/*.test.tsx'],
        setupFiles: ['<rootDir>/tests/pageGlobals.ts'],
        setupFilesAfterEnv: ['<rootDir>/tests/patience.ts'],
      })()),
      transformIgnorePatterns,
    },
  ],
})

export default config
