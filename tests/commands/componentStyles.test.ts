import { execFileSync, spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(__dirname, '../..')
const tsx = join(root, 'node_modules/.bin/tsx')

test('the committed style sheets are those of the components that the interface imports', () => {
  const check = spawnSync(tsx, ['scripts/componentStyles.tsx', '--check'], { cwd: root, encoding: 'utf8' })
  expect(check.stderr.split('\n').filter((line) => line.includes('npm run styles'))).toEqual([])
  expect(check.status).toBe(0)

  const sheets = /SHEETS[^=]*= (\{[^}]*\})/.exec(readFileSync(join(root, 'scripts/componentStyles.tsx'), 'utf8'))![1]
  const styled = [...sheets.matchAll(/'(\w+)'/g)].map(([, name]) => name)
  // A provider and the tokens draw nothing.
  const drawn = importedComponents().filter((name) => !['ConfigProvider', 'theme'].includes(name))
  expect(drawn.length).toBeGreaterThan(15)
  expect(drawn.filter((name) => !styled.includes(name))).toEqual([])
})

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

test('what every page loads of them stays small', () => {
  expect(readFileSync(join(root, 'interface/shared/antd/base.generated.css')).length).toBeLessThan(120_000)
})
