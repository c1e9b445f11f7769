import next from 'eslint-config-next/core-web-vitals'
import nextTypescript from 'eslint-config-next/typescript'
import boundaries from 'eslint-plugin-boundaries'

/** The house's floors from the top down: a floor imports only from itself and from floors below. */
const FLOORS = ['app', 'interface', 'server', 'standins', 'core']

/** What the core must not know: the screen, the framework, the database, the outside. */
const OUTSIDE_THE_CORE = '^(react|react-dom|next|antd|@ant-design|drizzle-orm|mysql2|better-auth|dayjs|comlink|node:.*|fs|path|crypto|os|http|https|net)(/|$)'

const NO_CLOCK = 'The core has no clock: times are handed in.'
const NO_CHANCE = 'The core draws only from a seeded source: core/belief/random.'

const config = [
  { ignores: ['.next/**', '.next-test/**', '.data/**', '.test-data/**', 'node_modules/**', '**/*.generated.cjs', 'next-env.d.ts', 'test-results/**'] },
  ...next,
  ...nextTypescript,
  {
    files: ['{app,interface,server,standins,core}/**/*.{ts,tsx}'],
    plugins: { boundaries },
    settings: {
      'boundaries/elements': FLOORS.map((floor) => ({ type: floor, pattern: floor, mode: 'folder' })),
      'import/resolver': { typescript: { alwaysTryTypes: true } },
    },
    rules: {
      'boundaries/element-types': ['error', { default: 'disallow', rules: FLOORS.map((floor, i) => ({ from: [floor], allow: FLOORS.slice(i) })) }],
      '@typescript-eslint/no-explicit-any': 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ regex: OUTSIDE_THE_CORE, message: 'The core is arithmetic on plain data.' }] }],
      'no-restricted-globals': ['error', { name: 'Date', message: NO_CLOCK }, { name: 'performance', message: NO_CLOCK }, { name: 'setTimeout', message: NO_CLOCK }, { name: 'crypto', message: NO_CHANCE }, { name: 'process', message: 'The core reads no environment.' }, { name: 'fetch', message: 'The core reaches nothing outside.' }],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: NO_CHANCE }],
    },
  },
]

export default config
