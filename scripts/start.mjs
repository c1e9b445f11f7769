/**
 * `npm start`: a studio of its own. Reads the settings from the environment and, with `--settings`, from a JSON file;
 * starts a database of its own or uses the one named; migrates, builds and serves, and restarts what crashes or hangs.
 * Ctrl-C or SIGTERM stops it. On an empty database it prints the code of the first start.
 *
 *   npm start -- --settings /etc/saddle.json
 *   npm start -- --check                        look at the settings alone
 */
import { randomInt, createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { describeFault } from './support/freeSpace.mjs'
import { writeWhole } from './support/identity.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB, MARIADB_CLIENT } from './support/installed.mjs'
import { claim, HEALTH_KEY_FILE, healthKeys, secret, startMariaDb } from './support/mariadb.mjs'
import { freePort, isFree, run } from './support/processes.mjs'
import { bin, build, serve } from './support/production.mjs'
import { readSettings } from './support/settings.mjs'
import { supervise } from './support/supervise.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const dist = process.env.NEXT_DIST ?? '.next'
const { values } = parseArgs({ options: { settings: { type: 'string' }, check: { type: 'boolean' } } })
/** Letters and digits that nobody mistakes for one another. */
const CODE_LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'

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

/** "K7QX-M2RD-9TWP": some 59 bits, new at each start. */
function newCode() {
  const letters = Array.from({ length: 12 }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)])
  return [0, 4, 8].map((from) => letters.slice(from, from + 4).join('')).join('-')
}

/** Renews the studio's own certificate where it ends soon, now and every half day; the server takes up the new one. */
async function keepCertificateFresh(data) {
  const { renewCertificate } = await import('./support/certificate.mjs')
  const renew = async () => {
    const ends = await renewCertificate(data)
    if (ends) console.log(`The certificate was made anew; it is good until ${ends.toISOString().slice(0, 10)}.`)
  }
  await renew()
  const again = () => renew().catch((error) => console.error(`The certificate was not renewed: ${error.message}`))
  const timer = setInterval(again, RENEW_EVERY_MS)
  stops.push(() => clearInterval(timer))
}
const RENEW_EVERY_MS = 12 * 3_600_000

/** The database of the settings: its address, and where it is the program's own, started and supervised. */
async function openDatabase({ database, data }) {
  if (database !== 'embedded') return database
  await ensureDebian([MARIADB])
  // Never an empty database in place of one that a killed restore had just moved aside.
  if (!existsSync(join(data, 'mariadb')) && readdirSync(data).some((name) => name.startsWith('mariadb.before-')))
    throw new Error(`A restore was interrupted: nothing is lost. Run npm run restore again, or rename the latest
mariadb.before-… in ${data} to mariadb.`)
  let own
  const running = await supervise({
    name: 'The database',
    start: async () => (own = await startMariaDb(data, { port: own?.port, logs: runOfLogs(data) })),
  })
  stops.push(running.stop)
  writeWhole(join(data, 'database-address'), own.url)
  stops.push(() => rmSync(join(data, 'database-address'), { force: true }))
  return own.url
}

/** The folder of the present run of binary logs: a new one for a database that was made or restored since. */
function runOfLogs(data) {
  const folder = join(data, 'binlog')
  const isNew = !existsSync(join(data, 'mariadb')) || existsSync(join(data, 'mariadb', 'restored'))
  rmSync(join(data, 'mariadb', 'restored'), { force: true })
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const last = readdirSync(folder).sort().at(-1)
  const run = last && !isNew ? last : new Date().toISOString().replace(/[-:.]/g, '')
  mkdirSync(join(folder, run), { recursive: true, mode: 0o700 })
  return join(folder, run)
}

/** What was entered is copied to the backups at least so often, ms. */
const COPY_LOGS_MS = 600_000
const OWN_SETTINGS = values.settings ? ['--settings', values.settings] : []

