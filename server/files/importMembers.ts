import { setImmediate as nextTurn } from 'node:timers/promises'
import { and, eq, inArray, max, sql } from 'drizzle-orm'
import type { BikeType } from '../../core/bike/bike'
import { AXES, type Marks } from '../../core/conventions'
import type { FileFault, ImportTally } from '../../core/messages/files'
import {
  plainLabel,
  readMemberRow,
  unguarded,
  type CellProblem,
  type MemberCells,
  type MemberColumn,
  type RowNumbers,
} from '../../core/openFiles/memberRow'
import type { Footwear } from '../../core/register/entry'
import type { Scope } from '../accounts/scope'
import { listTypes, type TypeVersion } from '../bikes/versions'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { withLease } from '../db/lease'
import { registerCurrent, registerEntry } from '../db/tables/register'
import { member } from '../db/tables/riders'
import { MAX_NAME_LENGTH } from '../members/members'
import { normalizeName } from '../members/normalizeName'
import { addWords } from '../members/words'
import { studioDay } from '../studio/day'
import { getStudio } from '../studio/studio'
import { linesOf, type ListFormat } from './list'
import type { Upload } from './uploads'

/** Which column each cell of a line is, in the file's order; null where it is none. */
export type ColumnMap = readonly (MemberColumn | null)[]
export type ImportAsked = Readonly<{ upload: Upload; format: ListFormat; columns: ColumnMap }>

/** Faults told; more are counted. */
export const MOST_FAULTS = 200
const BATCH = 500
/** So many names that differ in capitals only are told. */
const MOST_ALIKE = 20
/** After so many lines whoever asks for something else has a turn. */
const TURN = 50

export type ImportOutcome =
  | Readonly<{ outcome: 'fits' | 'kept'; tally: ImportTally }>
  | Readonly<{ outcome: 'faulty'; faults: readonly FileFault[]; count: number }>
  | Readonly<{ outcome: 'stopped' | 'busy' | 'gone' }>

/** Files are brought in one at a time: this names the lease. */
export const IMPORT_LEASE = 'import'

/** Told now and then while a long file is read: bytes of how many. */
export type Progress = (done: number, of: number) => void

/** Reads a whole list against the studio and writes nothing: what it would do, or every fault of it. */
export async function checkMembers(
  db: DbExecutor,
  scope: Scope,
  asked: ImportAsked,
  now: Date,
  progress: Progress,
  signal: AbortSignal,
): Promise<ImportOutcome> {
  const plan = await planFor(db, scope, now)
  const read = await readAll(asked, plan, progress, signal, async () => undefined)
  if (read.outcome !== 'read') return read
  return { outcome: 'fits', tally: plan.tally }
}

/**
 * Brings a whole list in, or nothing of it: faults, a stop and a failure leave all as it was. What is written appears
 * at once at the end; until then nobody waits for it. `busy`: another file is being brought in.
 */
export async function importMembers(
  db: Database,
  scope: Scope,
  asked: ImportAsked,
  now: Date,
  progress: Progress,
  signal: AbortSignal,
  /** Before what was written appears. */
  beforeAppearing: () => Promise<void> = async () => undefined,
): Promise<ImportOutcome> {
  try {
    return await withLease(db, scope, IMPORT_LEASE, (hold) =>
      withTransaction(db, async (tx): Promise<ImportOutcome> => {
        const plan = await planFor(tx, scope, now)
        const read = await readAll(asked, plan, progress, signal, () => plan.write(tx))
        if (read.outcome !== 'read') throw new NothingWritten(read)
        await plan.write(tx)
        await beforeAppearing()
        // Rows that others ask for are locked only now.
        await plan.appear(tx)
        await hold(tx)
        return { outcome: 'kept', tally: plan.tally }
      }),
    )
  } catch (error) {
    if (error instanceof NothingWritten) return error.why
    throw error
  }
}

/** Takes the transaction back. */
class NothingWritten extends Error {
  constructor(readonly why: ImportOutcome) {
    super(why.outcome)
  }
}

