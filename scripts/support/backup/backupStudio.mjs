import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { writeWhole } from '../identity.mjs'
import { backupKey, keyFile } from './backupKey.mjs'
import { rotateBackups } from './backupFiles.mjs'
import { encryptFile, makeBackup } from './makeBackup.mjs'

/** Where the address of the running embedded database is noted, readable by the owner alone. */
export const addressFile = (data) => join(data, 'database-address')
/** What became of the last backups: `{ lastSuccess, file, bytes, rows, lastFault }`, times as ISO 8601. */
export const statusFile = (data) => join(data, 'backup-status.json')
/** The binary logs of the embedded database, a folder for each run of numbers. */
export const logFolder = (data) => join(data, 'binlog')

/** The last backups' outcome; an empty object before the first. */
export function backupStatus(data) {
  try {
    return JSON.parse(readFileSync(statusFile(data), 'utf8'))
  } catch {
    return {}
  }
}

/**
 * Backs up a studio by its settings into its folder of backups, with the binary logs closed since, and rotates older
 * ones. Notes the outcome in `statusFile`. Resolves with `{ file, bytes, rows, seconds, newKey }`; `newKey` is the file
 * of a key made just now, or null.
 */
export async function backupStudio(root, { data, database, backups }, now = new Date()) {
  const url = database === 'embedded' ? embeddedAddress(data) : database
  const began = performance.now()
  try {
    const { recipient, isNew } = await backupKey(keyFile(data))
    const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))
    const run = newestRun(data)
    const made = await makeBackup({
      url,
      folder: backups,
      recipient,
      now,
      position: database === 'embedded' && run !== null,
      about: { program: version, migrations: migrationsOf(root), ...(run && { logs: run }) },
    })
    if (run) await copyLogs({ data, backups })
    rotateBackups(backups)
    writeWhole(statusFile(data), JSON.stringify({ lastSuccess: now.toISOString(), ...made }))
    return { ...made, seconds: (performance.now() - began) / 1000, newKey: isNew ? keyFile(data) : null }
  } catch (error) {
    const fault = { at: now.toISOString(), why: error.message }
    writeWhole(statusFile(data), JSON.stringify({ ...backupStatus(data), lastFault: fault }))
    throw error
  }
}

/** Closes the present binary log of the embedded database and copies it. Returns how many were copied. */
export async function closeAndCopyLogs({ data, backups, database }) {
  if (database !== 'embedded') return 0
  const { createConnection } = await import('mysql2/promise')
  const connection = await createConnection({ uri: embeddedAddress(data) })
  await connection.query('FLUSH BINARY LOGS')
  await connection.end()
  return copyLogs({ data, backups })
}

/**
 * Copies the binary logs of the embedded database that are closed, encrypted, into the folder of backups: with them a
 * restore reaches any moment. Returns how many were copied.
 */
async function copyLogs({ data, backups }) {
  const run = newestRun(data)
  if (!run) return 0
  mkdirSync(backups, { recursive: true, mode: 0o700 })
  const { recipient } = await backupKey(keyFile(data))
  const logs = logsOf(join(logFolder(data), run))
  let copied = 0
  for (const name of logs.slice(0, -1)) {
    const to = join(backups, `log-${run}-${name}.gz.age`)
    if (existsSync(to)) continue
    await encryptFile(join(logFolder(data), run, name), to, recipient)
    copied += 1
  }
  return copied
}

/** The binary logs of a folder, in order. */
export const logsOf = (folder) =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => /^saddle\.\d{6,}$/.test(name))
        .sort()
    : []

/** The latest run of binary logs, by its name; null without any. */
export const newestRun = (data) =>
  existsSync(logFolder(data)) ? (readdirSync(logFolder(data)).sort().at(-1) ?? null) : null

function embeddedAddress(data) {
  if (!existsSync(addressFile(data)))
    throw new Error('The embedded database does not run. Start the studio first; the backup is made while it is open.')
  return readFileSync(addressFile(data), 'utf8').trim()
}

/** How many migrations this program knows: a backup with more was made by a newer one. */
export const migrationsOf = (root) =>
  readdirSync(join(root, 'server/platform/db/migrations')).filter((name) => name.endsWith('.sql')).length