/** Backs up every few hours, and copies binary logs between, each in a process of its own. */
async function scheduleBackups({ backupHours, data, database }) {
  if (backupHours === 0) return
  await ensureDebian([MARIADB_CLIENT])
  const backUp = (...more) =>
    run(process.execPath, ['scripts/operate/backup.mjs', ...more, ...OWN_SETTINGS], {
      cwd: root,
      env: { SADDLE_DATA: data },
      quiet: true,
    }).catch((error) => console.error(`No backup was made: ${error.output?.trim() ?? error.message}`))
  const timers = [
    setInterval(() => backUp(), backupHours * 3_600_000),
    ...(database === 'embedded' ? [setInterval(() => backUp('--logs'), COPY_LOGS_MS)] : []),
  ]
  stops.push(() => timers.forEach(clearInterval))
  const { backupStatus } = await import('./support/backup/backupStudio.mjs')
  const { lastSuccess } = backupStatus(data)
  if (!lastSuccess || Date.now() - Date.parse(lastSuccess) > backupHours * 3_600_000) void backUp()
}

/** Where a device learns to trust the studio's own certificate. */
function trustAddress(address, plainPort) {
  const url = new URL('/trust', address)
  Object.assign(url, { protocol: 'http:', port: String(plainPort) })
  return url.href
}

try {
  ensureNode()
  await ensureNpmPackages(root)
  const { settings, faults } = await readSettings(values.settings, process.env, join(root, '.data', 'studio'))
  if (faults.length > 0) throw new Error(`The settings need a look:\n${faults.map((fault) => `- ${fault}`).join('\n')}`)
  if (values.check) {
    console.log('The settings are good.')
    process.exit(0)
  }
  const { data, address, port, bind, trustedProxy, tlsCertificate, tlsKey, authority, plainPort } = settings
  await claim(data)
  for (const one of [port, plainPort].filter(Boolean))
    if (!(await isFree(one))) throw new Error(`Port ${one} is taken by another program. Stop that, or set another.`)
  if (authority) await keepCertificateFresh(data)
  const isNewKey = !existsSync(join(data, HEALTH_KEY_FILE))
  const env = {
    DATABASE_URL: await openDatabase(settings),
    BETTER_AUTH_SECRET: secret(join(data, 'session-secret')),
    HEALTH_KEY: healthKeys(data),
    BETTER_AUTH_URL: address.replace(/\/$/, ''),
    DATA_FOLDER: data,
    UPLOADS_FOLDER: join(data, 'uploads'),
    BIND: bind,
    BACKUP_HOURS: String(settings.backupHours),
    METRICS_KEY: secret(join(data, 'metrics-key')),
    ...(trustedProxy && { TRUSTED_PROXY: trustedProxy }),
    ...(tlsCertificate && { TLS_CERTIFICATE: tlsCertificate, TLS_KEY: tlsKey }),
    ...(authority && { TLS_AUTHORITY: authority }),
    ...(plainPort && { PLAIN_PORT: String(plainPort) }),
  }
  const printed = await run(bin(root, 'tsx'), ['scripts/prepare.ts'], { cwd: root, env, quiet: true })
  const { refusal, isEmpty } = JSON.parse(printed.trimEnd().split('\n').at(-1))
  if (refusal) throw new Error(refusal)
  const code = isEmpty ? newCode() : null
  if (code) env.FIRST_START_CODE_HASH = createHash('sha256').update(code.replaceAll('-', '')).digest('hex')
  await build(root, dist)
  const { serverLog } = await import('./support/serverLog.mjs')
  const log = serverLog(join(data, 'log'))
  const probePort = await freePort()
  const server = await supervise({
    name: 'The server',
    start: () => serve(root, dist, port, env, { log, identity: join(data, 'server.pid'), probePort }),
  })
  stops.push(server.stop)
  await scheduleBackups(settings)
  console.log(
    `\nThe studio is open:  ${address}\n` +
      (plainPort ? `A device that does not trust it yet begins at  ${trustAddress(address, plainPort)}\n` : '') +
      (isNewKey
        ? `\nThe key of the health words is new: ${join(data, HEALTH_KEY_FILE)}. Keep a copy elsewhere.\n`
        : '') +
      (code ? `\nNobody has an account yet. Open the page and type the code  ${code}\n` : '') +
      `\nCtrl-C stops it. What the server says is kept in ${join(data, 'log', 'server.log')}`,
  )
} catch (error) {
  console.error(`\n${describeFault(error)}`)
  await stopAll(1)
}
