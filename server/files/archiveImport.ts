import Ajv, { type ValidateFunction } from 'ajv'
import { count, eq, inArray } from 'drizzle-orm'
import { typeIssues } from '../../core/operations/typeFile'
import type { BikeType } from '../../core/bikes/bike/bike'
import {
  ARCHIVE_FAULT,
  type ArchiveFault,
  type ArchiveOutcome,
  type ArchiveTally,
} from '../../core/messages/studio/archive'
import type { Scope } from '../platform/accounts/scope'
import type { Role } from '../platform/db/roles'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { isDuplicate } from '../platform/db/errors'
import { sealRow } from '../platform/sealing/sealed'
import { withLease } from '../platform/lease/lease'
import { studio, user } from '../platform/accounts/tables'
import { bike, bikeTypeLine } from '../bikes/tables'
import { room, studioClass } from '../classes/rooms/tables'
import { member } from '../riders/tables'
import { listErasures, replayErasures } from '../privacy/eraseMember'
import { addWords } from '../riders/members/words'
import { archiveSchema, ARCHIVE_FORMAT, ARCHIVE_VERSION, READABLE_VERSIONS } from './archiveSchema'
import { SECTIONS, sectionsAfter, type ArchiveSection, type SectionName } from './archiveSections'
import { NotReadable, readArchive } from './archiveRead'
import { IMPORT_LEASE, MAX_FAULTS, type Progress } from './importMembers'
import type { Upload } from './uploads'

type ArchiveInput = Readonly<{ upload: Upload; progress: Progress; signal: AbortSignal }>

/** Sections whose rows others refer to. */
const REFERRED = new Set(SECTIONS.flatMap(({ refersTo }) => Object.values(refersTo)))

/** Reads a whole archive and writes nothing: its content, or what is wrong with it, by section, row and field. */
export async function checkArchive(db: DbExecutor, scope: Scope, input: ArchiveInput): Promise<ArchiveOutcome> {
  if (!(await isEmpty(db, scope))) return { outcome: 'notEmpty' }
  const reading = new Reading()
  try {
    for await (const { items, bytes } of readArchive(input.upload)) {
      if (input.signal.aborted) return { outcome: 'stopped' }
      for (const item of items) {
        if (item.kind === 'field') reading.field(item.name, item.value)
        else reading.row(item.section, item.index, item.value)
        if (reading.otherVersion !== null) {
          const version = reading.otherVersion
          return { outcome: version > ARCHIVE_VERSION ? 'newer' : 'older', version }
        }
      }
      input.progress(bytes, input.upload.bytes)
    }
  } catch (error) {
    if (!(error instanceof NotReadable)) throw error
    return { outcome: 'unreadable', why: error.why, bytes: error.bytes }
  }
  return reading.end()
}

/** Imports an archive into an empty studio, whole or not at all. */
export async function importArchive(db: Database, scope: Scope, input: ArchiveInput): Promise<ArchiveOutcome> {
  const checked = await checkArchive(db, scope, input)
  if (checked.outcome !== 'fits') return checked
  try {
    return await withLease(db, scope, IMPORT_LEASE, (renew) =>
      withTransaction(db, async (tx): Promise<ArchiveOutcome> => {
        if (!(await isEmpty(tx, scope))) throw new NothingWritten({ outcome: 'notEmpty' })
        // Written in the order of what refers to what; a file in another order is gone through again for the rest.
        const later = sectionsAfter(checked.version)
        const written = WRITTEN.filter((name) => !later.has(name))
        for (let next = 0; next < written.length;) {
          const done = await writeInOrder(tx, scope, input, written, next)
          if (done === next) throw new Error(`no section ${written[next]} in an archive that was checked`)
          next = done
        }
        // An older archive does not restore an erased member.
        const erased = (await listErasures(tx)).filter(({ studioId }) => studioId === scope.studioId)
        await replayErasures(tx as Database, erased, new Date())
        await renew(tx)
        return { outcome: 'kept', tally: checked.tally }
      }),
    )
  } catch (error) {
    if (error instanceof NothingWritten) return error.why
    if (isDuplicate(error)) return { outcome: 'elsewhere' }
    throw error
  }
}

class NothingWritten extends Error {
  constructor(readonly why: ArchiveOutcome) {
    super(why.outcome)
  }
}

async function isEmpty(db: DbExecutor, { studioId }: Scope): Promise<boolean> {
  for (const table of [member, bikeTypeLine, bike, room, studioClass]) {
    const [{ there }] = await db.select({ there: count() }).from(table).where(eq(table.studioId, studioId))
    if (there > 0) return false
  }
  return true
}

