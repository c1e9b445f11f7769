import next from 'eslint-config-next/core-web-vitals'
import nextTypescript from 'eslint-config-next/typescript'

/** The house's floors from the top down: a floor imports only from itself and from floors below. */
const FLOORS = ['app', 'interface', 'server', 'standins', 'core']

/** What the core must not know: the screen, the framework, the database, the outside. */
const OUTSIDE_THE_CORE = {
  regex:
    '^(react|react-dom|next|antd|@ant-design|drizzle-orm|mysql2|better-auth|dayjs|comlink|node:.*|fs|path|crypto|os|http|https|net)(/|$)',
  message: 'The core is arithmetic on plain data.',
}
const NO_CLOCK = 'The core has no clock: times are handed in.'
const NO_CHANCE = 'The core draws only from a seeded source: core/rng.'

const floorRules = FLOORS.slice(1).map((floor, i) => {
  const above = FLOORS.slice(0, i + 1)
  const upward = {
    regex: `^(@/|(\\.\\./)+)(${above.join('|')})(/|$)`,
    message: `${floor} stands below ${above.join(', ')}.`,
  }
  return {
    files: [`${floor}/**/*.{ts,tsx}`],
    rules: {
      'no-restricted-imports': ['error', { patterns: floor === 'core' ? [upward, OUTSIDE_THE_CORE] : [upward] }],
    },
  }
})

const config = [
  {
    ignores: [
      '.next/**',
      '.next-test/**',
      '.data/**',
      '.test-data/**',
      'node_modules/**',
      '**/*.generated.cjs',
      'next-env.d.ts',
      'test-results/**',
    ],
  },
  ...next,
  ...nextTypescript,
  { rules: { '@typescript-eslint/no-explicit-any': 'error' } },
  ...floorRules,
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...['Date', 'performance', 'setTimeout', 'setInterval'].map((name) => ({ name, message: NO_CLOCK })),
        { name: 'crypto', message: NO_CHANCE },
        { name: 'process', message: 'The core reads no environment.' },
        { name: 'fetch', message: 'The core reaches nothing outside.' },
      ],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: NO_CHANCE }],
    },
  },
]

export default config
