/**
 * `npm run verify:log`: whether the access log of every studio is as it was written, also while the studio is open.
 * Ends with 1 where an entry was changed or taken away.
 *
 *   npm run verify:log
 *   npm run verify:log -- --settings /etc/saddle.json
 */
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { addressFile } from '../support/backup/backupStudio.mjs'
import { describeFault } from '../support/freeSpace.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB } from '../support/installed.mjs'
import { claim, startMariaDb } from '../support/mariadb.mjs'
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
  const env = { DATABASE_URL: await addressOf(data, database), DATA_FOLDER: data }
  const printed = await run(bin(root, 'tsx'), ['scripts/operate/verifyLog.ts'], { cwd: root, env, quiet: true })
  await embedded?.stop()
  const verdicts = JSON.parse(printed.trimEnd().split('\n').at(-1))
  for (const { studio, say } of verdicts) console.log(`${studio}: ${say}`)
  process.exit(verdicts.every(({ isWhole }) => isWhole) ? 0 : 1)
} catch (error) {
  await embedded?.stop()
  console.error(`\n${describeFault(error)}`)
  process.exit(1)
}

/** The address of the studio's database: one of its own, the open one's, or the embedded one started for this. */
async function addressOf(data, database) {
  if (database !== 'embedded') return database
  if (existsSync(addressFile(data))) return readFileSync(addressFile(data), 'utf8').trim()
  await claim(data)
  await ensureDebian([MARIADB])
  embedded = await startMariaDb(data)
  return embedded.url
}