async function readAll(
  { upload, format, columns }: ImportAsked,
  plan: Plan,
  progress: Progress,
  signal: AbortSignal,
  batch: () => Promise<void>,
): Promise<ImportOutcome | Readonly<{ outcome: 'read' }>> {
  const faults: FileFault[] = []
  let [count, wanted] = [0, -1]
  const fault = (one: FileFault) => {
    if (faults.length < MOST_FAULTS) faults.push(one)
    count += 1
  }
  for await (const found of linesOf(upload.path, format)) {
    if (signal.aborted) return { outcome: 'stopped' }
    if (found.outcome === 'faulty') {
      fault(found.fault)
      break
    }
    const { line, cells, bytes } = found
    if (wanted < 0) {
      wanted = cells.length
      continue
    }
    if (cells.length !== wanted) fault({ line, code: 'cells', found: cells.length, wanted })
    else plan.read(line, cellsOf(columns, cells)).forEach((cell) => fault({ line, cell }))
    if (plan.tally.lines % TURN === 0) await nextTurn()
    if (plan.tally.lines % BATCH === 0) {
      progress(bytes, upload.bytes)
      // Once something is wrong nothing will be kept: the rest is only read.
      if (count === 0) await batch()
    }
  }
  progress(upload.bytes, upload.bytes)
  return count > 0 ? { outcome: 'faulty', faults, count } : { outcome: 'read' }
}

const cellsOf = (columns: ColumnMap, cells: readonly string[]): MemberCells =>
  Object.fromEntries(columns.flatMap((column, i) => (column ? [[column, cells[i]]] : [])))

type Fault = Readonly<{ column: MemberColumn } & CellProblem>

/** A line's numbers in the form they are compared and kept in. */
const contentOf = (marks: Marks, { soleMm, pedal }: Footwear): string =>
  JSON.stringify([...AXES.map((axis) => marks[axis] ?? null), soleMm ?? null, pedal ?? null])

/** A fault that an earlier version of the type may not have had. */
const ofAnotherVersion = ({ code }: Fault): boolean =>
  code === 'noSuchLabel' || code === 'noSuchAxis' || code === 'missing'

type Plan = Readonly<{
  tally: ImportTally
  /** Takes a line; its faults where it has some. */
  read: (line: number, cells: MemberCells) => readonly Fault[]
  /** Writes what was taken since the last time; nobody sees it yet. */
  write: (tx: DbExecutor) => Promise<void>
  /** Says that the numbers written are those that hold, where nobody set others meanwhile. */
  appear: (tx: DbExecutor) => Promise<void>
}>

