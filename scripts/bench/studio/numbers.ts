/**
 * Part of `npm run bench:studio`: the finder's queries beside a bare one on the same connection; the archive out, into
 * an empty studio and out again; and a list of 50,000 lines into that one. Writes Markdown to standard output.
 */
import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { eq } from 'drizzle-orm'
import { guessColumns } from '../../../core/setups/openFiles/columns'
import type { Scope } from '../../../server/platform/accounts/scope'
import { closeDatabase, database, type Database } from '../../../server/platform/db/connection'
import { member } from '../../../server/riders/tables'
import { archiveText } from '../../../server/files/archiveExport'
import { importArchive } from '../../../server/files/archiveImport'
import { importMembers } from '../../../server/files/importMembers'
import { findByWords } from '../../../server/riders/members/words'
import { currentEntries } from '../../../server/setups/register'
import { openEmptyStudio } from '../../support/emptyStudio'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const PASSES = 500
const WARM_UP = 200
const LINES = 50_000

async function percentileOf(work: (i: number) => Promise<unknown>): Promise<number> {
  for (let i = 0; i < WARM_UP; i++) await work(i)
  const times: number[] = []
  for (let i = 0; i < PASSES; i++) {
    const began = performance.now()
    await work(i)
    times.push(performance.now() - began)
  }
  return times.sort((a, b) => a - b)[Math.floor(0.95 * PASSES)]
}

let peak = 0
setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 20).unref()

/** "46 s, at most 240 MB". */
async function measured<T>(work: () => Promise<T>): Promise<Readonly<{ result: T; text: string }>> {
  peak = process.memoryUsage().rss
  const began = performance.now()
  const result = await work()
  return { result, text: `${((performance.now() - began) / 1000).toFixed(0)} s, at most ${mb(peak)}` }
}
const mb = (bytes: number) => `${(bytes / 1e6).toFixed(0)} MB`

const words = ['kes', 'mar', 'tar', 'fen', 'lo', 'yl', 'sif res', 'una']
const bare = await percentileOf((i) =>
  db
    .select()
    .from(member)
    .where(eq(member.id, `large-${i}`)),
)
const search = await percentileOf((i) => findByWords(db, scope, words[i % words.length], 8))
const numbers = await percentileOf((i) => currentEntries(db, scope, [`large-${i}`]))

const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const going = new AbortController().signal
const write = (from: Database, of: Scope, path: string) =>
  pipeline(Readable.from(archiveText(from, of), { objectMode: false }), createWriteStream(path))
const [first, second] = ['first.json', 'second.json'].map((name) => join(folder, name))
const out = await measured(() => write(db, scope, first))
const far = await openEmptyStudio(process.env.DATABASE_URL!, `saddle_bench_${process.pid}`)
try {
  const archive = { id: 'archive', path: first, bytes: statSync(first).size, kind: 'archive' as const }
  const inputs = { upload: archive, progress: () => undefined, signal: going }
  const into = await measured(() => importArchive(far.db, far.scope, inputs))
  if (into.result.outcome !== 'kept') throw new Error(JSON.stringify(into.result))
  await write(far.db, far.scope, second)
  const digests = [await digestOf(first), await digestOf(second)]
  if (digests[0] !== digests[1]) throw new Error('the archive came back as another one')

  const HEAD = 'name,bike type,purpose,seat height,seat slide,bar height,bar slide,how sure,sole mm,pedal,since'
  const path = join(folder, 'list.csv')
  const lines = Array.from({ length: LINES }, (_, i) => `Brought In ${i},Sorrel,usual,7,C,5,2,told,,,2026-01-31`)
  writeFileSync(path, [HEAD, ...lines, ''].join('\r\n'))
  const list = {
    upload: { id: 'list', path, bytes: statSync(path).size, kind: 'list' as const },
    format: { encoding: 'utf-8', delimiter: ',' },
    columns: guessColumns(HEAD.split(',')),
  }
  const bring = () => importMembers(far.db, far.scope, list, new Date(), () => undefined, going)
  const brought = await measured(bring)
  if (brought.result.outcome !== 'kept' || brought.result.tally.newNumbers !== LINES)
    throw new Error(JSON.stringify(brought.result))
  const again = await bring()
  if (again.outcome !== 'kept' || again.tally.newNumbers > 0) throw new Error(JSON.stringify(again))

  const times = (ms: number) => `${ms.toFixed(1)} ms (${(ms / bare).toFixed(1)} times)`
  console.log(`## Numbers

95th percentiles over one connection: a bare query by key ${bare.toFixed(1)} ms, the finder’s names ${times(search)},
one rider’s sets of numbers ${times(numbers)}.

The archive of all of it, ${mb(archive.bytes)}: out in ${out.text}; into an empty studio in ${into.text}; out of that
one the same, row by row with sorted keys, SHA-256 ${digests[0].slice(0, 16)} … both times.

A list of ${LINES.toLocaleString('en')} new members with numbers into the studio so filled: ${brought.text} of memory;
once more nothing is new. The process may hold ${process.env.NODE_OPTIONS?.match(/\d+/)?.[0]} MB of heap; what is said
of memory is all it takes, code included.
`)
} finally {
  await far.close()
  await closeDatabase()
  rmSync(folder, { recursive: true, force: true })
}

/** Of every line of an archive, one a row, its keys sorted. */
async function digestOf(path: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
    // Behind a row stands a comma, the end of its section, or the end of the archive; the first line is its head.
    const isRow = line.startsWith('{') && !line.startsWith('{"format"')
    const text = isRow ? JSON.stringify(sorted(JSON.parse(line.replace(/(\],|\]\}|,)$/, '')))) : line
    hash.update(`${text}\n`)
  }
  return hash.digest('hex')
}

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted)
  if (!value || typeof value !== 'object') return value
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1))
  return Object.fromEntries(entries.map(([key, one]) => [key, sorted(one)]))
}
