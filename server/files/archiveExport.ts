import { and, eq, exists, gt, or, sql, type SQL } from 'drizzle-orm'
import type { AnyMySqlColumn } from 'drizzle-orm/mysql-core'
import { Readable } from 'node:stream'
import type { Scope } from '../platform/accounts/scope'
import type { Database, DbExecutor } from '../platform/db/connection'
import { studio, user } from '../platform/accounts/tables'
import { ARCHIVE_FORMAT, ARCHIVE_VERSION } from './archiveSchema'
import { orderOf, SECTIONS, type ArchiveSection } from './archiveSections'

/** Rows of one query. */
const PAGE = 1000

/** A whole studio as JSON text, as of the first byte. */
export function archiveStream(db: Database, scope: Scope): ReadableStream<Uint8Array> {
  return Readable.toWeb(Readable.from(archiveText(db, scope), { objectMode: false })) as ReadableStream<Uint8Array>
}

/** The text of an archive in pieces. */
export async function* archiveText(db: Database, scope: Scope): AsyncGenerator<string> {
  // A transaction sees one state throughout; it lasts as long as the download.
  const pieces = new Pieces()
  const written = db
    .transaction(async (tx) => {
      await writeAll(tx, scope, (piece) => pieces.put(piece))
      pieces.end(null)
    })
    .catch((error: unknown) => pieces.end(error ?? new Error('the archive was not written')))
  try {
    for (;;) {
      const piece = await pieces.take()
      if (piece === null) break
      yield piece
    }
  } finally {
    pieces.leave()
    await written
  }
}

async function writeAll(tx: DbExecutor, scope: Scope, put: (piece: string) => Promise<void>): Promise<void> {
  const [own] = await tx
    .select({
      name: studio.name,
      place: studio.place,
      timeZone: studio.timeZone,
      school: studio.school,
      costs: studio.costs,
      learns: studio.learns,
      referral: studio.referral,
      retention: studio.retention,
      careIntervals: studio.careIntervals,
    })
    .from(studio)
    .where(eq(studio.id, scope.studioId))
  const head = { format: ARCHIVE_FORMAT, formatVersion: ARCHIVE_VERSION, studio: [own] }
  await put(JSON.stringify(head).slice(0, -1))
  for (const section of SECTIONS) {
    await put(`,\n"${section.name}":[`)
    let first = true
    for await (const rows of pagesOf(tx, scope, section)) {
      const text = rows.map((row) => JSON.stringify(row)).join(',\n')
      await put(`${first ? '\n' : ',\n'}${text}`)
      first = false
    }
    await put(']')
  }
  await put('}\n')
}

async function* pagesOf(tx: DbExecutor, scope: Scope, section: ArchiveSection): AsyncGenerator<object[]> {
  const { table, key, columns } = section
  const keys = Object.fromEntries(key.map((column, i) => [`key${i}`, column]))
  for (let after: unknown[] | null = null; ;) {
    const page = (await tx
      .select({ ...columns, ...keys } as Record<string, AnyMySqlColumn>)
      .from(table)
      .where(
        and(
          section.name === 'people' ? wroteHere(scope) : eq(table.studioId, scope.studioId),
          after ? beyond(key, after) : undefined,
        ),
      )
      .orderBy(...orderOf(section))
      .limit(PAGE)) as Record<string, unknown>[]
    if (page.length > 0)
      yield page.map((row) => Object.fromEntries(Object.keys(columns).map((name) => [name, row[name]])))
    if (page.length < PAGE) return
    const last = page[page.length - 1]
    after = key.map((_, i) => last[`key${i}`])
  }
}

/** After a row by its key, which may have several columns. */
function beyond(key: readonly AnyMySqlColumn[], values: readonly unknown[]): SQL | undefined {
  return or(
    ...key.map((column, i) => and(...key.slice(0, i).map((one, k) => eq(one, values[k])), gt(column, values[i]))),
  )
}

/** The people who wrote something in a studio; who signs in and wrote nothing is no part of its records. */
function wroteHere({ studioId }: Scope): SQL | undefined {
  return or(
    ...SECTIONS.flatMap(({ table, columns, refersTo }) =>
      Object.entries(refersTo)
        .filter(([, to]) => to === 'people')
        .map(([column]) =>
          exists(
            sql`(SELECT 1 FROM ${table} WHERE ${columns[column]} = ${user.id} AND ${table.studioId} = ${studioId})`,
          ),
        ),
    ),
  )
}

/** Hands pieces from one that writes to one that reads, a few at a time. */
class Pieces {
  private waiting: string[] = []
  private ended: Readonly<{ error: unknown }> | null = null
  private gone = false
  private wakeReader: () => void = () => undefined
  private wakeWriter: () => void = () => undefined

  async put(piece: string): Promise<void> {
    this.waiting.push(piece)
    this.wakeReader()
    while (this.waiting.length > MAX_WAITING && !this.gone)
      await new Promise<void>((resolve) => (this.wakeWriter = resolve))
    if (this.gone) throw new Error('nobody reads the archive any more')
  }
  end(error: unknown): void {
    this.ended = { error }
    this.wakeReader()
  }
  leave(): void {
    this.gone = true
    this.wakeWriter()
  }
  async take(): Promise<string | null> {
    for (;;) {
      const piece = this.waiting.shift()
      this.wakeWriter()
      if (piece !== undefined) return piece
      if (this.ended?.error) throw this.ended.error
      if (this.ended) return null
      await new Promise<void>((resolve) => (this.wakeReader = resolve))
    }
  }
}
const MAX_WAITING = 4
