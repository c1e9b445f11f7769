import { parse, CsvError } from 'csv-parse'
import iconv from 'iconv-lite'
import { PassThrough } from 'node:stream'
import type { FileFault } from '../../core/messages/studio/files'
import { encodingOf } from './encoding'
import { bytesOf, headOf } from './uploads'

/** How a list is written. */
export type ListFormat = Readonly<{ encoding: string; delimiter: string }>

const DELIMITERS = [',', ';', '\t', '|'] as const
const SAMPLE_LINES = 30
/** No line of such a file is longer, letters. */
const MAX_LINE_LENGTH = 20_000

/** Recognises the encoding from the first bytes and the separator from the first lines. */
export async function recognizeList(path: string): Promise<ListFormat> {
  const head = await headOf(path)
  const encoding = encodingOf(head)
  const text = iconv.decode(head, encoding)
  const counts = await Promise.all(
    DELIMITERS.map(async (delimiter) => ({ delimiter, cells: await cellsBy(text, delimiter) })),
  )
  const best = counts.reduce((a, b) => (b.cells > a.cells ? b : a))
  return { encoding, delimiter: best.delimiter }
}

/** Cells of the first line under a separator, where the lines after it have as many; else fewer than any. */
function cellsBy(text: string, delimiter: string): Promise<number> {
  return new Promise((resolve) => {
    const rows: string[][] = []
    const parser = parse({ delimiter, bom: true, relax_column_count: true, relax_quotes: true, to: SAMPLE_LINES })
    parser.on('readable', () => {
      for (let row = parser.read() as string[] | null; row; row = parser.read() as string[] | null) rows.push(row)
    })
    const end = () => {
      const [first, ...rest] = rows
      const alike = rest.slice(0, -1).filter((row) => row.length === first?.length).length
      resolve(!first ? 0 : first.length * (rest.length <= 1 ? 1 : 0.5 + (0.5 * alike) / (rest.length - 1)))
    }
    parser.on('end', end)
    parser.on('error', end)
    parser.end(text)
  })
}

export type ListLine =
  | Readonly<{ outcome: 'line'; line: number; cells: readonly string[]; bytes: number }>
  | Readonly<{ outcome: 'faulty'; fault: FileFault; bytes: number }>

/**
 * The lines of a list, as they are read; the first is the headings. `bytes` is how far reading has come. What cannot be
 * read as a list ends it with what is wrong. Lines count from 1.
 */
export async function* linesOf(path: string, { encoding, delimiter }: ListFormat): AsyncGenerator<ListLine> {
  let bytes = 0
  const source = bytesOf(path)
  source.on('data', (chunk) => (bytes += chunk.length))
  const parser = parse({
    delimiter,
    bom: true,
    info: true,
    relax_column_count: true,
    skip_empty_lines: true,
    max_record_size: MAX_LINE_LENGTH,
  })
  const decoded = source.pipe(iconv.decodeStream(encoding) as unknown as PassThrough)
  source.on('error', (error) => parser.destroy(error))
  decoded.pipe(parser)
  let last = 0
  try {
    for await (const { record, info } of parser as AsyncIterable<{ record: string[]; info: { lines: number } }>) {
      last = info.lines
      yield { outcome: 'line', line: info.lines, cells: record, bytes }
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error
    yield { outcome: 'faulty', fault: { line: lineOf(error, last), code: codeOf(error) }, bytes }
  } finally {
    source.destroy()
    parser.destroy()
  }
}

const lineOf = (error: CsvError, last: number): number =>
  typeof error.lines === 'number' && error.lines > last ? error.lines : last + 1

function codeOf({ code }: CsvError): 'quoteOpen' | 'brokenQuote' | 'tooLong' | 'cutShort' {
  switch (code) {
    case 'CSV_QUOTE_NOT_CLOSED':
      return 'quoteOpen'
    case 'INVALID_OPENING_QUOTE':
    case 'CSV_INVALID_CLOSING_QUOTE':
      return 'brokenQuote'
    case 'CSV_MAX_RECORD_SIZE':
      return 'tooLong'
    default:
      return 'cutShort'
  }
}
