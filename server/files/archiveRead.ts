import { JSONParser } from '@streamparser/json'
import { bytesOf, type Upload } from './uploads'

/** A value of an archive as it is read: a field of its own, or the i-th row of a section. */
export type ArchiveItem =
  | Readonly<{ kind: 'field'; name: string; value: unknown }>
  | Readonly<{ kind: 'row'; section: string; index: number; value: unknown }>

/** Items read together, and how far reading has come. */
export type ArchivePiece = Readonly<{ items: readonly ArchiveItem[]; bytes: number }>

/** The text is no JSON, ends in the middle, or has a row longer than allowed. */
export class NotReadable extends Error {
  constructor(
    readonly why: 'notJson' | 'cutShort' | 'rowTooLong' | 'tooDeep',
    /** Where, in bytes from the start. */
    readonly bytes: number,
  ) {
    super(why)
  }
}

/** No row is longer, bytes. */
const MAX_ROW_LENGTH = 4_000_000

/** The items of an archive in the file's own order, a piece of the file at a time; throws `NotReadable`. */
export async function* readArchive({ path }: Upload): AsyncGenerator<ArchivePiece> {
  let items: ArchiveItem[] = []
  let [bytes, sinceLast] = [0, 0]
  let ended = false
  const depth = new Depth()
  const parser = new JSONParser({ paths: ['$.*', '$.*.*'], keepStack: false })
  parser.onValue = ({ value, key, parent, stack }) => {
    if (stack.length === 1 && typeof value !== 'object') items.push({ kind: 'field', name: String(key), value })
    else if (stack.length === 1) items.push({ kind: 'field', name: String(key), value: null })
    else {
      items.push({ kind: 'row', section: String(stack[1].key), index: Number(key), value })
      // The parser collects a section until its end: of each row only the place.
      ;(parent as Record<string, unknown>)[String(key)] = null
    }
  }
  parser.onEnd = () => (ended = true)
  let failed = false
  parser.onError = () => (failed = true)
  for await (const chunk of bytesOf(path) as AsyncIterable<Buffer>) {
    // Before the parser allocates memory for each level.
    if (depth.after(chunk) > MAX_DEPTH) throw new NotReadable('tooDeep', bytes)
    if (ended) failed = chunk.toString('latin1').trim() !== ''
    else parser.write(chunk)
    if (failed) throw new NotReadable('notJson', bytes)
    bytes += chunk.length
    sinceLast = items.length > 0 ? 0 : sinceLast + chunk.length
    if (sinceLast > MAX_ROW_LENGTH) throw new NotReadable('rowTooLong', bytes)
    yield { items, bytes }
    items = []
  }
  if (!ended) throw new NotReadable('cutShort', bytes)
}

/** Maximum nesting of an archive. */
const MAX_DEPTH = 40
const [QUOTE, ESCAPE, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'"\\[]{}'].map((c) => c.charCodeAt(0))

/** Tracks the nesting of a JSON text, chunk by chunk. */
class Depth {
  private depth = 0
  private inText = false
  private isEscaped = false

  /** Maximum nesting within a chunk. */
  after(chunk: Buffer): number {
    let deepest = this.depth
    // An index instead of an iterator: this loop runs over every byte of an archive.
    for (let i = 0; i < chunk.length; i++) {
      const byte = chunk[i]
      if (this.isEscaped) this.isEscaped = false
      else if (this.inText) {
        if (byte === ESCAPE) this.isEscaped = true
        else if (byte === QUOTE) this.inText = false
      } else if (byte === QUOTE) this.inText = true
      else if (byte === OPEN_LIST || byte === OPEN_OBJECT) deepest = Math.max(deepest, ++this.depth)
      else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) this.depth -= 1
    }
    return deepest
  }
}
