import { createReadStream, createWriteStream } from 'node:fs'
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Scope } from '../platform/accounts/scope'
import { isId } from '../platform/ids'

/** Larger than this no studio is, bytes. */
const MAX_UPLOAD_BYTES = 500_000_000
/** A file chosen and not brought in is thrown away after this. */
const RETENTION_MS = 2 * 3_600_000
/** Bytes of its beginning that identify a file. */
const HEAD_BYTES = 65_536

export type Upload = Readonly<{ id: string; path: string; bytes: number; kind: 'list' | 'archive' }>
export type UploadResult =
  | Readonly<{ outcome: 'kept'; upload: Upload }>
  | Readonly<{ outcome: 'refused'; why: 'packed' | 'tooLarge' | 'empty' | 'binary' | 'cutShort' }>

/** A folder of one person of one studio: nobody reads what somebody else chose. */
const folderOf = ({ studioId, userId }: Scope): string =>
  join(
    /* turbopackIgnore: true */ process.env.UPLOADS_FOLDER ?? join(process.cwd(), '.data', 'uploads'),
    studioId,
    userId,
  )

/** Writes what is sent to a file of its own as it comes; refused beyond a size, or where it is no text. */
export async function storeUpload(
  scope: Scope,
  body: ReadableStream<Uint8Array> | null,
  announced: number | null,
): Promise<UploadResult> {
  const folder = folderOf(scope)
  await mkdir(folder, { recursive: true, mode: 0o700 })
  await removeOld(folder)
  if (!body) return { outcome: 'refused', why: 'empty' }
  if (announced !== null && announced > MAX_UPLOAD_BYTES) return { outcome: 'refused', why: 'tooLarge' }
  const id = crypto.randomUUID()
  const path = join(/* turbopackIgnore: true */ folder, id)
  let bytes = 0
  const counted = new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length
      done(bytes > MAX_UPLOAD_BYTES ? new TooLarge() : null, chunk)
    },
  })
  try {
    await pipeline(Readable.fromWeb(body as never), counted, createWriteStream(path, { mode: 0o600 }))
  } catch (error) {
    await rm(path, { force: true })
    return { outcome: 'refused', why: error instanceof TooLarge ? 'tooLarge' : 'cutShort' }
  }
  if (announced !== null && announced !== bytes) {
    await rm(path, { force: true })
    return { outcome: 'refused', why: 'cutShort' }
  }
  const kind = kindOf(await headOf(path))
  if (kind !== 'list' && kind !== 'archive') {
    await rm(path, { force: true })
    return { outcome: 'refused', why: kind }
  }
  return { outcome: 'kept', upload: { id, path, bytes, kind } }
}

class TooLarge extends Error {}

/** A file chosen before, or null where it is gone. */
export async function findUpload(scope: Scope, id: string): Promise<Upload | null> {
  if (!isId(id)) return null
  const path = join(/* turbopackIgnore: true */ folderOf(scope), id)
  const found = await stat(/* turbopackIgnore: true */ path).catch(() => null)
  if (!found) return null
  const kind = kindOf(await headOf(path))
  return kind === 'list' || kind === 'archive' ? { id, path, bytes: found.size, kind } : null
}

export async function removeUpload(scope: Scope, id: string): Promise<void> {
  if (isId(id)) await rm(join(/* turbopackIgnore: true */ folderOf(scope), id), { force: true })
}

async function removeOld(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    const found = await stat(join(folder, name)).catch(() => null)
    if (found && Date.now() - found.mtimeMs > RETENTION_MS) await rm(join(folder, name), { force: true })
  }
}

/** The beginning of a file. */
export async function headOf(path: string): Promise<Buffer> {
  const file = await open(path)
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** What a file is by its first bytes: packed ones are never unpacked here. */
function kindOf(head: Buffer): 'list' | 'archive' | 'packed' | 'empty' | 'binary' {
  if (head.length === 0) return 'empty'
  const starts = (...bytes: number[]) => bytes.every((byte, i) => head[i] === byte)
  const packed = [
    [0x50, 0x4b],
    [0x1f, 0x8b],
    [0x42, 0x5a, 0x68],
    [0xfd, 0x37, 0x7a],
    [0x37, 0x7a, 0xbc],
    [0x28, 0xb5, 0x2f],
    [0x52, 0x61, 0x72],
  ]
  if (packed.some((bytes) => starts(...bytes))) return 'packed'
  const wide = starts(0xff, 0xfe) || starts(0xfe, 0xff)
  if (!wide && head.includes(0)) return 'binary'
  const text = head.toString('latin1').replace(/^\u00ef\u00bb\u00bf/, '')
  if (text.trim() === '') return 'empty'
  return /^\s*[{[]/.test(text) ? 'archive' : 'list'
}

/** Result of work on a file; `gone` where the file was removed meanwhile. */
export async function onFile<R>(work: () => Promise<R>): Promise<R | Readonly<{ outcome: 'gone' }>> {
  try {
    return await work()
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return { outcome: 'gone' }
    throw error
  }
}

/** What is read of a file, and how far that is. */
export const bytesOf = (path: string) => createReadStream(path, { highWaterMark: 262_144 })
