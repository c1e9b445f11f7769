import { execFileSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'

const root = join(__dirname, '../..')

/** Imports that break a rule, each with the rule; every probe is a file of its own in a small house. */
const PROBES: Readonly<Record<string, readonly [file: string, code: string, rule: string]>> = {
  'React in the core': ['core/base/a.ts', `import 'react'`, 'core-knows-the-outside'],
  'Next in the core': ['core/base/b.ts', `import 'next/headers'`, 'core-knows-the-outside'],
  'Drizzle in the core': ['core/base/c.ts', `import 'drizzle-orm'`, 'core-knows-the-outside'],
  'a file system in the core': ['core/base/d.ts', `import 'node:fs'`, 'core-knows-the-outside'],
  'an import of the server in the core': ['core/base/e.ts', `import '../../server/riders/members'`, 'core-looks-up'],
  'an import of the interface in the server': [
    'server/riders/f.ts',
    `import '@/interface/riders/view'`,
    'server-looks-up',
  ],
  'an import of a page in the interface': ['interface/riders/g.ts', `import '../../app/page'`, 'interface-looks-up'],
  'an upward import between subjects of the core': [
    'core/base/h.ts',
    `import '../operations/dispatch'`,
    'core/base-looks-up',
  ],
  'an upward import between the folders of a subject': [
    'core/bikes/scale/i.ts',
    `import '../calibration/fit'`,
    'core/bikes/scale-looks-up',
  ],
  'an upward import from a folder to the files beside it': [
    'core/operations/requests/r.ts',
    `import '../dispatch'`,
    'core/operations/requests-looks-up',
  ],
  'an upward import from files to a folder beside them': [
    'core/base/s.ts',
    `import './school/school'`,
    'core/base/.-looks-up',
  ],
  'an unlisted folder of the core': ['core/operations/j.ts', `import '../attic/box'`, 'core-unlisted'],
  'a circle': ['core/base/k.ts', `import './l'`, 'no-circle'],
  'an upward import between folders of the server': [
    'server/riders/n.ts',
    `import '../pages/page'`,
    'server/riders-looks-up',
  ],
  'an unlisted folder of the server': ['server/pages/o.ts', `import '../attic/box'`, 'server-unlisted'],
  'an upward import between folders of the interface': [
    'interface/kit/p.ts',
    `import '../riders/view'`,
    'interface/kit-looks-up',
  ],
  'an unlisted folder of a subject': ['interface/riders/q.ts', `import './attic/box'`, 'interface/riders-unlisted'],
  'test data in use': ['server/riders/m.ts', `import '../../core/testing/bike'`, 'testing-in-use'],
}
const OTHERS = {
  'core/base/l.ts': `import './k'`,
  'core/base/units.ts': 'export const a = 1',
  'core/base/school/school.ts': `import '../units'\nexport const b = 1`,
  'core/bikes/scale/scale.ts': `import { a } from '../../base/units'\nexport const b = a`,
  'core/bikes/calibration/fit.ts': `import '../scale/scale'\nexport const k = 1`,
  'core/operations/dispatch.ts': `import '../bikes/scale/scale'\nexport const c = 1`,
  'core/attic/box.ts': 'export const d = 1',
  'server/pages/page.ts': 'export const i = 1',
  'server/attic/box.ts': 'export const j = 1',
  'core/testing/bike.ts': 'export const e = 1',
  'server/riders/members.ts': `import '../../core/operations/dispatch'\nexport const f = 1`,
  'interface/riders/view.ts':
    `import '@/core/operations/dispatch'\nimport '../../server/riders/members'\n` + 'export const g = 1',
  'interface/riders/attic/box.ts': 'export const l = 1',
  'app/page.ts': `import '../interface/riders/view'\nexport const h = 1`,
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

test.each(Object.entries(PROBES))('%s is reported', (_, [file, , rule]) => {
  expect(violations.filter((v) => v.from === file).map((v) => v.rule.name)).toContain(rule)
})

test('imports that go down, within a floor and between rooms, are good', () => {
  const probes = Object.values(PROBES).map(([file]) => file)
  expect(violations.filter((v) => !probes.includes(v.from) && v.from !== 'core/base/l.ts')).toEqual([])
})

/** A tool adds two files for each migration, and reads them all again: nobody arranges them. */
const LOG = 'server/platform/db/migrations'

/** Folders of the house that a reader opens, with the files and folders in each; generated files count too. */
const folders = ['app', 'core', 'interface', 'server', 'standins', 'scripts', 'tests'].flatMap(
  function inside(folder): readonly Readonly<{ folder: string; files: number; folders: number }>[] {
    const entries = readdirSync(join(root, folder), { withFileTypes: true })
    const children = entries.filter((entry) => entry.isDirectory()).map(({ name }) => join(folder, name))
    return [{ folder, files: entries.length - children.length, folders: children.length }, ...children.flatMap(inside)]
  },
)

test('a folder has at most 20 files and 12 folders', () => {
  expect(folders.length).toBeGreaterThan(100)
  const arranged = folders.filter(({ folder }) => !folder.startsWith(LOG))
  expect(arranged.filter(({ files, folders }) => files > 20 || folders > 12)).toEqual([])
})

/** Lints code as if it lay in the core. One process of its own: the linter reads its settings as modules. */
const LINT = `
  import { ESLint } from 'eslint'
  const eslint = new ESLint()
  const broken = []
  for (const code of JSON.parse(process.argv[1])) {
    const [{ messages }] = await eslint.lintText(code, { filePath: 'core/base/probe.ts' })
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
