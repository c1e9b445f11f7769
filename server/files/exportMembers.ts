import { stringify } from 'csv-stringify'
import { and, asc, desc, eq, gt, inArray } from 'drizzle-orm'
import { Readable } from 'node:stream'
import { COLUMN_HEADING } from '../../core/setups/openFiles/columns'
import { guarded, writtenColumns, type MemberCells } from '../../core/setups/openFiles/memberRow'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { bikeTypeLine } from '../bikes/tables'
import { listTypes } from '../bikes/versions'
import { registerCurrent, registerEntry } from '../setups/tables'
import { member } from '../riders/tables'
import { studioDay } from '../../core/messages/words/dates'
import { getStudio } from '../studio/studio'

/** Members of one query. */
const PAGE = 500

/** Every member with their numbers, a line a set, in the columns of `writtenColumns`: RFC 4180, UTF-8. */
export async function memberListStream(db: DbExecutor, scope: Scope): Promise<ReadableStream<Uint8Array>> {
  const { timeZone } = await getStudio(db, scope)
  const types = await listTypes(db, scope)
  const lines = Readable.from(memberLines(db, scope, timeZone))
  const text = stringify({
    header: true,
    record_delimiter: 'windows',
    columns: writtenColumns(types.map(({ bikeType }) => bikeType)).map((key) => ({ key, header: COLUMN_HEADING[key] })),
    cast: { string: guarded },
  })
  lines.on('error', (error) => text.destroy(error))
  return Readable.toWeb(lines.pipe(text)) as ReadableStream<Uint8Array>
}

async function* memberLines(db: DbExecutor, scope: Scope, timeZone: string): AsyncGenerator<MemberCells> {
  for (let after = ''; ;) {
    const page = await db
      .select({
        id: member.id,
        name: member.name,
        number: member.number,
        email: member.email,
        statureMm: member.statureMm,
      })
      .from(member)
      .where(and(eq(member.studioId, scope.studioId), gt(member.id, after)))
      .orderBy(asc(member.id))
      .limit(PAGE)
    if (page.length === 0) return
    after = page[page.length - 1].id
    const entries = await numbersOf(
      db,
      scope,
      page.map(({ id }) => id),
    )
    for (const { id, name, number, email, statureMm } of page) {
      const who = {
        memberId: id,
        memberNumber: number ?? '',
        name,
        email: email ?? '',
        statureMm: statureMm === null ? '' : String(statureMm),
      }
      const own = entries.filter(({ memberId }) => memberId === id)
      if (own.length === 0) yield who
      for (const { type, purpose, marks, certainty, soleMm, pedal, sinceAt } of own)
        yield {
          ...who,
          bikeType: type,
          purpose,
          ...marks,
          certainty,
          soleMm: soleMm === null ? '' : String(soleMm),
          pedal: pedal ?? '',
          since: studioDay(sinceAt, timeZone),
        }
    }
  }
}

/**
 * Numbers in force of these members, by the names of the types in force: of thousands, no type's geometry is fetched.
 */
const numbersOf = (db: DbExecutor, { studioId }: Scope, memberIds: readonly string[]) =>
  db
    .select({
      memberId: registerCurrent.memberId,
      type: bikeTypeLine.name,
      purpose: registerEntry.purpose,
      marks: registerEntry.marks,
      certainty: registerEntry.certainty,
      soleMm: registerEntry.soleMm,
      pedal: registerEntry.pedal,
      sinceAt: registerEntry.sinceAt,
    })
    .from(registerCurrent)
    .innerJoin(registerEntry, eq(registerEntry.id, registerCurrent.entryId))
    .innerJoin(bikeTypeLine, eq(bikeTypeLine.id, registerCurrent.lineId))
    .where(and(inArray(registerCurrent.memberId, [...memberIds]), eq(registerCurrent.studioId, studioId)))
    .orderBy(desc(registerEntry.createdAt), desc(registerEntry.id))
