/**
 * What a tap costs, as production runs it: the core bundled, once in Node and once in a web worker of Chromium, on
 * any idle core. 4,000 samples, four axes, ten rows with full marks, a history of three set-ups. Then, from
 * Node's own profiler, which functions the time goes to. Prints Markdown.
 *
 *   npm run bench:tap -- --taps 200
 */
import { build } from 'esbuild'
import { chromium } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ensureDebian, CHROMIUM, chromiumPath } from '../support/installed.mjs'

const { values } = parseArgs({ options: { taps: { type: 'string', default: '200' } } })
const taps = Number(values.taps)
const folder = 'node_modules/.cache/bench-tap'
rmSync(folder, { recursive: true, force: true })
mkdirSync(folder, { recursive: true })

const entry = "import { measureTaps } from './scripts/bench/tap/measure'\n"
const bundle = (tail, format, outfile) =>
  build({
    stdin: { contents: entry + tail, resolveDir: process.cwd(), loader: 'ts' },
    bundle: true,
    outfile,
    format,
    platform: format === 'iife' ? 'browser' : 'node',
    logLevel: 'error',
  })
const inNode = join(folder, 'node.cjs')
const inWorker = join(folder, 'worker.js')
await bundle('console.log(JSON.stringify(measureTaps(Number(process.argv[2]))))', 'cjs', inNode)
await bundle(`postMessage(measureTaps(${taps}))`, 'iife', inWorker)

const run = (...flags) =>
  JSON.parse(execFileSync(process.execPath, [...flags, inNode, String(taps)], { encoding: 'utf8' }))

async function workerTimes() {
  await ensureDebian([CHROMIUM])
  const browser = await chromium.launch({
    executablePath: chromiumPath(),
    chromiumSandbox: process.getuid?.() !== 0,
    args: ['--disable-background-networking'],
  })
  const page = await browser.newPage()
  const times = await page.evaluate(
    (code) =>
      new Promise((resolve, reject) => {
        const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })))
        worker.onmessage = ({ data }) => resolve(data)
        worker.onerror = ({ message }) => reject(new Error(message))
      }),
    readFileSync(inWorker, 'utf8'),
  )
  await browser.close()
  return times
}

/** Own time of each function, as shares of all, the largest first. */
function profile() {
  run('--cpu-prof', `--cpu-prof-dir=${folder}/profile`, '--cpu-prof-interval', '200')
  const [file] = readdirSync(join(folder, 'profile'))
  const { nodes, samples, timeDeltas } = JSON.parse(readFileSync(join(folder, 'profile', file), 'utf8'))
  const source = readFileSync(inNode, 'utf8').split('\n')
  const nameOf = new Map(
    nodes.map(({ id, callFrame: { functionName, lineNumber } }) => [
      id,
      functionName || `in “${(source[lineNumber] ?? '').trim().slice(0, 60)}”`,
    ]),
  )
  const own = new Map()
  samples.forEach((id, i) => own.set(nameOf.get(id), (own.get(nameOf.get(id)) ?? 0) + timeDeltas[i]))
  const total = [...own.values()].reduce((a, b) => a + b, 0)
  return [...own].map(([name, time]) => [name, time / total]).sort((a, b) => b[1] - a[1])
}

const share = (times, part) => [...times].sort((a, b) => a - b)[Math.floor(part * times.length)].toFixed(0)
const row = (where, times) =>
  console.log(`| ${where} | ${share(times, 0.5)} ms | ${share(times, 0.95)} ms | ${share(times, 0.999)} ms |`)
console.log(`${taps} taps, each a run.\n\n| where | median | p95 | most |\n|---|---|---|---|`)
for (const turn of [1, 2, 3]) row(`Node, run ${turn}`, run())
for (const turn of [1, 2, 3]) row(`Chromium's worker, run ${turn}`, await workerTimes())
console.log('\n| own time in | share |\n|---|---|')
for (const [name, part] of profile().slice(0, 16)) console.log(`| \`${name}\` | ${(100 * part).toFixed(1)} % |`)
