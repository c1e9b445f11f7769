import { execFileSync, spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(__dirname, '../..')
const tsx = join(root, 'node_modules/.bin/tsx')

test('the committed style sheets are those of the components that the interface imports', () => {
  const check = spawnSync(tsx, ['scripts/componentStyles.tsx', '--check'], { cwd: root, encoding: 'utf8' })
  expect(check.stderr.split('\n').filter((line) => line.includes('npm run styles'))).toEqual([])
  expect(check.status).toBe(0)

  const styled = Object.values(sheets()).flat()
  // A provider and the tokens draw nothing.
  const drawn = importedComponents().filter((name) => !['ConfigProvider', 'theme'].includes(name))
  expect(drawn.length).toBeGreaterThan(15)
  expect(drawn.filter((name) => !styled.includes(name))).toEqual([])
})

/** Components by style sheet, as the script lists them: it is a module that Jest cannot load. */
function sheets(): Readonly<Record<string, readonly string[]>> {
  const [, list] = /SHEETS[^=]*= (\{[^}]*\})/.exec(readFileSync(join(root, 'scripts/componentStyles.tsx'), 'utf8'))!
  const entries = [...list.matchAll(/(\w+): \[([^\]]*)\]/g)]
  return Object.fromEntries(
    entries.map(([, sheet, names]) => [sheet, [...names.matchAll(/'(\w+)'/g)].map(([, name]) => name)]),
  )
}

/** Every value that the code of app and interface imports from the component library. */
function importedComponents(): string[] {
  const files = execFileSync('find', ['app', 'interface', '-name', '*.ts*'], { cwd: root, encoding: 'utf8' })
  const names = files
    .trim()
    .split('\n')
    .flatMap((file) => [...readFileSync(join(root, file), 'utf8').matchAll(/import \{([^}]*)\} from 'antd'/g)])
    .flatMap(([, list]) => list.split(','))
    .map((name) => name.trim().split(' as ')[0])
    .filter((name) => name && !name.startsWith('type '))
  return [...new Set(names)].sort()
}

test('a file that imports a component with a sheet of its own imports that sheet', () => {
  const files = execFileSync('find', ['app', 'interface', '-name', '*.tsx'], { cwd: root, encoding: 'utf8' })
  const missing = files
    .trim()
    .split('\n')
    .flatMap((file) => {
      const code = readFileSync(join(root, file), 'utf8')
      const names =
        /import \{([^}]*)\} from 'antd'/
          .exec(code)?.[1]
          .split(',')
          .map((name) => name.trim()) ?? []
      return Object.entries(sheets())
        .filter(([sheet, components]) => sheet !== 'base' && components.some((name) => names.includes(name)))
        .filter(([sheet]) => !code.includes(`/antd/${sheet}.generated.css'`))
        .map(([sheet]) => `${file} ${sheet}`)
    })
  expect(missing).toEqual([])
})

test('the sheet that every page loads stays small', () => {
  expect(readFileSync(join(root, 'interface/kit/antd/base.generated.css')).length).toBeLessThan(60_000)
})
