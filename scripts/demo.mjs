/**
 * `npm run demo`: everything from a fresh clone to a running studio. Installs what is missing, starts MariaDB on
 * loopback, migrates, seeds Netloft Hall the first time, builds and serves, and restarts what crashes.
 * Ctrl-C stops it; what was entered stays. A start that was interrupted is taken up by the next.
 *
 *   npm run demo -- --reset     forget everything entered and seed again
 *   npm run demo -- --empty     a studio without bikes and members, apart from the demo's; made again each time
 *   npm run demo -- --large     the studio that `npm run seed:large` made
 *   npm run demo -- --port 4100
 */
import { rmSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { startStandIn } from './support/standIns.mjs'
import { describeFault } from './support/freeSpace.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from './support/installed.mjs'
import { claim, healthKeys, secret, startMariaDb } from './support/mariadb.mjs'
import { freePort, isFree, run } from './support/processes.mjs'
import { bin, build, serve } from './support/production.mjs'
import { supervise } from './support/supervise.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const PORT = 4077
const flags = {
  empty: { type: 'boolean' },
  large: { type: 'boolean' },
  reset: { type: 'boolean' },
  dev: { type: 'boolean' },
  port: { type: 'string' },
  data: { type: 'string' },
}
const { values } = parseArgs({ options: flags })
const folder = resolve(values.data ?? join(root, '.data', values.empty ? 'empty' : values.large ? 'large' : '.'))
const dist = process.env.NEXT_DIST ?? '.next'

const stops = []
let stopping = false
async function stopAll(code) {
  if (stopping) return
  stopping = true
  for (const stop of stops.reverse()) await stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    console.log('\nStopping; what was entered is kept.')
    stopAll(0)
  })
}

/** The requested port, or, where the default one is taken, another, with a message. */
async function portToOpen() {
  if (values.port === undefined) {
    if (await isFree(PORT)) return PORT
    const other = await freePort()
    console.log(`Port ${PORT} is taken by another program; opening at ${other} instead.`)
    return other
  }
  const port = Number(values.port)
  if (!(port > 0 && port < 65_536)) throw new Error(`${values.port} is no port; 1 to 65535 are.`)
  if (!(await isFree(port)))
    throw new Error(`Port ${port} is taken by another program. Stop that, or name another with --port.`)
  return port
}

try {
  ensureNode()
  await ensureDebian([MARIADB])
  await ensureNpmPackages(root)
  await claim(folder)
  if (values.reset || values.empty) rmSync(join(folder, 'mariadb'), { recursive: true, force: true })
  let databasePort
  let url
  const database = await supervise({
    name: 'The database',
    start: async () => {
      const started = await startMariaDb(folder, { port: databasePort })
      databasePort = started.port
      url = started.url
      return started
    },
  })
  stops.push(database.stop)
  const port = await portToOpen()
  /** A simulated device or service that ships with the product; resolves with its port. */
  const standIn = async (name, file, more = []) => {
    const own = await freePort()
    const running = await supervise({ name, start: () => startStandIn(root, file, own, more) })
    stops.push(running.stop)
    return own
  }
  const gaugePort = await standIn('The angle gauge', 'angleGauge.mjs')
  const bookingPort = await standIn('The booking service', 'bookingService.mjs', ['--outageEveryMin', '15'])
  const consolePort = await standIn('The bike consoles', 'bikeConsole.mjs', ['--bikes', '24'])
  const env = {
    ANGLE_GAUGE_URL: `http://127.0.0.1:${gaugePort}/events?drift=0.3&dropEvery=150&dropFor=25`,
    ...(!values.empty &&
      !values.large && {
        BOOKING_SERVICE_URL: `http://127.0.0.1:${bookingPort}/feed`,
        CALENDAR_FEED_URL: process.env.CALENDAR_FEED_URL ?? `http://127.0.0.1:${bookingPort}/calendar.ics`,
        BOOKING_STUDIO: 'netloft-hall',
        BIKE_CONSOLE_URL: `http://127.0.0.1:${consolePort}/events`,
      }),
    DATABASE_URL: url,
    BETTER_AUTH_SECRET: secret(join(folder, 'session-secret')),
    HEALTH_KEY: healthKeys(folder),
    DATA_FOLDER: folder,
    UPLOADS_FOLDER: join(folder, 'uploads'),
    BETTER_AUTH_URL: `http://127.0.0.1:${port}`,
  }
  await run(bin(root, 'tsx'), ['scripts/migrate.ts'], { cwd: root, env, quiet: true })
  const seeded = await run(bin(root, 'tsx'), ['scripts/seed.ts', values.empty ? '--empty' : '--history'], {
    cwd: root,
    env,
    quiet: true,
  })
  const [accountLine, ...notices] = seeded.trimEnd().split('\n').reverse()
  process.stdout.write(
    notices
      .reverse()
      .map((line) => `${line}\n`)
      .join(''),
  )
  const people = JSON.parse(accountLine)
  if (!values.dev) await build(root, dist)
  const { serverLog } = await import('./support/serverLog.mjs')
  const log = serverLog(join(folder, 'log'))
  const server = await supervise({
    name: 'The server',
    start: () => serve(root, dist, port, env, { dev: values.dev, log, identity: join(folder, 'server.pid') }),
  })
  stops.push(server.stop)
  console.log(
    `\nNetloft Hall is open:  http://127.0.0.1:${port}\n\n` +
      people.map((p) => `Sign in as  ${p.username.padEnd(5)} with  ${p.password.padEnd(23)} (${p.role})\n`).join('') +
      `\nCtrl-C stops it. What the server says is kept in ${join(folder, 'log', 'server.log')}`,
  )
} catch (error) {
  console.error(`\n${describeFault(error)}`)
  await stopAll(1)
}
