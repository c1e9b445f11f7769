import { and, eq, inArray, max, sql } from 'drizzle-orm'
import type { BikeType } from '../../core/bikes/bike/bike'
import { AXES, type Marks } from '../../core/base/conventions'
import type { ImportTally } from '../../core/messages/studio/files'
import {
  plainLabel,
  readMemberRow,
  unguarded,
  type CellProblem,
  type MemberDetails,
  type MemberCells,
  type MemberColumn,
  type RowNumbers,
} from '../../core/setups/openFiles/memberRow'
import type { Footwear } from '../../core/setups/register/entry'
import type { Scope } from '../platform/accounts/scope'
import { listTypes, type TypeVersion } from '../bikes/versions'
import type { DbExecutor } from '../platform/db/connection'
import { registerCurrent, registerEntry } from '../setups/tables'
import { member } from '../riders/tables'
import { MAX_NAME_LENGTH } from '../riders/members/members'
import { normalizeName } from '../riders/members/normalizeName'
import { addWords } from '../riders/members/words'
import { studioDay } from '../../core/messages/words/dates'
import { getStudio } from '../studio/studio'

/** Number of rows per insert statement. */
export const BATCH = 500
/** Maximum number of reported names that differ in case only. */
const MAX_ALIKE = 20

type Fault = Readonly<{ column: MemberColumn } & CellProblem>

/** A line's numbers in canonical form, for comparison and storage. */
const contentOf = (marks: Marks, { soleMm, pedal }: Footwear): string =>
  JSON.stringify([...AXES.map((axis) => marks[axis] ?? null), soleMm ?? null, pedal ?? null])

/** A fault that an earlier version of the type may not have had. */
const ofAnotherVersion = ({ code }: Fault): boolean =>
  code === 'noSuchLabel' || code === 'noSuchAxis' || code === 'missing'

/** What a list does to a studio, line by line. */
export type ImportPlan = Readonly<{
  tally: ImportTally
  /** Takes a line; its faults where it has some. */
  read: (line: number, cells: MemberCells) => readonly Fault[]
  /** Inserts the rows read since the last call. They stay invisible until the transaction commits. */
  write: (tx: DbExecutor) => Promise<void>
  /** Makes the imported numbers current, except where somebody saved other numbers during the import. */
  appear: (tx: DbExecutor) => Promise<void>
}>