/** What a list does to a studio as it is: whom it means, what is new, what is there already. */
async function planFor(db: DbExecutor, scope: Scope, now: Date): Promise<Plan> {
  const { studioId, userId } = scope
  const versions = await listTypes(db, scope)
  const types = versions.map(({ bikeType }) => bikeType)
  const versionOf = new Map<BikeType, TypeVersion>(versions.map((version) => [version.bikeType, version]))
  const { timeZone } = await getStudio(db, scope)
  const nameOf = new Map<string, string>()
  const idsOf = new Map<string, string[]>()
  /** Names by their letters alone, to tell those that differ in capitals only. */
  const byLetters = new Map<string, string>()
  const meet = (id: string, name: string) => {
    nameOf.set(id, name)
    idsOf.set(name, [...(idsOf.get(name) ?? []), id])
    if (!byLetters.has(name.toLowerCase())) byLetters.set(name.toLowerCase(), name)
  }
  for (const { id, name } of await db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(eq(member.studioId, studioId)))
    meet(id, name)
  const held = await heldBy(db, scope)
  const createdAt = await notBeforeTheLast(db, scope, now)
  const known = { types, normalizeName, maxNameLength: MAX_NAME_LENGTH, today: studioDay(now, timeZone) }
  const tally = {
    lines: 0,
    newMembers: 0,
    knownMembers: 0,
    newNumbers: 0,
    changedNumbers: 0,
    sameNumbers: 0,
    overtaken: 0,
    alike: [] as { name: string; there: string }[],
  }
  const met = new Set<string>()
  const said = new Map<string, Readonly<{ line: number; content: string }>>()
  let members: { id: string; name: string }[] = []
  let entries: (typeof registerEntry.$inferInsert)[] = []
  const newcomers = new Set<string>()
  const later: (typeof registerEntry.$inferInsert)[] = []
  const appearing: Appearing[] = []

  function whoIs(memberId: string | null, name: string): string | Fault {
    if (memberId) {
      const there = nameOf.get(memberId)
      if (there === undefined) return { column: 'memberId', code: 'unknownId' }
      return there === name ? memberId : { column: 'name', code: 'otherName', name: there }
    }
    const ids = idsOf.get(name) ?? []
    if (ids.length > 1) return { column: 'name', code: 'severalOfThatName' }
    if (ids.length === 1) return ids[0]
    const alike = byLetters.get(name.toLowerCase())
    if (alike !== undefined && tally.alike.length < MOST_ALIKE) tally.alike.push({ name, there: alike })
    const id = crypto.randomUUID()
    meet(id, name)
    members.push({ id, name })
    tally.newMembers += 1
    met.add(id)
    return id
  }

  function takeNumbers(line: number, memberId: string, numbers: RowNumbers): Fault[] {
    const { type, purpose, marks, certainty, footwear, since } = numbers
    const version = versionOf.get(type)!
    const key = `${memberId}/${version.lineId}/${purpose}`
    const content = contentOf(marks, footwear)
    const earlier = said.get(key)
    if (earlier && earlier.content !== content)
      return [{ column: 'seatHeight', code: 'saidOtherwise', line: earlier.line }]
    if (earlier) return []
    said.set(key, { line, content })
    const before = held.get(key)?.content
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

  /** Numbers in the labels of an earlier version of their type, as they stand in the register already. */
  function isHeld(cells: MemberCells): boolean {
    const version = versions.find(({ bikeType }) => bikeType.name === cells.bikeType)
    if (!cells.memberId || !version || nameOf.get(cells.memberId) !== normalizeName(unguarded(cells.name ?? '')))
      return false
    const marks = Object.fromEntries(AXES.flatMap((axis) => (cells[axis] ? [[axis, plainLabel(cells[axis])]] : [])))
    const footwear = {
      ...(cells.soleMm && { soleMm: Number(cells.soleMm) }),
      ...(cells.pedal && { pedal: cells.pedal as Footwear['pedal'] }),
    }
    const before = held.get(`${cells.memberId}/${version.lineId}/${cells.purpose}`)?.content
    if (before !== contentOf(marks, footwear)) return false
    tally.sameNumbers += 1
    return true
  }

  return {
    tally,
    read(line, cells) {
      tally.lines += 1
      const row = readMemberRow(cells, known)
      if (row.outcome === 'faulty') return row.faults.every(ofAnotherVersion) && isHeld(cells) ? [] : row.faults
      const who = whoIs(row.memberId, row.name)
      if (typeof who !== 'string') return [who]
      if (!met.has(who)) {
        met.add(who)
        tally.knownMembers += 1
      }
      return row.numbers ? takeNumbers(line, who, row.numbers) : []
    },
    async write(tx) {
      const [people, numbers] = [members, entries]
      members = []
      entries = []
      if (people.length > 0) {
        await tx.insert(member).values(people.map((one) => ({ ...one, studioId, createdAt: now, createdBy: userId })))
        await addWords(tx, scope, people)
      }
      people.forEach(({ id }) => newcomers.add(id))
      // An entry locks its rider until all is done: of those whom others may write to meanwhile it comes last.
      const written = numbers.filter(({ memberId }) => newcomers.has(memberId))
      later.push(...numbers.filter(({ memberId }) => !newcomers.has(memberId)))
      if (written.length > 0) await tx.insert(registerEntry).values(written)
      appearing.push(
        ...numbers.map(({ memberId, lineId, purpose, id }) => ({ memberId, lineId, purpose, entryId: id })),
      )
    },
    async appear(tx) {
      for (let from = 0; from < later.length; from += BATCH)
        await tx.insert(registerEntry).values(later.slice(from, from + BATCH))
      for (let from = 0; from < appearing.length; from += BATCH) {
        const some = appearing.slice(from, from + BATCH)
        const riders = [...new Set(some.map(({ memberId }) => memberId))]
        // What was set since this list was begun is newer than what it says.
        const holding = new Map(
          (
            await tx
              .select(currentColumns)
              .from(registerCurrent)
              .where(inArray(registerCurrent.memberId, riders))
              .for('update')
          ).map((row) => [keyOf(row), row.entryId]),
        )
        const fresh = some.filter((one) => holding.get(keyOf(one)) === held.get(keyOf(one))?.entryId)
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

/** Numbers that are to hold. */
type Appearing = Pick<typeof registerCurrent.$inferInsert, 'memberId' | 'lineId' | 'purpose' | 'entryId'>

const currentColumns = {
  memberId: registerCurrent.memberId,
  lineId: registerCurrent.lineId,
  purpose: registerCurrent.purpose,
  entryId: registerCurrent.entryId,
}

const keyOf = ({ memberId, lineId, purpose }: Omit<Appearing, 'entryId'>): string => `${memberId}/${lineId}/${purpose}`

/** What holds in the studio, by member, type and purpose: which entry, and what it says. */
async function heldBy(
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

/** Now, or a moment after the studio's last entry where the clock stands before it. */
async function notBeforeTheLast(db: DbExecutor, { studioId }: Scope, now: Date): Promise<Date> {
  const [{ last }] = await db
    .select({ last: max(registerEntry.createdAt) })
    .from(registerEntry)
    .where(eq(registerEntry.studioId, studioId))
  return last && last >= now ? new Date(last.getTime() + 1) : now
}
