import nextJest from 'next/jest.js'

const withNext = nextJest({ dir: './' })
const shared = {
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
  testPathIgnorePatterns: ['/node_modules/', '/.next', '/tests/browser/', ...(process.env.DATABASE_URL ? [] : ['/tests/database/']), '/.data/', '/.test-data/'],
  modulePathIgnorePatterns: ['/.next/', '/.next-test/', '/.data/', '/.test-data/'],
}

/** Packages that ship only modules are turned into what Jest runs. */
const transformIgnorePatterns = ['/node_modules/(?!(@freesewing|@ant-design)/)']

/** What needs nothing, what needs a page, and what needs the database that the test script starts. */
const config = async () => ({
  projects: [
    { ...(await withNext({ ...shared, displayName: 'plain', testEnvironment: 'node', testMatch: ['<rootDir>/**/*.test.ts'] })()), transformIgnorePatterns },
    { ...(await withNext({ ...shared, displayName: 'page', testEnvironment: 'jsdom', testMatch: ['<rootDir>/**/*.test.tsx'], setupFiles: ['<rootDir>/tests/pageGlobals.ts'] })()), transformIgnorePatterns },
  ],
})

export default config
