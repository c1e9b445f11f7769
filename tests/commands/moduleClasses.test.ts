/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import postcss from 'postcss'

const root = join(__dirname, '../..')
const files = ['app', 'interface'].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' }).map((name) => join(root, folder, name)),
)
const read = (file: string) => readFileSync(file, 'utf8')
/** Class names that code takes by a key, `styles[kind]`, are not seen here. */
const BY_KEY = /\b(\w+)\[/g

type Use = Readonly<{ classes: Set<string>; hasKeys: boolean }>

test('every class of a CSS module is used, and every class used is there', () => {
  const uses = new Map<string, Use>()
  for (const file of files.filter((name) => /(?<!\.test)\.tsx?$/.test(name))) {
    const code = read(file)
    for (const [, name, path] of code.matchAll(/^import (\w+) from '(.+\.module\.css)'$/gm)) {
      const sheet = path.startsWith('@/') ? join(root, path.slice(2)) : join(dirname(file), path)
      const use = uses.get(sheet) ?? { classes: new Set<string>(), hasKeys: false }
      // Not the `parts.module` of the import's own path.
      const used = [...code.matchAll(new RegExp(`(?<![/\\w])${name}\\.(?!module\\.css)(\\w+)`, 'g'))].map(([, c]) => c)
      const hasKeys = use.hasKeys || [...code.matchAll(BY_KEY)].some(([, taken]) => taken === name)
      uses.set(sheet, { classes: new Set([...use.classes, ...used]), hasKeys })
    }
  }
  expect(uses.size).toBeGreaterThan(40)

  const faults: string[] = []
  for (const [sheet, { classes, hasKeys }] of uses) {
    const own = classesOf(read(sheet))
    const name = sheet.slice(root.length + 1)
    faults.push(...[...classes].filter((one) => !own.has(one)).map((one) => `${name} has no .${one}`))
    if (!hasKeys) faults.push(...[...own].filter((one) => !classes.has(one)).map((one) => `${name}: .${one} is unused`))
  }
  expect(faults).toEqual([])
})

/** Class names of a module's selectors, but for those of the component library inside `:global()`. */
function classesOf(css: string): Set<string> {
  const found = new Set<string>()
  postcss.parse(css).walkRules(({ selector }) => {
    const own = selector.replaceAll(/:global\([^)]*\)/g, '')
    for (const [, name] of own.matchAll(/\.([A-Za-z_][\w-]*)/g)) found.add(name)
  })
  return found
}