const ajv = (): Ajv => new Ajv({ allErrors: true, strict: false })

/** Goes through an archive once: what it is, what its rows are, and what they refer to. */
class Reading {
  /** The version of an archive that is not this one's. */
  otherVersion: number | null = null
  private readonly faults: ArchiveFault[] = []
  private count = 0
  private readonly fields = new Map<string, unknown>()
  private readonly rows: Partial<Record<SectionName | 'studio', number>> = {}
  private readonly ids = new Map<SectionName, Set<string>>()
  /** References to rows that had not come yet: looked up at the end. */
  private readonly open: Readonly<{
    section: SectionName
    index: number
    field: string
    to: SectionName
    id: string
  }>[] = []
  private readonly validators: Readonly<Record<string, ValidateFunction>>

  constructor() {
    const schema = archiveSchema() as { definitions: object }
    const compiler = ajv().addSchema({ $id: 'archive', ...schema })
    this.validators = Object.fromEntries(
      ['studio', ...SECTIONS.map(({ name }) => name)].map((name) => [
        name,
        compiler.compile({ $ref: `archive#/definitions/${name}Row` }),
      ]),
    )
  }

  field(name: string, value: unknown): void {
    this.fields.set(name, value)
    if (name === 'formatVersion') {
      if (typeof value !== 'number')
        this.fault({ section: name, index: null, field: '', reason: ARCHIVE_FAULT.noVersion })
      else if (!READABLE_VERSIONS.includes(value)) this.otherVersion = value
    }
    const isListedKey = name === 'format' || name === 'formatVersion' || name in this.validators
    if (!isListedKey) this.fault({ section: name, index: null, field: '', reason: ARCHIVE_FAULT.notAPart })
  }

  row(section: string, index: number, value: unknown): void {
    const validate = Object.hasOwn(this.validators, section) ? this.validators[section] : undefined
    if (!validate || !Number.isInteger(index))
      return this.fault({ section, index: null, field: '', reason: ARCHIVE_FAULT.notAPart })
    this.rows[section as SectionName] = (this.rows[section as SectionName] ?? 0) + 1
    if (!validate(value)) {
      for (const { instancePath, message = ARCHIVE_FAULT.invalid } of validate.errors ?? [])
        this.fault({ section, index, field: instancePath.slice(1), reason: message })
      return
    }
    if (section === 'studio') return
    const row = value as Record<string, unknown>
    for (const [field, reason] of momentFaults(section as SectionName, row))
      this.fault({ section, index, field, reason })
    if (section === 'types')
      for (const { pointer, reason } of typeIssues(row.definition as BikeType, ''))
        this.fault({ section, index, field: `definition${pointer}`, reason })
    const own = SECTIONS.find(({ name }) => name === section)!
    this.refer(own, index, row)
  }

  private refer({ name, refersTo }: ArchiveSection, index: number, row: Record<string, unknown>): void {
    if (REFERRED.has(name)) {
      const ids = this.ids.get(name) ?? new Set<string>()
      this.ids.set(name, ids)
      if (ids.has(row.id as string)) this.fault({ section: name, index, field: 'id', reason: ARCHIVE_FAULT.twice })
      ids.add(row.id as string)
    }
    for (const [field, to] of Object.entries(refersTo)) {
      const id = row[field]
      if (typeof id === 'string' && !this.ids.get(to)?.has(id)) this.open.push({ section: name, index, field, to, id })
    }
  }

  private fault(fault: ArchiveFault): void {
    if (this.faults.length < MAX_FAULTS) this.faults.push(fault)
    this.count += 1
  }

  end(): ArchiveOutcome {
    if (this.fields.get('format') !== ARCHIVE_FORMAT) return { outcome: 'otherFormat' }
    for (const { section, index, field, to, id } of this.open)
      if (!this.ids.get(to)?.has(id)) this.fault({ section, index, field, reason: ARCHIVE_FAULT.noRow(to) })
    const version = this.fields.get('formatVersion')
    const optional = sectionsAfter(typeof version === 'number' ? version : ARCHIVE_VERSION)
    // What an earlier version had no place for would be lost.
    for (const [name, since] of optional)
      if (this.fields.has(name)) {
        const reason = ARCHIVE_FAULT.laterPart(since, String(version))
        this.fault({ section: name, index: null, field: '', reason })
      }
    for (const name of ['studio', 'formatVersion', ...SECTIONS.map((one) => one.name)])
      if (!this.fields.has(name) && !optional.has(name))
        this.fault({ section: name, index: null, field: '', reason: ARCHIVE_FAULT.missing })
    if ((this.rows.studio ?? 0) !== 1 && this.fields.has('studio'))
      this.fault({ section: 'studio', index: null, field: '', reason: ARCHIVE_FAULT.notOne })
    if (this.count > 0) return { outcome: 'faulty', faults: this.faults, count: this.count }
    const { members = 0, setups = 0, register = 0, bikes = 0, types = 0, evidence = 0 } = this.rows
    const tally: ArchiveTally = { members, setups, numbers: register, bikes, types, evidence }
    return { outcome: 'fits', tally, version: version as number }
  }
}

