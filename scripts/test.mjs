/**
 * `npm test`: everything, from a fresh clone. Installs what is missing, then types, format, lint, Jest (core, view
 * logic and database) and Playwright against a production build, on throwaway databases and free ports. Ends with
 * one line, `N passed, N failed`. Every part runs, also after one failed; parts that share nothing run side by side.
 *
 *   npm test -- jest browser            only these parts, of build, types, format, lint, jest and browser
 *   npm test -- jest tests/database     a part with arguments of its own
 *   npm test -- changed [revision]      only what the files changed since a git revision (HEAD) touch by their imports
 */
import { createWriteStream, existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { changedFiles, reachedFrom, touchedSpecs } from './support/changed.mjs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  CHROMIUM,
  chromiumPath,
  ensureDebian,
  ensureNode,
  ensureNpmPackages,
  MARIADB,
  MARIADB_CLIENT,
} from './support/installed.mjs'
import { claim, copyDatabase, startMariaDb } from './support/mariadb.mjs'
import { startStandIn } from './support/standIns.mjs'
import { freePort, run, stopRunning } from './support/processes.mjs'
import { bin, build, serve } from './support/production.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const folder = join(root, '.test-data')
/** The folders that `.dependency-cruiser.cjs` checks. */
const CRUISED = ['--config', '.dependency-cruiser.cjs', 'app', 'interface', 'server', 'core', 'scripts']
const PARTS = ['build', 'types', 'format', 'lint', 'jest', 'browser']
const words = process.argv.slice(2)
const isChanged = words[0] === 'changed'
const parts = isChanged ? [] : words.filter((word) => PARTS.includes(word))
const given = isChanged ? [] : words.filter((word) => !PARTS.includes(word))
/** Of `changed`: the changed files and the browser tests they touch; null otherwise. */
let change = null
const isRun = (name) => (change ? RUNS_FOR_CHANGE[name](change) : parts.length === 0 || parts.includes(name))
const totals = { passed: 0, failed: 0 }
const stops = []

/** Which parts a change needs. */
const RUNS_FOR_CHANGE = {
  build: ({ specs }) => specs.length > 0,
  types: ({ code, deleted }) => code.length > 0 || deleted.length > 0,
  format: ({ files }) => files.length > 0,
  lint: ({ code }) => code.length > 0,
  jest: ({ code }) => code.length > 0,
  browser: ({ specs }) => specs.length > 0,
}

async function readChange(revision) {
  const { files, deleted } = changedFiles(root, revision)
  const code = files.filter((file) => /\.(ts|tsx|mjs|cjs)$/.test(file))
  const report = await run(bin(root, 'depcruise'), [...CRUISED, 'tests', '--output-type', 'json'], {
    cwd: root,
    quiet: true,
  }).catch((error) => error.output)
  const reached = reachedFrom(files, JSON.parse(report.slice(report.indexOf('{'))).modules)
  const specs = readdirSync(join(root, 'tests/browser'))
    .filter((name) => name.endsWith('.spec.ts'))
    .map((name) => `tests/browser/${name}`)
  const touched = touchedSpecs(root, reached, specs)
  console.log(`${files.length} files changed, ${deleted.length} deleted; browser tests: ${touched.join(' ') || 'none'}`)
  return { files, deleted, code, specs: touched }
}

/** Runs one part; its own count where it has one, else one passed or failed. */
async function part(name, work, count) {
  const began = Date.now()
  console.log(`\n— ${name}`)
  let ok = true
  try {
    await work()
  } catch (error) {
    ok = false
    console.error(error.output === undefined ? error.message : `${name} failed`)
  }
  const counted = count?.() ?? null
  totals.passed += counted ? counted.passed : ok ? 1 : 0
  totals.failed += counted ? counted.failed + (!ok && counted.failed === 0 ? 1 : 0) : ok ? 0 : 1
  console.log(`  ${name} ${ok ? 'done' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(0)} s`)
  return ok
}

const read = (name) => (existsSync(join(folder, name)) ? JSON.parse(readFileSync(join(folder, name), 'utf8')) : null)
const jestCount = (file) => () => {
  const report = read(file)
  return report && { passed: report.numPassedTests, failed: report.numFailedTests + report.numRuntimeErrorTestSuites }
}
const browserCount = () => {
  const stats = read('browser.json')?.stats
  return stats ? { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped } : null
}

