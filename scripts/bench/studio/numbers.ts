/**
 * Part of `npm run bench:studio`: the finder's queries beside a bare one on the same connection, a list of 50,000
 * lines, and the archive out. Writes Markdown to standard output.
 */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { guessColumns } from '../../../core/openFiles/columns'
import type { Scope } from '../../../server/accounts/scope'
import { closeDatabase, database } from '../../../server/db/connection'
import { member } from '../../../server/db/tables/riders'
import { archiveText } from '../../../server/files/archiveExport'
import { importMembers } from '../../../server/files/importMembers'
import { findByWords } from '../../../server/members/words'
import { currentEntries } from '../../../server/register/register'

const db = database()
const scope: Scope = { studioId: 'netloft-hall', userId: 'ines-harrow', role: 'manager' }
const PASSES = 200
const LINES = 50_000

async function percentileOf(work: (i: number) => Promise<unknown>): Promise<number> {
  for (let i = 0; i < 20; i++) await work(i)
  const times: number[] = []
  for (let i = 0; i < PASSES; i++) {
    const began = performance.now()
    await work(i)
    times.push(performance.now() - began)
  }
  return times.sort((a, b) => a - b)[Math.floor(0.95 * PASSES)]
}

let peak = 0
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 50)

const words = ['kes', 'mar', 'tar', 'fen', 'lo', 'yl', 'sif res', 'una']
const bare = await percentileOf((i) =>
  db
    .select()
    .from(member)
    .where(eq(member.id, `large-${i}`)),
)
const search = await percentileOf((i) => findByWords(db, scope, words[i % words.length], 8))
const numbers = await percentileOf((i) => currentEntries(db, scope, [`large-${i}`]))

const HEAD = 'name,bike type,purpose,seat height,seat slide,bar height,bar slide,how sure,sole mm,pedal,since'
const path = join(mkdtempSync(join(tmpdir(), 'bench-')), 'list.csv')
const lines = Array.from({ length: LINES }, (_, i) => `Brought In ${i},Sorrel,usual,7,C,5,2,told,,,2026-01-31`)
writeFileSync(path, [HEAD, ...lines, ''].join('\r\n'))
const upload = { id: 'bench', path, bytes: lines.join('\r\n').length + HEAD.length, kind: 'list' as const }
const asked = { upload, format: { encoding: 'utf-8', delimiter: ',' }, columns: guessColumns(HEAD.split(',')) }
const bring = () => importMembers(db, scope, asked, new Date(), () => undefined, new AbortController().signal)
const [before, began] = [process.memoryUsage().rss, performance.now()]
peak = before
const first = await bring()
const [tookS, mostMb] = [(performance.now() - began) / 1000, peak / 1e6]
const again = await bring()
if (first.outcome !== 'kept' || again.outcome !== 'kept' || again.tally.newNumbers > 0) throw new Error(first.outcome)

peak = process.memoryUsage().rss
const archiveBegan = performance.now()
let bytes = 0
for await (const piece of archiveText(db, scope)) bytes += piece.length
const [archiveS, archiveMb] = [(performance.now() - archiveBegan) / 1000, peak / 1e6]
clearInterval(watch)
await closeDatabase()
const times = (ms: number) => `${ms.toFixed(1)} ms (${(ms / bare).toFixed(1)} times)`
const mb = (of: number) => `${(of / 1e6).toFixed(0)} MB`
const lineCount = LINES.toLocaleString('en')
const [bareMs, took, most] = [bare.toFixed(1), `${tookS.toFixed(0)} s`, `${mostMb.toFixed(0)} MB`]
const archiveTook = `${archiveS.toFixed(0)} s, at most ${archiveMb.toFixed(0)} MB`
console.log(`## Numbers

95th percentiles over one connection: a bare query by key ${bareMs} ms, the finder’s names ${times(search)},
one rider’s sets of numbers ${times(numbers)}.

A list of ${lineCount} new members with numbers into that studio: ${took}, at most ${most} of memory
(${mb(before)} before); once more nothing is new. The archive of all of it: ${mb(bytes)} in ${archiveTook}.
`)