/** Columns of a section that contain a moment. */
const MOMENTS = new Map(
  SECTIONS.map(({ name, columns }) => [
    name,
    Object.entries(columns).flatMap(([column, { dataType }]) => (dataType === 'date' ? [column] : [])),
  ]),
)
const [FIRST_MOMENT, LAST_MOMENT] = ['1900-01-01T00:00:00.000Z', '2200-01-01T00:00:00.000Z'].map(Date.parse)

/** Moments that no calendar has, or no studio: the 45th of a month, year 0. */
function momentFaults(section: SectionName, row: Record<string, unknown>): [string, string][] {
  return (MOMENTS.get(section) ?? []).flatMap((column): [string, string][] => {
    const text = row[column]
    if (typeof text !== 'string') return []
    const ms = Date.parse(text)
    if (!Number.isFinite(ms) || new Date(ms).toISOString() !== text) return [[column, ARCHIVE_FAULT.noMoment]]
    return ms < FIRST_MOMENT || ms > LAST_MOMENT ? [[column, ARCHIVE_FAULT.outOfYears]] : []
  })
}

/** The studio's own row comes last: until then nothing else of the studio waits for it. */
const WRITTEN = [...SECTIONS.map(({ name }) => name), 'studio'] as const
const BATCH = 500

/** Writes the sections from `next` on as far as they come in this order; returns the first that does not. */
async function writeInOrder(
  tx: DbExecutor,
  scope: Scope,
  { upload, signal }: ArchiveInput,
  written: readonly (typeof WRITTEN)[number][],
  from: number,
): Promise<number> {
  let next = from
  let batch: Record<string, unknown>[] = []
  const flush = async () => {
    if (batch.length > 0) await writeRows(tx, scope, written[next], batch)
    batch = []
  }
  for await (const { items } of readArchive(upload)) {
    if (signal.aborted) throw new NothingWritten({ outcome: 'stopped' })
    for (const item of items) {
      if (item.kind === 'row' && item.section === written[next]) {
        batch.push(item.value as Record<string, unknown>)
        if (batch.length >= BATCH) await flush()
      } else if (item.kind === 'field' && item.name === written[next]) {
        await flush()
        next += 1
      }
    }
  }
  return next
}

async function writeRows(
  tx: DbExecutor,
  scope: Scope,
  name: (typeof WRITTEN)[number],
  rows: readonly Record<string, unknown>[],
): Promise<void> {
  const { studioId } = scope
  if (name === 'studio') return void (await tx.update(studio).set(rows[0]).where(eq(studio.id, studioId)))
  if (name === 'people') return writePeople(tx, scope, rows as never)
  const { table } = SECTIONS.find((one) => one.name === name)!
  const dates = MOMENTS.get(name) ?? []
  const values = rows.map((row) => ({
    ...sealRow(table, studioId, row),
    ...Object.fromEntries(
      dates.map((column) => [
        column,
        row[column] === null || row[column] === undefined ? null : new Date(row[column] as string),
      ]),
    ),
    studioId,
  }))
  await tx.insert(table).values(values as never)
  if (name === 'members') await addWords(tx, scope, rows as never)
}

/** Who wrote the records; those who are not here yet come without a way to sign in. */
async function writePeople(
  tx: DbExecutor,
  { studioId }: Scope,
  people: readonly Readonly<{ id: string; name: string; role: Role }>[],
): Promise<void> {
  const ids = people.map(({ id }) => id)
  const there = await tx.select({ id: user.id, studioId: user.studioId }).from(user).where(inArray(user.id, ids))
  if (there.some((one) => one.studioId !== null && one.studioId !== studioId))
    throw new NothingWritten({ outcome: 'elsewhere' })
  const existing = new Set(there.map(({ id }) => id))
  const missing = people.filter(({ id }) => !existing.has(id))
  if (missing.length === 0) return
  await tx
    .insert(user)
    .values(missing.map(({ id, name, role }) => ({ id, name, role, studioId, email: `${id}@archive.invalid` })))
}
