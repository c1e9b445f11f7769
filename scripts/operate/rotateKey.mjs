/**
 * `npm run rotate:key`: a new key for the health words of a studio, which are all sealed again with it. The studio must
 * not be open. Interrupted, it goes on at the next start, and the earlier key stays in the file until this is run
 * again.
 *
 *   npm run rotate:key
 *   npm run rotate:key -- --settings /etc/saddle.json
 */
import { randomBytes } from 'node:crypto'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { describeFault } from '../support/freeSpace.mjs'
import { writeWhole } from '../support/identity.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from '../support/installed.mjs'
import { claim, HEALTH_KEY_FILE, healthKeys, startMariaDb } from '../support/mariadb.mjs'
import { run } from '../support/processes.mjs'
import { bin } from '../support/production.mjs'
import { readSettings } from '../support/settings.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
let embedded
try {
  ensureNode()
  await ensureNpmPackages(root)
  const { values } = parseArgs({ options: { settings: { type: 'string' } } })
  const { settings, faults } = await readSettings(values.settings, process.env, join(root, '.data', 'studio'))
  if (faults.length > 0) throw new Error(faults.join('\n'))
  const { data, database } = settings
  await claim(data)
  if (database === 'embedded') {
    await ensureDebian([MARIADB])
    embedded = await startMariaDb(data)
  }
  const file = join(data, HEALTH_KEY_FILE)
  const made = randomBytes(24).toString('hex')
  const keys = [made, ...healthKeys(data).split(',')]
  // Both, until nothing needs the earlier one any more.
  writeWhole(file, keys.join('\n'))
  const env = { DATABASE_URL: embedded?.url ?? database, HEALTH_KEY: keys.join(','), DATA_FOLDER: data }
  const printed = await run(bin(root, 'tsx'), ['scripts/prepare.ts'], { cwd: root, env, quiet: true })
  const { refusal } = JSON.parse(printed.trimEnd().split('\n').at(-1))
  if (refusal) throw new Error(refusal)
  writeWhole(file, made)
  await embedded?.stop()
  console.log(`All health words are sealed with a new key, in ${file}. Keep a copy of it away from this computer.`)
  process.exit(0)
} catch (error) {
  await embedded?.stop()
  console.error(`\n${describeFault(error)}`)
  process.exit(1)
}
