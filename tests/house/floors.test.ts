import { execFileSync } from 'node:child_process'
import { join } from 'node:path'

/** Lints a piece of code as if it lay in the house, and returns the rules it breaks. A process of its own: the linter is a module. */
function broken(file: string, code: string): string[] {
  const root = join(__dirname, '../..')
  try {
    execFileSync(process.execPath, [join(root, 'node_modules/eslint/bin/eslint.js'), '--stdin', '--stdin-filename', file, '--format', 'json'], { cwd: root, input: code, encoding: 'utf8' })
    return []
  } catch (error) {
    const [{ messages }] = JSON.parse((error as { stdout: string }).stdout) as [{ messages: { ruleId: string; severity: number }[] }]
    return messages.filter((m) => m.severity === 2).map((m) => m.ruleId)
  }
}

jest.setTimeout(90_000)

test.each([
  ['React', `import { useState } from 'react'\nexport const a = useState`, 'no-restricted-imports'],
  ['Next', `import { headers } from 'next/headers'\nexport const a = headers`, 'no-restricted-imports'],
  ['Drizzle', `import { sql } from 'drizzle-orm'\nexport const a = sql`, 'no-restricted-imports'],
  ['a floor above', `import { signedIn } from '../../server/accounts/session'\nexport const a = signedIn`, 'no-restricted-imports'],
  ['a clock', `export const now = () => new Date()`, 'no-restricted-globals'],
  ['unseeded chance', `export const a = Math.random()`, 'no-restricted-properties'],
])('a core file with %s fails the lint', (_, code, rule) => {
  expect(broken('core/scale/probe.ts', code)).toContain(rule)
})

test('the server does not look up to the interface; the interface may call the server and the core', () => {
  expect(broken('server/members/probe.ts', `import { matches } from '@/interface/members/search'\nexport const a = matches`)).toContain('no-restricted-imports')
  expect(broken('interface/members/probe.ts', `import { fit } from '@/core/operations/operations'\nimport { bikesOf } from '../../server/bikes/bikes'\nexport const a = [fit, bikesOf]`)).toEqual([])
})

test('plain arithmetic in the core passes', () => {
  expect(broken('core/scale/probe.ts', `export const half = (mm: number): number => mm / 2\n`)).toEqual([])
})