/** What a list does to a studio as it is: whom it means, what is new, what is there already. */
export async function planFor(db: DbExecutor, scope: Scope, now: Date): Promise<ImportPlan> {
  const { studioId, userId } = scope
  const versions = await listTypes(db, scope)
  const types = versions.map(({ bikeType }) => bikeType)
  const versionOf = new Map<BikeType, TypeVersion>(versions.map((version) => [version.bikeType, version]))
  const { timeZone } = await getStudio(db, scope)
  const nameOf = new Map<string, string>()
  const idsOf = new Map<string, string[]>()
  /** Names in lower case, to find names that differ in capitals only. */
  const byLetters = new Map<string, string>()
  const idOfNumber = new Map<string, string>()
  /** Fields of each member besides the name, in the studio or from an earlier line. */
  const detailsOf = new Map<string, MemberDetails>()
  const describe = (id: string, details: MemberDetails) => {
    detailsOf.set(id, { ...detailsOf.get(id), ...details })
    if (details.number) idOfNumber.set(details.number.toLowerCase(), id)
  }
  const meet = (id: string, name: string) => {
    nameOf.set(id, name)
    idsOf.set(name, [...(idsOf.get(name) ?? []), id])
    if (!byLetters.has(name.toLowerCase())) byLetters.set(name.toLowerCase(), name)
  }
  for (const { id, name, number, email, statureMm } of await db
    .select({
      id: member.id,
      name: member.name,
      number: member.number,
      email: member.email,
      statureMm: member.statureMm,
    })
    .from(member)
    .where(eq(member.studioId, studioId))) {
    meet(id, name)
    describe(id, { number: number ?? undefined, email: email ?? undefined, statureMm: statureMm ?? undefined })
  }
  const existing = await storedMembers(db, scope)
  const createdAt = await notBeforeTheLast(db, scope, now)
  const context = { types, normalizeName, maxNameLength: MAX_NAME_LENGTH, today: studioDay(now, timeZone) }
  const tally = {
    lines: 0,
    newMembers: 0,
    existingMembers: 0,
    newNumbers: 0,
    changedNumbers: 0,
    sameNumbers: 0,
    changedDetails: 0,
    overtaken: 0,
    alike: [] as { name: string; there: string }[],
  }
  const met = new Set<string>()
  const byNumber = new Map<string, Readonly<{ line: number; content: string }>>()
  let members: { id: string; name: string }[] = []
  /** Members whose row is written already and is described otherwise now. */
  const redescribed = new Set<string>()
  let entries: (typeof registerEntry.$inferInsert)[] = []
  /** New by this list; `newcomers` are those of them already written. */
  const newIds = new Set<string>()
  const newcomers = new Set<string>()
  const later: (typeof registerEntry.$inferInsert)[] = []
  const appearing: Appearing[] = []

  function whoIs(memberId: string | null, name: string, number: string | undefined): string | Fault {
    const numbered = number === undefined ? undefined : idOfNumber.get(number.toLowerCase())
    if (numbered !== undefined && (memberId ?? numbered) !== numbered)
      return { column: 'memberNumber', code: 'numberTaken', name: nameOf.get(numbered)! }
    if (memberId) {
      const there = nameOf.get(memberId)
      if (there === undefined) return { column: 'memberId', code: 'unknownId' }
      return there === name ? memberId : { column: 'name', code: 'otherName', name: there }
    }
    if (numbered !== undefined) {
      const there = nameOf.get(numbered)!
      return there === name ? numbered : { column: 'memberNumber', code: 'numberTaken', name: there }
    }
    // Somebody of this name with another number is somebody else.
    const ids = (idsOf.get(name) ?? []).filter((id) => number === undefined || !detailsOf.get(id)?.number)
    if (ids.length > 1) return { column: 'name', code: 'severalOfThatName' }
    if (ids.length === 1) return ids[0]
    const alike = byLetters.get(name.toLowerCase())
    if (alike !== undefined && tally.alike.length < MAX_ALIKE) tally.alike.push({ name, there: alike })
    const id = crypto.randomUUID()
    meet(id, name)
    members.push({ id, name })
    newIds.add(id)
    tally.newMembers += 1
    met.add(id)
    return id
  }

  function takeDetails(id: string, details: MemberDetails): void {
    const before = detailsOf.get(id) ?? {}
    const changed = (['number', 'email', 'statureMm'] as const).some(
      (key) => details[key] !== undefined && details[key] !== before[key],
    )
    if (!changed) return
    describe(id, details)
    if (newIds.has(id) && !newcomers.has(id)) return
    if (!newIds.has(id) && !redescribed.has(id)) tally.changedDetails += 1
    redescribed.add(id)
  }

  function takeNumbers(line: number, memberId: string, numbers: RowNumbers): Fault[] {
    const { type, purpose, marks, certainty, footwear, since } = numbers
    const version = versionOf.get(type)!
    const key = `${memberId}/${version.lineId}/${purpose}`
    const content = contentOf(marks, footwear)
    const earlier = byNumber.get(key)
    if (earlier && earlier.content !== content)
      return [{ column: 'seatHeight', code: 'saidOtherwise', line: earlier.line }]
    if (earlier) return []
    byNumber.set(key, { line, content })
    const before = existing.get(key)?.content
    if (before === content) {
      tally.sameNumbers += 1
      return []
    }
    tally[before === undefined ? 'newNumbers' : 'changedNumbers'] += 1
    entries.push({
      id: crypto.randomUUID(),
      studioId,
      memberId,
      lineId: version.lineId,
      typeId: version.id,
      purpose,
      source: 'imported',
      certainty,
      marks,
      soleMm: footwear.soleMm,
      pedal: footwear.pedal,
      basis: {},
      sinceAt: since ? new Date(`${since}T12:00:00Z`) : createdAt,
      createdAt,
      createdBy: userId,
    })
    return []
  }

  /** Numbers of the register in the labels of an earlier version of their type. */
  function isStored(cells: MemberCells): boolean {
    const version = versions.find(({ bikeType }) => bikeType.name === cells.bikeType)
    if (!cells.memberId || !version || nameOf.get(cells.memberId) !== normalizeName(unguarded(cells.name ?? '')))
      return false
    const marks = Object.fromEntries(AXES.flatMap((axis) => (cells[axis] ? [[axis, plainLabel(cells[axis])]] : [])))
    const footwear = {
      ...(cells.soleMm && { soleMm: Number(cells.soleMm) }),
      ...(cells.pedal && { pedal: cells.pedal as Footwear['pedal'] }),
    }
    const before = existing.get(`${cells.memberId}/${version.lineId}/${cells.purpose}`)?.content
    if (before !== contentOf(marks, footwear)) return false
    tally.sameNumbers += 1
    return true
  }

  return {
    tally,
    read(line, cells) {
      tally.lines += 1
      const row = readMemberRow(cells, context)
      if (row.outcome === 'faulty') return row.faults.every(ofAnotherVersion) && isStored(cells) ? [] : row.faults
      const who = whoIs(row.memberId, row.name, row.details.number)
      if (typeof who !== 'string') return [who]
      takeDetails(who, row.details)
      if (!met.has(who)) {
        met.add(who)
        tally.existingMembers += 1
      }
      return row.numbers ? takeNumbers(line, who, row.numbers) : []
    },
    async write(tx) {
      const [people, numbers] = [members, entries]
      members = []
      entries = []
      if (people.length > 0) {
        await tx
          .insert(member)
          .values(
            people.map((one) => ({ ...one, ...detailsOf.get(one.id), studioId, createdAt: now, createdBy: userId })),
          )
        await addWords(tx, scope, people)
      }
      people.forEach(({ id }) => newcomers.add(id))
      // An insert locks the member row until commit, so entries of existing members come last.
      const written = numbers.filter(({ memberId }) => newcomers.has(memberId))
      later.push(...numbers.filter(({ memberId }) => !newcomers.has(memberId)))
      if (written.length > 0) await tx.insert(registerEntry).values(written)
      appearing.push(
        ...numbers.map(({ memberId, lineId, purpose, id }) => ({ memberId, lineId, purpose, entryId: id })),
      )
    },
    async appear(tx) {
      for (const id of redescribed)
        await tx
          .update(member)
          .set(detailsOf.get(id) ?? {})
          .where(eq(member.id, id))
      for (let from = 0; from < later.length; from += BATCH)
        await tx.insert(registerEntry).values(later.slice(from, from + BATCH))
      for (let from = 0; from < appearing.length; from += BATCH) {
        const some = appearing.slice(from, from + BATCH)
        const riders = [...new Set(some.map(({ memberId }) => memberId))]
        // Numbers saved during the import are newer than the list.
        const holding = new Map(
          (
            await tx
              .select(currentColumns)
              .from(registerCurrent)
              .where(inArray(registerCurrent.memberId, riders))
              .for('update')
          ).map((row) => [keyOf(row), row.entryId]),
        )
        const fresh = some.filter((one) => holding.get(keyOf(one)) === existing.get(keyOf(one))?.entryId)
        tally.overtaken += some.length - fresh.length
        if (fresh.length === 0) continue
        await tx
          .insert(registerCurrent)
          .values(fresh.map((one) => ({ ...one, studioId })))
          .onDuplicateKeyUpdate({ set: { entryId: sql`values(${registerCurrent.entryId})` } })
        // By key: of a subquery here the database would read every member once a batch.
        await tx
          .update(member)
          .set({
            latestEntryId: sql`(SELECT e.id FROM register_entry e WHERE e.member_id = ${member.id}
              ORDER BY e.created_at DESC, (e.purpose = 'usual') DESC, e.id DESC LIMIT 1)`,
          })
          .where(inArray(member.id, riders))
      }
    },
  }
}

