import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildSync } from 'esbuild'
import { contactAt, HOLES_BIKE as bikeType, meanRider } from '../../core/testing/meanRider'

const root = join(__dirname, '../..')
const folder = mkdtempSync(join(tmpdir(), 'fit-'))
const bundle = join(folder, 'fit.mjs')
const env = { ...process.env, NODE_OPTIONS: '' }

/** The command as one file: to compile the core anew for each request would take most of the time. */
beforeAll(() => {
  buildSync({
    entryPoints: [join(root, 'scripts/fit.ts')],
    outfile: bundle,
    bundle: true,
    platform: 'node',
    format: 'esm',
    // Packages that were written for `require` ask for it at run time.
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url)" },
  })
})
afterAll(() => rmSync(folder, { recursive: true }))

const fit = (args: string[], input: string) =>
  spawnSync(process.execPath, [bundle, ...args], { cwd: root, input, encoding: 'utf8', env })

test('the documented command starts without a bundle', () => {
  const request = JSON.stringify({ bikeType, marks: { seatHeight: '8' } })
  const started = spawnSync('npm', ['run', '--silent', 'fit', '--', 'place'], { cwd: root, input: request, env })
  expect(started.stderr.toString()).not.toMatch(/Error/)
  expect([started.status, started.stdout.toString()]).toEqual([0, fit(['place'], request).stdout])
})

test('one request, one answer, exit 0 and nothing on stderr', () => {
  const { status, stdout, stderr } = fit(
    ['pose'],
    JSON.stringify({
      rider: meanRider(1700),
      contact: contactAt(715),
      crankMm: 170,
      pedalSurfaceMm: 14,
      crankDeg: [163],
    }),
  )
  expect([status, stderr]).toEqual([0, ''])
  expect(JSON.parse(stdout).poses[0].kneeFlexionDeg).toBeCloseTo(32.5, 1)
})

test('a faulty request answers with its faults and exits 2', () => {
  const { status, stdout, stderr } = fit(['place'], '{"bikeType":')
  expect([status, stderr]).toEqual([2, ''])
  expect(JSON.parse(stdout).error.kind).toBe('badJson')
  expect(fit(['fly'], '{}').status).toBe(2)
})

test('with --lines a bad line answers its fault and the run goes on', () => {
  const good = JSON.stringify({ bikeType, marks: { seatHeight: '8' } })
  const { status, stdout } = fit(['place', '--lines'], `${good}\nnonsense\n\n${good}`)
  const answers = stdout
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line))
  expect(status).toBe(0)
  expect(answers.map((a) => a.error?.kind)).toEqual([undefined, 'badJson', undefined])
})

test.each([
  'place',
  'recommend',
  'calibrate',
  'translate',
  'afterChange',
  'misSet',
  'plan',
  'explain',
  'accommodation',
  'alone',
  'body',
])('the example of %s in docs/ is answered', (operation) => {
  const { status, stdout } = fit([operation], readFileSync(join(root, 'docs/examples', `${operation}.json`), 'utf8'))
  expect(status).toBe(0)
  expect(JSON.parse(stdout).error).toBeUndefined()
})
