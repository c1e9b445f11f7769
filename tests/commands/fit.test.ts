import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { contactAt, HOLES_BIKE as bikeType, meanRider } from '../../core/testing/meanRider'
const root = join(__dirname, '../..')
const fit = (args: string[], input: string) =>
  spawnSync(process.execPath, ['--import', 'tsx', 'scripts/fit.ts', ...args], {
    cwd: root,
    input,
    encoding: 'utf8',
    env: { ...process.env, NODE_OPTIONS: '' },
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
])('the example of %s in docs/ is answered', (operation) => {
  const { status, stdout } = fit([operation], readFileSync(join(root, 'docs/examples', `${operation}.json`), 'utf8'))
  expect(status).toBe(0)
  expect(JSON.parse(stdout).error).toBeUndefined()
})