/** Jest over some of the projects of `jest.config.mjs`; a part's own arguments may leave it nothing to run. */
function jestPart(name, projects, env) {
  const file = `${name}.json`
  const related = change ? ['--findRelatedTests', ...change.code] : given
  // What a failed test left open, such as a connection, would keep the run from ending.
  const words = ['--selectProjects', ...projects, '--ci', '--passWithNoTests', '--forceExit', '--json', ...related]
  return part(
    name,
    () =>
      run(bin(root, 'jest'), [...words, `--outputFile=${join(folder, file)}`], { cwd: root, env, quiet: true }).catch(
        (error) => {
          console.error(error.output.replace(/^\{".*\n/gm, ''))
          throw error
        },
      ),
    jestCount(file),
  )
}

/** The compiler's native edition checks in a quarter of the time; the linter and the framework need the other one. */
const nativeTypes = (folder) => join(folder, 'node_modules', 'typescript-native', 'bin', 'tsc')

/** All parts but the build and the browser's, the longest first: each takes one core. */
function partsOfOneCore(env) {
  const files = ['--experimental-cli', '--check', '--ignore-unknown', ...(change?.files ?? ['.'])]
  const linted = [...(change?.code ?? ['.']), '--max-warnings', '0']
  const check = (name, command, args, options) => () => part(name, () => run(command, args, { cwd: root, ...options }))
  return [
    ['jest', () => jestPart('jest', ['plain', 'page'], env)],
    // The tests of server code, one file after the other: they share a database.
    ['jest', () => jestPart('jest with database', ['database'], env)],
    ['lint', check('lint', bin(root, 'eslint'), linted)],
    ['types', check('types', nativeTypes(root), ['--noEmit'])],
    ['format', check('format', bin(root, 'prettier'), files, { quiet: true })],
    ['lint', check('imports', bin(root, 'depcruise'), CRUISED, { quiet: true })],
  ].flatMap(([name, work]) => (isRun(name) ? [work] : []))
}

/** Fails where the servers of the browser's tests logged a name, or a password of the demo's people. */
async function searchLogs(databases) {
  // Not there before the packages are installed.
  const { createConnection } = await import('mysql2/promise')
  const words = new Set(JSON.parse(readFileSync(join(root, 'scripts/people.json'), 'utf8')).map((one) => one.password))
  for (const url of databases) {
    const connection = await createConnection({ uri: url })
    const [names] = await connection.query('SELECT name FROM member UNION SELECT name FROM user')
    // A single word of a name may be part of a log for another reason.
    for (const { name } of names) if (name.trim().includes(' ')) words.add(name)
    await connection.end()
  }
  const logs = databases.map((_, k) => readFileSync(join(folder, `server-${k}.log`), 'utf8')).join('\n')
  const found = [...words].filter((word) => logs.includes(word))
  if (words.size < 20 || found.length > 0)
    throw new Error(`${words.size} words searched, in the logs: ${found.join(', ')}`)
}

/** The browser's tests, in as many workers as there are databases: each worker has a server of its own. */
async function inBrowsers(env, databases) {
  const servers = []
  for (const [k, url] of databases.entries()) {
    const port = await freePort()
    const own = {
      DATABASE_URL: url,
      UPLOADS_FOLDER: join(folder, `uploads-${k}`),
      BETTER_AUTH_URL: `http://127.0.0.1:${port}`,
    }
    const log = createWriteStream(join(folder, `server-${k}.log`))
    const server = await serve(root, '.next-test', port, { ...env, ...own }, { log })
    stops.push(server.stop)
    servers.push({ ...own, server })
  }
  const addresses = servers.map((one) => ({ databaseUrl: one.DATABASE_URL, baseUrl: one.BETTER_AUTH_URL }))
  const ran = await part(
    'browser',
    () =>
      run(bin(root, 'playwright'), ['test', ...(change ? change.specs : given)], {
        cwd: root,
        env: { ...env, SERVERS: JSON.stringify(addresses), CHROMIUM: chromiumPath() },
      }),
    browserCount,
  )
  if (!ran) for (const { server } of servers) console.error(server.log().slice(-3000))
  await part('logs of the servers', () => searchLogs(databases))
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, async () => {
    await stopRunning()
    for (const stop of stops.reverse()) await stop()
    process.exit(130)
  })
}

try {
  ensureNode()
  await ensureDebian([MARIADB, MARIADB_CLIENT, CHROMIUM])
  await ensureNpmPackages(root)
  if (isChanged) change = await readChange(words[1] ?? 'HEAD')
  await claim(folder)
  rmSync(folder, { recursive: true, force: true })
  await claim(folder)
  // The build needs no database. It writes the route types that the type check reads.
  const building = isChanged && !isRun('build') ? true : part('build', () => build(root, '.next-test'))
  const database = await startMariaDb(folder, { throwaway: true })
  stops.push(database.stop)
  const gaugePort = await freePort()
  stops.push((await startStandIn(root, 'angleGauge.mjs', gaugePort)).stop)
  const consolePort = await freePort()
  stops.push((await startStandIn(root, 'bikeConsole.mjs', consolePort, ['--bikes', '24', '--everyMs', '500'])).stop)
  const env = {
    NEXT_DIST: '.next-test',
    ANGLE_GAUGE_URL: `http://127.0.0.1:${gaugePort}/events?noise=0.3&everyMs=100&dropEvery=60&dropFor=30`,
    BIKE_CONSOLE_URL: `http://127.0.0.1:${consolePort}/events`,
    DATABASE_URL: database.url,
    UPLOADS_FOLDER: join(folder, 'uploads'),
    BETTER_AUTH_SECRET: 'only-for-tests-and-thrown-away-after',
    HEALTH_KEY: 'only-for-tests-and-thrown-away-after',
    BETTER_AUTH_URL: 'http://127.0.0.1:4999',
    NEXT_TELEMETRY_DISABLED: '1',
  }
  await run(bin(root, 'tsx'), ['scripts/migrate.ts'], { cwd: root, env, quiet: true })
  await run(bin(root, 'tsx'), ['scripts/seed.ts'], { cwd: root, env, quiet: true })

  const databases = isRun('browser') ? await copyDatabase(database.url, ['saddle_browser_0', 'saddle_browser_1']) : []
  const built = await building
  // One part beside the browsers, which take two cores as well; a second once they are done.
  const waiting = partsOfOneCore(env)
  const workOff = async () => {
    while (waiting.length > 0) await waiting.shift()()
  }
  await Promise.all([workOff(), built && isRun('browser') ? inBrowsers(env, databases).then(workOff) : workOff()])
} catch (error) {
  totals.failed += 1
  console.error(`\n${error.message}${error.output ? `\n${error.output}` : ''}`)
}
for (const stop of stops.reverse()) await stop()
console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
const isNothing = change !== null && change.files.length + change.deleted.length === 0
process.exit(totals.failed === 0 && (totals.passed > 0 || isNothing) ? 0 : 1)