/** Numbers that become current. */
type Appearing = Pick<typeof registerCurrent.$inferInsert, 'memberId' | 'lineId' | 'purpose' | 'entryId'>

const currentColumns = {
  memberId: registerCurrent.memberId,
  lineId: registerCurrent.lineId,
  purpose: registerCurrent.purpose,
  entryId: registerCurrent.entryId,
}

const keyOf = ({ memberId, lineId, purpose }: Omit<Appearing, 'entryId'>): string => `${memberId}/${lineId}/${purpose}`

/** Entries in force in the studio, by member, type and purpose. */
async function storedMembers(
  db: DbExecutor,
  { studioId }: Scope,
): Promise<Map<string, Readonly<{ entryId: string; content: string }>>> {
  const rows = await db
    .select({
      ...currentColumns,
      marks: registerEntry.marks,
      soleMm: registerEntry.soleMm,
      pedal: registerEntry.pedal,
    })
    .from(registerCurrent)
    .innerJoin(registerEntry, eq(registerEntry.id, registerCurrent.entryId))
    .where(and(eq(registerCurrent.studioId, studioId)))
  return new Map(
    rows.map(({ marks, soleMm, pedal, entryId, ...row }) => [
      keyOf(row),
      { entryId, content: contentOf(marks, { soleMm: soleMm ?? undefined, pedal: pedal ?? undefined }) },
    ]),
  )
}

/** Now, or just after the studio's last entry where the clock is behind it. */
async function notBeforeTheLast(db: DbExecutor, { studioId }: Scope, now: Date): Promise<Date> {
  const [{ last }] = await db
    .select({ last: max(registerEntry.createdAt) })
    .from(registerEntry)
    .where(eq(registerEntry.studioId, studioId))
  return last && last >= now ? new Date(last.getTime() + 1) : now
}
