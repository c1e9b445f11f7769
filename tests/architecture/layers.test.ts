import { execFileSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'

const root = join(__dirname, '../..')

/** Imports that break a rule, each with the rule; every probe is a file of its own in a small house. */
const PROBES: Readonly<Record<string, readonly [file: string, code: string, rule: string]>> = {
  'React in the core': ['core/scale/a.ts', `import 'react'`, 'core-knows-the-outside'],
  'Next in the core': ['core/scale/b.ts', `import 'next/headers'`, 'core-knows-the-outside'],
  'Drizzle in the core': ['core/scale/c.ts', `import 'drizzle-orm'`, 'core-knows-the-outside'],
  'a file system in the core': ['core/scale/d.ts', `import 'node:fs'`, 'core-knows-the-outside'],
  'the core looking up': ['core/scale/e.ts', `import '../../server/members/members'`, 'core-looks-up'],
  'the server looking up': ['server/members/f.ts', `import '@/interface/members/view'`, 'server-looks-up'],
  'the interface looking up': ['interface/members/g.ts', `import '../../app/page'`, 'interface-looks-up'],
  'a room of the core looking up': ['core/scale/h.ts', `import '../operations/dispatch'`, 'core-scale-looks-up'],
  'what all rooms stand on looking into one': ['core/i.ts', `import './scale/scale'`, 'core-root-looks-into-rooms'],
  'a room nobody listed': ['core/operations/j.ts', `import '../attic/box'`, 'core-room-unlisted'],
  'a circle': ['core/scale/k.ts', `import './l'`, 'no-circle'],
  'a folder of the server looking up': ['server/members/n.ts', `import '../pages/page'`, 'server-members-looks-up'],
  'a folder of the server nobody listed': ['server/pages/o.ts', `import '../attic/box'`, 'server-room-unlisted'],
  'test data in use': ['server/members/m.ts', `import '../../core/testing/bike'`, 'testing-in-use'],
}
const OTHERS = {
  'core/scale/l.ts': `import './k'`,
  'core/scale/scale.ts': `import { a } from '../units'\nexport const b = a`,
  'core/units.ts': 'export const a = 1',
  'core/operations/dispatch.ts': `import '../scale/scale'\nexport const c = 1`,
  'core/attic/box.ts': 'export const d = 1',
  'server/pages/page.ts': 'export const i = 1',
  'server/attic/box.ts': 'export const j = 1',
  'core/testing/bike.ts': 'export const e = 1',
  'server/members/members.ts': `import '../../core/operations/dispatch'\nexport const f = 1`,
  'interface/members/view.ts':
    `import '@/core/operations/dispatch'\nimport '../../server/members/members'\nexport ` + 'const g = 1',
  'app/page.ts': `import '../interface/members/view'\nexport const h = 1`,
}

type Violation = Readonly<{ from: string; rule: Readonly<{ name: string }> }>
let violations: readonly Violation[]
let house: string

beforeAll(() => {
  house = mkdtempSync(join(tmpdir(), 'house-'))
  const files = { ...OTHERS, ...Object.fromEntries(Object.values(PROBES).map(([file, code]) => [file, code])) }
  for (const [file, code] of Object.entries(files)) {
    mkdirSync(dirname(join(house, file)), { recursive: true })
    writeFileSync(join(house, file), `${code}\nexport {}\n`)
  }
  for (const file of ['.dependency-cruiser.cjs', 'tsconfig.json']) cpSync(join(root, file), join(house, file))
  symlinkSync(join(root, 'node_modules'), join(house, 'node_modules'))
  const args = ['--config', '.dependency-cruiser.cjs', '--output-type', 'json', 'app', 'interface', 'server', 'core']
  let json: string
  try {
    json = execFileSync(join(root, 'node_modules/.bin/depcruise'), args, { cwd: house, encoding: 'utf8' })
  } catch (error) {
    json = (error as { stdout: string }).stdout
  }
  violations = (JSON.parse(json) as { summary: { violations: Violation[] } }).summary.violations
})
afterAll(() => rmSync(house, { recursive: true }))

test.each(Object.entries(PROBES))('%s is told', (_, [file, , rule]) => {
  expect(violations.filter((v) => v.from === file).map((v) => v.rule.name)).toContain(rule)
})

test('imports that go down, within a floor and between rooms, are good', () => {
  const probes = Object.values(PROBES).map(([file]) => file)
  expect(violations.filter((v) => !probes.includes(v.from) && v.from !== 'core/scale/l.ts')).toEqual([])
})

/** Lints code as if it lay in the core. One process of its own: the linter reads its settings as modules. */
const LINT = `
  import { ESLint } from 'eslint'
  const eslint = new ESLint()
  const broken = []
  for (const code of JSON.parse(process.argv[1])) {
    const [{ messages }] = await eslint.lintText(code, { filePath: 'core/scale/probe.ts' })
    broken.push(messages.filter((m) => m.severity === 2).map((m) => m.ruleId))
  }
  process.stdout.write(JSON.stringify(broken))`

test('the core has no clock and no unseeded chance', () => {
  const code = [
    'export const now = () => new Date()',
    'export const a = Math.random()',
    'export const half = (mm: number): number => mm / 2\n',
  ]
  const broken = execFileSync(process.execPath, ['--input-type=module', '-e', LINT, JSON.stringify(code)], {
    cwd: root,
    encoding: 'utf8',
  })
  expect(JSON.parse(broken)).toEqual([['no-restricted-globals'], ['no-restricted-properties'], []])
})
