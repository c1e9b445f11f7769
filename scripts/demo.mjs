/**
 * `npm run demo`: everything from a fresh clone to a running studio. Installs what is missing, starts MariaDB on
 * loopback, migrates, seeds Netloft Hall the first time, builds and serves. Ctrl-C stops it; what was entered stays.
 *
 *   npm run demo -- --reset     forget everything entered and seed anew
 *   npm run demo -- --empty     a studio without bikes and members, apart from the demo's; begun anew each time
 *   npm run demo -- --port 4100
 */
import { rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from './support/installed.mjs'
import { claim, secret, startMariaDb } from './support/mariadb.mjs'
import { freePort, run } from './support/processes.mjs'
import { bin, build, serve } from './support/production.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const { values } = parseArgs({ options: { empty: { type: 'boolean' }, reset: { type: 'boolean' }, dev: { type: 'boolean' }, port: { type: 'string', default: '4077' } } })
const folder = join(root, '.data', values.empty ? 'empty' : '.')
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

try {
  ensureNode()
  await ensureDebian([MARIADB])
  await ensureNpmPackages(root)
  await claim(folder)
  if (values.reset || values.empty) rmSync(join(folder, 'mariadb'), { recursive: true, force: true })
  const database = await startMariaDb(folder)
  stops.push(database.stop)
  const port = await freePort(Number(values.port))
  const env = {
    DATABASE_URL: database.url,
    BETTER_AUTH_SECRET: secret(join(folder, 'session-secret')),
    BETTER_AUTH_URL: `http://127.0.0.1:${port}`,
  }
  await run(bin(root, 'tsx'), ['scripts/migrate.ts'], { cwd: root, env, quiet: true })
  process.stdout.write(await run(bin(root, 'tsx'), ['scripts/seed.ts', ...(values.empty ? ['--empty'] : [])], { cwd: root, env, quiet: true }))
  if (!values.dev) await build(root, dist)
  const server = await serve(root, dist, port, env, { dev: values.dev })
  stops.push(server.stop)
  server.exited.then(() => stopping || (console.error(`The server stopped by itself.\n${server.log()}`), stopAll(1)))
  console.log(`\nNetloft Hall is open:  http://127.0.0.1:${port}\nSign in as  ines  with  tarn-ferry-rows-east\n\nCtrl-C stops it.`)
} catch (error) {
  console.error(`\n${error.message}${error.output ? `\n${error.output}` : ''}`)
  await stopAll(1)
}
