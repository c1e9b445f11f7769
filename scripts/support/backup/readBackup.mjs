import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { basename } from 'node:path'
import { Readable } from 'node:stream'
import { finished } from 'node:stream/promises'
import { createGunzip } from 'node:zlib'
import { Decrypter } from 'age-encryption'
import { startClient } from './client.mjs'
import { dumpDatabase, HEAD, TAIL, VERSION } from './makeBackup.mjs'

/** The end of a backup is looked for in so many bytes: its list of tables is shorter. */
const END_BYTES = 65_536

/** What is wrong with a backup, as a sentence. */
export class BackupFault extends Error {}
const fault = (file, sentence) => new BackupFault(`${basename(file)} ${sentence}`)

/** The bytes of an encrypted, gzipped file. Throws a BackupFault where it is damaged, cut short or of another key. */
export async function* openFile(file, identity) {
  const decrypter = new Decrypter()
  decrypter.addIdentity(identity)
  let opened
  try {
    opened = await decrypter.decrypt(Readable.toWeb(createReadStream(file)))
  } catch (error) {
    throw /no identity matched/.test(error.message)
      ? fault(file, 'was made with another key. Put the key of that studio in its place.')
      : fault(file, 'is not a backup, or its beginning is damaged.')
  }
  const source = Readable.fromWeb(opened)
  const plain = source.pipe(createGunzip())
  source.on('error', (error) => plain.destroy(error))
  try {
    for await (const chunk of plain) yield chunk
  } catch {
    throw fault(file, 'is damaged or cut short. Take an earlier one.')
  }
}

/**
 * The dump inside a backup, without its first and last line; the generator returns `{ head, rows, content }` once it
 * was whole. Throws a BackupFault for a file of another kind or version, or one that differs from its description.
 */
export async function* openDump(file, identity) {
  const hash = createHash('sha256')
  let head = null
  let waiting = Buffer.alloc(0)
  for await (const chunk of openFile(file, identity)) {
    waiting = waiting.length === 0 ? chunk : Buffer.concat([waiting, chunk])
    if (!head) {
      const end = waiting.indexOf('\n')
      if (end < 0 && waiting.length < END_BYTES) continue
      head = readHead(file, waiting.subarray(0, end).toString())
      waiting = waiting.subarray(end + 1)
    }
    if (waiting.length <= END_BYTES) continue
    const part = waiting.subarray(0, waiting.length - END_BYTES)
    waiting = waiting.subarray(part.length)
    hash.update(part)
    yield part
  }
  const at = waiting.lastIndexOf(`\n${TAIL}`)
  if (!head || at < 0) throw fault(file, 'is cut short. Take an earlier one.')
  const last = waiting.subarray(0, at)
  hash.update(last)
  yield last
  const { rows, sha256, content } = JSON.parse(waiting.subarray(at + 1 + TAIL.length).toString())
  if (hash.digest('hex') !== sha256) throw fault(file, 'does not hold what it says. Take an earlier one.')
  return { head, rows, content }
}

function readHead(file, line) {
  if (!line.startsWith(HEAD)) throw fault(file, 'is not a backup of this program.')
  const head = JSON.parse(line.slice(HEAD.length))
  if (head.version !== VERSION)
    throw fault(file, `is a backup of version ${head.version}; this program reads version ${VERSION}.`)
  return head
}

/** Reads a backup to its end without keeping it. Resolves with `{ head, rows, content }`; throws a BackupFault. */
export async function verifyBackup(file, identity) {
  const dump = openDump(file, identity)
  for (;;) {
    const { done, value } = await dump.next()
    if (done) return value
  }
}

/**
 * Reads a backup into an empty database. Resolves with `{ head, rows, content }` and `position`, the place in the
 * binary log where it was made, `{ file, position }` or null.
 */
export async function restoreBackup(file, identity, url) {
  const { child, done } = startClient('mariadb', url, [new URL(url).pathname.slice(1)], ['pipe', 'ignore'])
  const broken = new Promise((_, reject) => child.stdin.once('error', reject))
  broken.catch(() => undefined)
  let position = null
  const dump = openDump(file, identity)
  try {
    for (;;) {
      const { done: isEnd, value } = await dump.next()
      if (isEnd) {
        child.stdin.end()
        await finished(child.stdin)
        await done
        return { ...value, position }
      }
      position ??= positionIn(value)
      if (!child.stdin.write(value))
        await Promise.race([new Promise((next) => child.stdin.once('drain', next)), broken])
    }
  } catch (error) {
    child.kill()
    // The client's message is more useful than a broken pipe.
    if (error instanceof BackupFault) throw error
    await done
    throw error
  }
}

function positionIn(chunk) {
  const found = /MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+)/.exec(chunk.subarray(0, 8192).toString('latin1'))
  return found && { file: found[1], position: Number(found[2]) }
}

/** Differences between a restored database and its backup, as sentences; empty where they are equal. */
export async function differences(url, { rows, content }) {
  const { stream, done, tally } = dumpDatabase(url)
  stream.resume()
  await finished(stream)
  await done
  const now = tally()
  const tables = [...new Set([...Object.keys(rows), ...Object.keys(now.rows)])]
  const found = tables
    .filter((table) => rows[table] !== now.rows[table])
    .map((table) => `${table}: ${now.rows[table] ?? 'no table'} rows, ${rows[table] ?? 'no table'} in the backup`)
  return found.length === 0 && now.content !== content ? ['The rows are as many, but not the same.'] : found
}
