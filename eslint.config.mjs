// `.dependency-cruiser.cjs` rules which folder may import which.
import next from 'eslint-config-next/core-web-vitals'
import nextTypescript from 'eslint-config-next/typescript'

const NO_CLOCK = 'The core has no clock: times are handed in.'
const NO_CHANCE = 'The core draws only from a seeded source: core/base/rng.'

/** The rules about React cost most of the time: they judge only files that can hold a component or a hook. */
const onlyWhereReactIs = (configs) =>
  configs.map((config) =>
    Object.keys(config.rules ?? {}).some((rule) => rule.startsWith('react'))
      ? { ...config, files: ['**/*.tsx', 'interface/**/*.ts'] }
      : config,
  )

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
  ...onlyWhereReactIs(next),
  ...nextTypescript,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['warn', { ignoreRestSiblings: true }],
      'max-len': ['error', { code: 120 }],
    },
  },
  {
    files: ['**/*.{ts,tsx,mjs}'],
    rules: { 'no-sequences': 'error' },
  },
  {
    files: ['interface/**/*.tsx', 'app/**/*.tsx'],
    rules: {
      'max-lines-per-function': ['error', { max: 150 }],
      'no-restricted-imports': [
        'error',
        {
          paths: [
            { name: 'antd', importNames: ['InputNumber'], message: 'It loses decimal commas: NumberField.' },
            { name: 'next/link', message: 'It fetches pages ahead: kit/Link.' },
          ],
        },
      ],
    },
  },
  { files: ['interface/kit/Link.tsx'], rules: { 'no-restricted-imports': 'off' } },
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
