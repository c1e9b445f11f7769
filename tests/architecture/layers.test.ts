import { execFileSync } from 'node:child_process'
import { join } from 'node:path'

const PROBES = {
  React: ['core/scale/probe.ts', `import { useState } from 'react'\nexport const a = useState`],
  Next: ['core/scale/probe.ts', `import { headers } from 'next/headers'\nexport const a = headers`],
  Drizzle: ['core/scale/probe.ts', `import { sql } from 'drizzle-orm'\nexport const a = sql`],
  'a floor above': [
    'core/scale/probe.ts',
    `import { requireUser } from '../../server/accounts/session'\nexport const a = requireUser`,
  ],
  'a clock': ['core/scale/probe.ts', `export const now = () => new Date()`],
  'unseeded chance': ['core/scale/probe.ts', `export const a = Math.random()`],
  'plain arithmetic': ['core/scale/probe.ts', `export const half = (mm: number): number => mm / 2\n`],
  'a server that looks up': [
    'server/members/probe.ts',
    `import { matches } from '@/interface/members/search'\nexport const a = matches`,
  ],
  'an interface that looks down': [
    'interface/members/probe.ts',
    `import { fit } from '@/core/operations/operations'\nimport { bikesOf } from '../../server/bikes/bikes'\nexport const a = [fit, bikesOf]`,
  ],
} as const

/** Lints every probe as if it lay in the house. One process of its own for all: the linter reads its settings as modules. */
const LINT = `
  import { ESLint } from 'eslint'
  const probes = JSON.parse(process.argv[1])
  const eslint = new ESLint()
  const broken = {}
  for (const [name, [filePath, code]] of Object.entries(probes)) {
    const [{ messages }] = await eslint.lintText(code, { filePath })
    broken[name] = messages.filter((m) => m.severity === 2).map((m) => m.ruleId)
  }
  process.stdout.write(JSON.stringify(broken))`

let broken: Record<keyof typeof PROBES, string[]>
beforeAll(() => {
  broken = JSON.parse(
    execFileSync(process.execPath, ['--input-type=module', '-e', LINT, JSON.stringify(PROBES)], {
      cwd: join(__dirname, '../..'),
      encoding: 'utf8',
    }),
  )
}, 90_000)

test.each([
  ['React', 'no-restricted-imports'],
  ['Next', 'no-restricted-imports'],
  ['Drizzle', 'no-restricted-imports'],
  ['a floor above', 'no-restricted-imports'],
  ['a clock', 'no-restricted-globals'],
  ['unseeded chance', 'no-restricted-properties'],
] as const)('a core file with %s fails the lint', (probe, rule) => {
  expect(broken[probe]).toContain(rule)
})

test('the server does not look up to the interface; the interface may call the server and the core', () => {
  expect(broken['a server that looks up']).toContain('no-restricted-imports')
  expect(broken['an interface that looks down']).toEqual([])
})

test('plain arithmetic in the core passes', () => {
  expect(broken['plain arithmetic']).toEqual([])
})
