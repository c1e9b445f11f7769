import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, createWriteStream, mkdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { PassThrough, Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { setTimeout as wait } from 'node:timers/promises'
import { createGzip } from 'node:zlib'
import { Encrypter } from 'age-encryption'
import { databaseOf, startClient } from './client.mjs'
import { backupName } from './backupFiles.mjs'

/** First line of every backup, after it is opened: what it is, as JSON. */
export const HEAD = '-- yielding-saddle backup '
/** Last line: the rows of each table, the SHA-256 of everything between, and that without comments. */
export const TAIL = '-- yielding-saddle end '
export const VERSION = 1

/** The dump goes on in short turns with rests between: the open studio's requests have most of the machine. */
const TURN_MS = 20
const REST = 1.5

/** One row a line, in the order of the key: two dumps of equal databases are equal, byte for byte. */
const DUMP = [
  '--single-transaction',
  '--quick',
  '--skip-lock-tables',
  '--skip-extended-insert',
  '--no-autocommit',
  '--hex-blob',
  '--order-by-primary',
  '--skip-comments',
  '--skip-dump-date',
  '--no-tablespaces',
]

/**
 * The dump of a database as it was at one moment, as a stream, with `tally()` once it has ended: rows by table, the
 * SHA-256 of the dump, and that without comments, which two dumps of equal databases share. `position`: begins a new
 * binary log, and names it in a comment of the dump.
 */
export function dumpDatabase(url, { position = false } = {}) {
  const args = [...DUMP, ...(position ? ['--master-data=2', '--flush-logs'] : []), databaseOf(url)]
  const { child, done } = startClient('mariadb-dump', url, args, ['ignore', 'pipe'])
  const [hash, content] = [createHash('sha256'), createHash('sha256')]
  const rows = {}
  let rest = ''
  const tables = new Transform({
    transform(chunk, _, next) {
      hash.update(chunk)
      const lines = (rest + chunk.toString('latin1')).split('\n')
      rest = lines.pop()
      for (const line of lines) {
        // Where the dump lies in the binary log, which no other dump shares.
        if (line.startsWith('-- ')) continue
        content.update(`${line}\n`, 'latin1')
        const table = /^(?:INSERT INTO|CREATE TABLE) `([^`]+)`/.exec(line)?.[1]
        if (table) rows[table] = (rows[table] ?? 0) + (line.startsWith('INSERT') ? 1 : 0)
      }
      next(null, chunk)
    },
  })
  child.stdout.on('error', (error) => tables.destroy(error)).pipe(tables)
  return { stream: tables, done, tally: () => ({ rows, sha256: hash.digest('hex'), content: content.digest('hex') }) }
}

/**
 * Writes an encrypted backup of a database into `folder`: a gzipped SQL dump in the age format, which `age`, `gunzip`
 * and `mariadb` open as well. Resolves with `{ file, bytes, rows }`; a backup that failed leaves no file.
 */
export async function makeBackup({ url, folder, recipient, now, about, position }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, backupName(now))
  const half = halfOf(file)
  const { stream, done, tally } = dumpDatabase(url, { position })
  const plain = new PassThrough()
  let counted
  const feed = async () => {
    plain.write(`${HEAD}${JSON.stringify({ version: VERSION, madeAt: now.toISOString(), ...about })}\n`)
    let turn = performance.now()
    for await (const chunk of stream) {
      if (!plain.write(chunk)) await new Promise((next) => plain.once('drain', next))
      const worked = performance.now() - turn
      if (worked < TURN_MS) continue
      await wait(REST * worked)
      turn = performance.now()
    }
    await done
    counted = tally()
    plain.end(`\n${TAIL}${JSON.stringify(counted)}\n`)
  }
  const encrypter = new Encrypter()
  encrypter.addRecipient(recipient)
  const written = createWriteStream(half, { mode: 0o600 })
  try {
    const zipped = plain.on('error', (error) => zipped.destroy(error)).pipe(createGzip())
    const fed = feed().catch((error) => plain.destroy(error))
    const encrypted = Readable.fromWeb(await encrypter.encrypt(Readable.toWeb(zipped)))
    await pipeline(encrypted, written)
    await fed
    renameSync(half, file)
  } catch (error) {
    // The file may only be there once its opening has ended.
    written.destroy()
    if (!written.closed) await new Promise((closed) => written.once('close', closed))
    rmSync(half, { force: true })
    await done
    throw error
  }
  return { file, bytes: statSync(file).size, rows: Object.values(counted.rows).reduce((sum, n) => sum + n, 0) }
}

/** Where a file is written before it is whole: two that make the same one at once do not meet. */
const halfOf = (file) => `${file}.${randomUUID()}.new`

/** Encrypts one file as it is, gzipped; for closed binary logs. */
export async function encryptFile(from, to, recipient) {
  const encrypter = new Encrypter()
  encrypter.addRecipient(recipient)
  const zipped = createReadStream(from).pipe(createGzip())
  const encrypted = Readable.fromWeb(await encrypter.encrypt(Readable.toWeb(zipped)))
  const half = halfOf(to)
  await pipeline(encrypted, createWriteStream(half, { mode: 0o600 }))
  renameSync(half, to)
}
