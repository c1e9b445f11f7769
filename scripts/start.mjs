/**
 * `npm start`: a studio of its own. Reads the settings from the environment and, with `--settings`, from a JSON file;
 * starts a database of its own or uses the one named; migrates, builds and serves, and restarts what crashes or hangs.
 * Ctrl-C or SIGTERM stops it. On an empty database it prints the code of the first start.
 *
 *   npm start -- --settings /etc/saddle.json
 *   npm start -- --check                        look at the settings alone
 */
import { randomInt, createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { describeFault } from './support/freeSpace.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from './support/installed.mjs'
import { claim, secret, startMariaDb } from './support/mariadb.mjs'
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
  let own
  const running = await supervise({
    name: 'The database',
    start: async () => (own = await startMariaDb(data, { port: own?.port })),
  })
  stops.push(running.stop)
  return own.url
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
  const env = {
    DATABASE_URL: await openDatabase(settings),
    BETTER_AUTH_SECRET: secret(join(data, 'session-secret')),
    BETTER_AUTH_URL: address.replace(/\/$/, ''),
    DATA_FOLDER: data,
    UPLOADS_FOLDER: join(data, 'uploads'),
    BIND: bind,
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
  console.log(
    `\nThe studio is open:  ${address}\n` +
      (plainPort ? `A device that does not trust it yet begins at  ${trustAddress(address, plainPort)}\n` : '') +
      (code ? `\nNobody has an account yet. Open the page and type the code  ${code}\n` : '') +
      `\nCtrl-C stops it. What the server says is kept in ${join(data, 'log', 'server.log')}`,
  )
} catch (error) {
  console.error(`\n${describeFault(error)}`)
  await stopAll(1)
}
