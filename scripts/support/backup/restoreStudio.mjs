import {
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { claim, startMariaDb } from '../mariadb.mjs'
import { backupNamed, listBackups } from './backupFiles.mjs'
import { backupKey, keyFile } from './backupKey.mjs'
import { logFolder, logsOf, migrationsOf } from './backupStudio.mjs'
import { startClient } from './client.mjs'
import { differences, openFile, restoreBackup, verifyBackup } from './readBackup.mjs'

/**
 * Reads the newest backup into a scratch database and compares every row. Resolves with a sentence; throws an Error
 * that names what is wrong.
 */
export async function checkNewest(root, { data, backups }) {
  const file = chooseBackup(backups, {})
  const { identity } = await presentKey(data)
  const scratch = mkdtempSync(join(tmpdir(), 'ys-check-'))
  const database = await startMariaDb(scratch, { throwaway: true })
  try {
    refuseNewer(root, file, await verifyBackup(file, identity))
    const read = await restoreBackup(file, identity, database.url)
    const found = await differences(database.url, read)
    if (found.length > 0) throw new Error(`${basename(file)} does not restore as it was made:\n${found.join('\n')}`)
    return `${basename(file)} restores whole: ${sumOf(read.rows)} rows, each as it was.`
  } finally {
    await database.stop()
    rmSync(scratch, { recursive: true, force: true })
  }
}

/**
 * Restores a studio. Without `into` the embedded database is built beside the old one, which stays as
 * `mariadb.before-…`; binary logs replay what was entered after the backup, up to `at` or to the end; `file` names one
 * backup and nothing after it. Resolves with a sentence of what there is now.
 */
export async function restoreStudio(root, settings, { at, file: named, into }) {
  const { data, database, backups } = settings
  if (database !== 'embedded' && !into)
    throw new Error('This studio has a database of its own: name an empty one with --into, then change the settings.')
  const file = named ? backupNamed(backups, named) : chooseBackup(backups, { at })
  const { identity } = await presentKey(data)
  const whole = await verifyBackup(file, identity)
  refuseNewer(root, file, whole)
  if (into) return restoreInto(into, file, identity)
  await claim(data)
  const stamp = new Date().toISOString().replace(/[-:.]/g, '')
  // What a restore left that was killed.
  for (const left of readdirSync(data)) if (left.startsWith('restoring-')) rmSync(join(data, left), { recursive: true })
  const fresh = join(data, `restoring-${stamp}`)
  mkdirSync(fresh, { mode: 0o700 })
  const building = await startMariaDb(fresh, { replays: true })
  let replayed = 0
  try {
    const { position, ...read } = await restoreBackup(file, identity, building.url)
    const found = await differences(building.url, read)
    if (found.length > 0) throw new Error(`${basename(file)} does not restore as it was made:\n${found.join('\n')}`)
    if (!named && position && whole.head.logs)
      replayed = await replay({ data, backups, identity, run: whole.head.logs, position, at, url: building.url })
  } catch (error) {
    await building.stop()
    rmSync(fresh, { recursive: true, force: true })
    throw error
  }
  await building.stop()
  // After a kill between the two renames the next start refuses, instead of making an empty database.
  const [now, before] = [join(data, 'mariadb'), join(data, `mariadb.before-${stamp}`)]
  if (existsSync(now)) renameSync(now, before)
  // The next start begins a new run of binary logs.
  writeFileSync(join(fresh, 'mariadb', 'restored'), '')
  renameSync(join(fresh, 'mariadb'), now)
  // The ends noted of the access log are those of the database of before.
  const ends = join(data, 'access-log-ends')
  if (existsSync(ends)) renameSync(ends, `${ends}.before-${stamp}`)
  rmSync(fresh, { recursive: true, force: true })
  return (
    `Restored from ${basename(file)}: ${sumOf(whole.rows)} rows` +
    `${replayed > 0 ? `, and ${replayed} binary logs after it${at ? ` up to ${at.toISOString()}` : ''}` : ''}.\n` +
    (!named && replayed === 0 ? 'There are no binary logs after it: what was entered later is not there.\n' : '') +
    (existsSync(before) ? `The database of before is kept as ${before}; delete it when all is well.\n` : '') +
    'Start the studio with npm start.'
  )
}

async function restoreInto(url, file, identity) {
  const { createConnection } = await import('mysql2/promise')
  const connection = await createConnection({ uri: url })
  const [tables] = await connection.query('SHOW TABLES')
  await connection.end()
  if (tables.length > 0)
    throw new Error(`${new URL(url).pathname.slice(1)} is in use: it has tables. Name an empty one.`)
  const read = await restoreBackup(file, identity, url)
  const found = await differences(url, read)
  if (found.length > 0) throw new Error(`${basename(file)} does not restore as it was made:\n${found.join('\n')}`)
  return `Restored from ${basename(file)}: ${sumOf(read.rows)} rows. Put this database into the settings and start.`
}

/**
 * Replays the binary logs of a run from a position on: those in the data folder, and those copied among the backups
 * where it lost them. Resolves with how many.
 */
async function replay({ data, backups, identity, run, position, at, url }) {
  const folder = mkdtempSync(join(tmpdir(), 'ys-logs-'))
  try {
    const copies = existsSync(backups) ? readdirSync(backups) : []
    const prefix = `log-${run}-`
    const names = new Set([
      ...logsOf(join(logFolder(data), run)),
      ...copies.filter((name) => name.startsWith(prefix)).map((name) => name.slice(prefix.length, -'.gz.age'.length)),
    ])
    const files = []
    for (const name of unbroken([...names].sort(), position.file)) {
      const live = join(logFolder(data), run, name)
      const copy = join(folder, name)
      if (!existsSync(live))
        await pipeline(openFile(join(backups, `${prefix}${name}.gz.age`), identity), createWriteStream(copy))
      files.push(existsSync(live) ? live : copy)
    }
    if (files.length === 0) return 0
    // A second is the log's finest measure: everything within the last one counts as before.
    const until = at && new Date(Math.floor(at.getTime() / 1000) * 1000 + 1000).toISOString()
    const { child, done } = startClient(
      'mariadb-binlog',
      url,
      [
        `--start-position=${position.position}`,
        ...(until ? [`--stop-datetime=${until.slice(0, 19).replace('T', ' ')}`] : []),
        ...files,
      ],
      ['ignore', 'pipe'],
    )
    const into = startClient('mariadb', url, [new URL(url).pathname.slice(1)], ['pipe', 'ignore'])
    await pipeline(child.stdout, into.child.stdin).catch(() => undefined)
    await done
    await into.done
    return files.length
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Of names in order ("saddle.000003"), those from `first` on without a gap; none where it is missing. */
export function unbroken(names, first) {
  const found = names.slice(names.indexOf(first))
  if (!names.includes(first)) return []
  const numberOf = (name) => Number(name.split('.').at(-1))
  const gap = found.findIndex((name, i) => numberOf(name) !== numberOf(first) + i)
  return gap < 0 ? found : found.slice(0, gap)
}

/** The newest backup, or the newest from before `at`. */
function chooseBackup(folder, { at = null }) {
  const all = listBackups(folder)
  const found = at ? all.findLast((one) => one.at <= at) : all.at(-1)
  if (found) return found.file
  throw new Error(
    all.length === 0
      ? `There is no backup in ${folder}.`
      : `The oldest backup is of ${all[0].at.toISOString()}, after the moment asked for.`,
  )
}

async function presentKey(data) {
  if (!existsSync(keyFile(data)))
    throw new Error(`The key of the backups is missing: put its copy at ${keyFile(data)}. Without it no backup opens.`)
  return backupKey(keyFile(data))
}

function refuseNewer(root, file, { head }) {
  if (head.migrations > migrationsOf(root))
    throw new Error(`${basename(file)} was made by a newer version (${head.program}). Update the program first.`)
}

const sumOf = (rows) => Object.values(rows).reduce((sum, n) => sum + n, 0)
