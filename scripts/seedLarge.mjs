/**
 * `npm run seed:large -- --members 20000 --setups 100000`: makes a large studio in a data folder of its own, again each
 * time. Open it with `npm run demo -- --large`.
 */
import { rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from './support/installed.mjs'
import { claim, healthKeys, secret, startMariaDb } from './support/mariadb.mjs'
import { run } from './support/processes.mjs'
import { bin } from './support/production.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
const folder = join(root, '.data', 'large')

ensureNode()
await ensureDebian([MARIADB])
await ensureNpmPackages(root)
await claim(folder)
rmSync(join(folder, 'mariadb'), { recursive: true, force: true })
const database = await startMariaDb(folder)
try {
  const env = {
    DATABASE_URL: database.url,
    HEALTH_KEY: healthKeys(folder),
    BETTER_AUTH_SECRET: secret(join(folder, 'session-secret')),
  }
  for (const [script, ...args] of [['migrate.ts'], ['seed.ts'], ['seedLarge.ts', ...process.argv.slice(2)]]) {
    await run(bin(root, 'tsx'), [`scripts/${script}`, ...args], { cwd: root, env })
  }
} finally {
  await database.stop()
}
