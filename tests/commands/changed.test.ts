import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

type Changed = typeof import('../../scripts/support/changed.mjs')
/** Jest cannot load a module of Node itself. */
const changed = (): Promise<Changed> => import('../../scripts/support/changed.mjs')

const MODULES = [
  { source: 'core/a.ts', dependencies: [] },
  { source: 'core/b.ts', dependencies: [{ resolved: 'core/a.ts' }] },
  { source: 'app/(studio)/riders/[id]/page.tsx', dependencies: [{ resolved: 'core/b.ts' }] },
  { source: 'app/(studio)/bikes/page.tsx', dependencies: [] },
  { source: 'tests/browser/direct.spec.ts', dependencies: [{ resolved: 'core/a.ts' }] },
]

test('a change reaches every file that imports it, also through others', async () => {
  const { reachedFrom } = await changed()
  expect([...reachedFrom(['core/a.ts'], MODULES)].sort()).toEqual([
    'app/(studio)/riders/[id]/page.tsx',
    'core/a.ts',
    'core/b.ts',
    'tests/browser/direct.spec.ts',
  ])
})

test('a page has the address of its folders, groups left out', async () => {
  const { addressOf } = await changed()
  expect(addressOf('app/(studio)/riders/[id]/page.tsx')!.test("goto('/riders/member-05')")).toBe(true)
  expect(addressOf('app/(studio)/riders/[id]/page.tsx')!.test("goto('/riders/member-05/story')")).toBe(false)
  expect(addressOf('app/api/outbox/route.ts')!.test('/api/outbox')).toBe(true)
  expect(addressOf('core/a.ts')).toBeNull()
})

test('browser tests are touched by their imports, and by the addresses they open', async () => {
  const { reachedFrom, touchedSpecs } = await changed()
  const root = mkdtempSync(join(tmpdir(), 'specs-'))
  try {
    const write = (name: string, text: string) => writeFileSync(join(root, name), text)
    write('rider.spec.ts', "await page.goto('/riders/member-01')")
    write('bikes.spec.ts', "await page.goto('/bikes')")
    const reached = reachedFrom(['core/a.ts'], MODULES)
    expect(touchedSpecs(root, reached, ['rider.spec.ts', 'bikes.spec.ts'])).toEqual(['rider.spec.ts'])
    expect(touchedSpecs(root, reached, ['tests/browser/direct.spec.ts'])).toEqual(['tests/browser/direct.spec.ts'])
  } finally {
    rmSync(root, { recursive: true })
  }
})
