import { build } from 'esbuild'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'

const root = join(__dirname, '../..')

/** The floor's own script as a bundler sees it: what is fetched before the page answers to hands. */
async function floorScript() {
  const { outputFiles, metafile } = await build({
    stdin: {
      contents: "import { WatchView } from './interface/classes/watch/WatchView'\nconsole.log(WatchView)",
      resolveDir: root,
      loader: 'tsx',
    },
    bundle: true,
    splitting: true,
    minify: true,
    format: 'esm',
    outdir: join(root, '.test-data', 'floor'),
    write: false,
    metafile: true,
    logLevel: 'silent',
    jsx: 'automatic',
    loader: { '.css': 'empty' },
    alias: { '@': root },
    external: ['next/*', 'react', 'react-dom', '*/commands/send', './send'],
  })
  const [path, first] = Object.entries(metafile.outputs).find(([name]) => name.endsWith('stdin.js'))!
  const loaded = new Set<string>()
  const walk = (name: string) => {
    if (loaded.has(name)) return
    loaded.add(name)
    for (const { path: to, kind } of metafile.outputs[name]?.imports ?? []) if (kind === 'import-statement') walk(to)
  }
  walk(path)
  const inputs = [...loaded].flatMap((name) => Object.keys(metafile.outputs[name]?.inputs ?? {}))
  const bytes = outputFiles
    .filter((file) => [...loaded].some((name) => file.path.endsWith(name.split('/').at(-1)!)))
    .reduce((sum, { contents }) => sum + gzipSync(contents).length, 0)
  return { inputs: [...inputs, ...Object.keys(first.inputs)], bytes }
}

test('the floor during a class carries no component library, no schemas, no statistics and no database', async () => {
  const { inputs, bytes } = await floorScript()
  expect(inputs).toContain('interface/classes/watch/WatchView.tsx')
  const heavy = inputs.filter((path) => /node_modules\/(antd|@ant-design|@sinclair|jstat|dexie|dayjs|ajv)\//.test(path))
  expect(heavy).toEqual([])
  expect(
    inputs.filter((path) => /^(core\/(riders\/evidence|riders\/inference|operations)|server)\//.test(path)),
  ).toEqual([])
  // Far below what the page may have of its own: room to grow, none for a library that slips in.
  expect(bytes).toBeLessThan(60_000)
}, 600_000)
