import nextJest from 'next/jest.js'

const withNext = nextJest({ dir: './' })
const shared = {
  // Looked up through Jest's own sandbox they are several times slower, and the core does little else.
  sandboxInjectedGlobals: ['Math', 'Number', 'Array', 'Object', 'Map', 'Float64Array', 'Int32Array', 'Uint8Array'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
  testPathIgnorePatterns: ['/node_modules/', '/.next', '/tests/browser/', '/.data/', '/.test-data/'],
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

const project = async (options) => ({ ...(await withNext({ ...shared, ...options })()), transformIgnorePatterns })

/** What needs nothing, what needs a page, and what needs the database that the test script starts. */
const config = async () => ({
  // A test that hangs ends at last; none fails for being slow, whatever else the machine is doing.
  testTimeout: 600_000,
  projects: [
    await project({
      displayName: 'plain',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/**/*.test.ts'],
      testPathIgnorePatterns: [...shared.testPathIgnorePatterns, '/tests/database/'],
    }),
    await project({
      displayName: 'page',
      testEnvironment: 'jsdom',
      // One file each: a module of its own for every component and every icon takes longer to load than the tests run.
      moduleNameMapper: {
        ...shared.moduleNameMapper,
        // The file of the icons names React as a script tag would.
        '^React$': '<rootDir>/node_modules/react/index.js',
        '^antd$': '<rootDir>/node_modules/antd/dist/antd.min.js',
        '^@ant-design/icons$': '<rootDir>/node_modules/@ant-design/icons/dist/index.umd.min.js',
      },
      testMatch: ['<rootDir>/**/*.test.tsx'],
      setupFiles: ['<rootDir>/tests/pageGlobals.ts'],
      setupFilesAfterEnv: ['<rootDir>/tests/patience.ts'],
    }),
    ...(process.env.DATABASE_URL
      ? [
          await project({
            displayName: 'database',
            testEnvironment: 'node',
            testMatch: ['<rootDir>/tests/database/**/*.test.ts'],
          }),
        ]
      : []),
  ],
})

export default config
