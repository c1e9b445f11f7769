/**
 * `npm run backup`: an encrypted backup of a studio, also while it is open; older ones are rotated. `npm start` makes
 * one every few hours.
 *
 *   npm run backup
 *   npm run backup -- --settings /etc/saddle.json
 *   npm run backup -- --logs                     only what was entered since, of an embedded database
 */
import { setPriority } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { describeFault } from '../support/freeSpace.mjs'
import { ensureDebian, ensureNode, ensureNpmPackages, MARIADB_CLIENT } from '../support/installed.mjs'
import { readSettings } from '../support/settings.mjs'

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))))
/** Requests of the open studio go first; the client program inherits it. */
setPriority(10)
try {
  ensureNode()
  await ensureNpmPackages(root)
  const { values } = parseArgs({ options: { settings: { type: 'string' }, logs: { type: 'boolean' } } })
  const { settings, faults } = await readSettings(values.settings, process.env, join(root, '.data', 'studio'))
  if (faults.length > 0) throw new Error(faults.join('\n'))
  await ensureDebian([MARIADB_CLIENT])
  const { backupStudio, closeAndCopyLogs } = await import('../support/backup/backupStudio.mjs')
  if (values.logs) {
    console.log(`${await closeAndCopyLogs(settings)} binary logs copied to ${settings.backups}`)
    process.exit(0)
  }
  const { file, bytes, rows, seconds, newKey } = await backupStudio(root, settings)
  console.log(`${file}: ${rows} rows, ${(bytes / 1e6).toFixed(1)} MB, in ${seconds.toFixed(1)} s`)
  if (newKey) console.log(`The key of the backups is new: ${newKey}\nKeep a copy away from this computer.`)
} catch (error) {
  console.error(`\n${describeFault(error)}`)
  process.exit(1)
}
