import { and, desc, eq, lt, or, sql } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bikes/bike/bike'
import type { Marks } from '../../core/base/conventions'
import type { MeantReason } from '../../core/riders/evidence/kinds/onBike/set'
import type { Basis, Certainty, Footwear, Purpose, Source } from '../../core/setups/register/entry'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { sameContent } from '../platform/db/sameContent'
import { can } from '../platform/accounts/can'
import { user } from '../platform/accounts/tables'
import { bike, bikeType } from '../bikes/tables'
import { registerCurrent, registerEntry } from './tables'
import { member } from '../riders/tables'

/** A stored set of numbers. */
export type RegisterEntry = Readonly<{
  id: string
  memberId: string
  lineId: string
  typeId: string
  type: BikeType
  purpose: Purpose
  source: Source
  certainty: Certainty
  marks: Marks
  bikeId: string | null
  bikeNumber: number | null
  machineCalibration: Bike | null
  footwear: Footwear
  meant: MeantReason | null
  basis: Basis
  setupId: string | null
  fromId: string | null
  /** Time since which these marks are in force without a break. */
  sinceAt: Date
  createdAt: Date
  createdBy: string
  /** Saved by a trainee, and looked over by nobody yet. */
  awaitsConfirmation: boolean
}>

/** Fields of a new set of numbers; missing fields are unknown. */
export type NewEntry = Readonly<{
  id: string
  memberId: string
  lineId: string
  typeId: string
  purpose: Purpose
  source: Source
  certainty: Certainty
  marks: Marks
  bikeId?: string | null
  machineCalibration?: Bike | null
  footwear?: Footwear
  meant?: MeantReason | null
  basis?: Basis
  setupId?: string | null
  fromId?: string | null
}>

/** `gone`: the studio has no such member; `idTaken`: the id belongs to other numbers. */
export type EntryResult = Readonly<{ outcome: 'kept' | 'gone' | 'idTaken' }>

const columns = {
  id: registerEntry.id,
  memberId: registerEntry.memberId,
  lineId: registerEntry.lineId,
  typeId: registerEntry.typeId,
  type: bikeType.definition,
  purpose: registerEntry.purpose,
  source: registerEntry.source,
  certainty: registerEntry.certainty,
  marks: registerEntry.marks,
  bikeId: registerEntry.bikeId,
  bikeNumber: bike.number,
  machineCalibration: registerEntry.machineCalibration,
  soleMm: registerEntry.soleMm,
  pedal: registerEntry.pedal,
  meant: registerEntry.meant,
  basis: registerEntry.basis,
  setupId: registerEntry.setupId,
  fromId: registerEntry.fromId,
  sinceAt: registerEntry.sinceAt,
  createdAt: registerEntry.createdAt,
  createdBy: user.name,
  awaitsConfirmation: registerEntry.awaitsConfirmation,
}

const entries = (db: DbExecutor) =>
  db
    .select(columns)
    .from(registerEntry)
    .innerJoin(bikeType, eq(bikeType.id, registerEntry.typeId))
    .innerJoin(user, eq(user.id, registerEntry.createdBy))
    .leftJoin(bike, eq(bike.id, registerEntry.bikeId))

const asEntry = ({ soleMm, pedal, ...row }: Awaited<ReturnType<typeof entries>>[number]): RegisterEntry => ({
  ...row,
  footwear: { ...(soleMm !== null && { soleMm }), ...(pedal && { pedal }) },
})

/**
 * Adds numbers to the register within the caller's transaction: they are in force from now on for their rider, type and
 * purpose. Idempotent by id and content. The time of an entry is at least that of the entry before it, also with a
 * clock that runs backwards.
 */
export async function recordEntry(tx: DbExecutor, scope: Scope, entry: NewEntry, now: Date): Promise<EntryResult> {
  const { memberId, lineId, purpose, footwear = {}, ...rest } = entry
  const [owner] = await tx
    .select({ latestEntryId: member.latestEntryId })
    .from(member)
    .where(and(eq(member.id, memberId), eq(member.studioId, scope.studioId)))
    .for('update')
  if (!owner) return { outcome: 'gone' }
  const [already] = await tx.select().from(registerEntry).where(eq(registerEntry.id, entry.id))
  if (already) {
    const { marks, typeId, studioId } = already
    const same = sameContent(
      { marks, typeId, studioId, memberId: already.memberId, purpose: already.purpose },
      { marks: entry.marks, typeId: entry.typeId, studioId: scope.studioId, memberId, purpose },
    )
    return { outcome: same ? 'kept' : 'idTaken' }
  }
  const ofSet = and(
    eq(registerCurrent.memberId, memberId),
    eq(registerCurrent.lineId, lineId),
    eq(registerCurrent.purpose, purpose),
  )
  const [before] = await tx
    .select({ marks: registerEntry.marks, typeId: registerEntry.typeId, sinceAt: registerEntry.sinceAt })
    .from(registerCurrent)
    .innerJoin(registerEntry, eq(registerEntry.id, registerCurrent.entryId))
    .where(ofSet)
  const [last] = await tx
    .select({ at: registerEntry.createdAt })
    .from(registerEntry)
    .where(eq(registerEntry.memberId, memberId))
    .orderBy(desc(registerEntry.createdAt))
    .limit(1)
  const createdAt = last && last.at >= now ? new Date(last.at.getTime() + 1) : now
  const unchanged = before && before.typeId === entry.typeId && sameContent(before.marks, entry.marks)
  await tx.insert(registerEntry).values({
    ...rest,
    basis: entry.basis ?? {},
    memberId,
    lineId,
    purpose,
    studioId: scope.studioId,
    soleMm: footwear.soleMm,
    pedal: footwear.pedal,
    sinceAt: unchanged ? before.sinceAt : createdAt,
    createdAt,
    createdBy: scope.userId,
    awaitsConfirmation: !can(scope, 'confirmNumbers') && can(scope, 'setUpRiders'),
  })
  await tx
    .insert(registerCurrent)
    .values({ memberId, lineId, purpose, studioId: scope.studioId, entryId: entry.id })
    .onDuplicateKeyUpdate({ set: { entryId: entry.id } })
  // What was merely worked out does not come before what a rider was set up to.
  if (!owner.latestEntryId || !WORKED_OUT.includes(entry.source))
    await tx.update(member).set({ latestEntryId: entry.id }).where(eq(member.id, memberId))
  return { outcome: 'kept' }
}

const WORKED_OUT: readonly Source[] = ['translated', 'tape']

/** Prepared once: every page with a rider uses it, and building its text takes as long as the query. */
const prepareCurrent = (db: DbExecutor) =>
  entries(db)
    .innerJoin(registerCurrent, eq(registerCurrent.entryId, registerEntry.id))
    .where(
      and(
        sql`${registerCurrent.memberId} IN (${sql.placeholder('members')})`,
        eq(registerCurrent.studioId, sql.placeholder('studio')),
      ),
    )
    .prepare()
const preparedCurrent = new WeakMap<DbExecutor, ReturnType<typeof prepareCurrent>>()

/** The numbers in force for these riders: one set per type and purpose, latest first. */
export async function currentEntries(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
): Promise<RegisterEntry[]> {
  if (memberIds.length === 0) return []
  const prepared = preparedCurrent.get(db) ?? prepareCurrent(db)
  preparedCurrent.set(db, prepared)
  const found = await prepared.execute({ members: [...memberIds], studio: scope.studioId })
  return ofOneType(found).sort((a, b) => b.createdAt.getTime() - a.createdAt.getTime())
}

/** Entries of one version share its definition: it is compared, and travels to a page, once. */
function ofOneType(found: readonly Parameters<typeof asEntry>[0][]): RegisterEntry[] {
  const types = new Map(found.map(({ typeId, type }) => [typeId, type]))
  return found.map((row) => asEntry({ ...row, type: types.get(row.typeId)! }))
}

/** Usual numbers first, then checked or entered before computed ones, each latest first. */
export const byDisplayPriority = (current: readonly RegisterEntry[]): RegisterEntry[] => {
  const rank = ({ purpose, source }: RegisterEntry) =>
    (purpose === 'usual' ? 0 : 2) + (WORKED_OUT.includes(source) ? 1 : 0)
  return [...current].sort((a, b) => rank(a) - rank(b))
}

/** A page of everything a rider was given, the latest first; `before` is the last entry of the page before. */
export async function listEntries(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  { before, limit = TIMELINE_PAGE }: Readonly<{ before?: string; limit?: number }> = {},
): Promise<RegisterEntry[]> {
  const last = before ? await findEntry(db, scope, before) : null
  const older = last
    ? or(
        lt(registerEntry.createdAt, last.createdAt),
        and(eq(registerEntry.createdAt, last.createdAt), lt(registerEntry.id, last.id)),
      )
    : undefined
  const found = await entries(db)
    .where(and(eq(registerEntry.memberId, memberId), eq(registerEntry.studioId, scope.studioId), older))
    .orderBy(desc(registerEntry.createdAt), desc(registerEntry.id))
    .limit(limit)
  return ofOneType(found)
}
/** So many entries of the time line come at once. */
export const TIMELINE_PAGE = 8

/** One entry, or null where the studio has none of this id. */
export async function findEntry(db: DbExecutor, scope: Scope, id: string): Promise<RegisterEntry | null> {
  const [found] = await entries(db).where(and(eq(registerEntry.id, id), eq(registerEntry.studioId, scope.studioId)))
  return found ? asEntry(found) : null
}

/** Goes back to an earlier set of numbers: an entry of its own, under the caller's id. */
export async function restoreEntry(
  db: Database,
  scope: Scope,
  { id, entryId }: Readonly<{ id: string; entryId: string }>,
  now: Date,
): Promise<EntryResult> {
  return withTransaction(db, async (tx) => {
    const earlier = await findEntry(tx, scope, entryId)
    if (!earlier) return { outcome: 'gone' }
    return recordEntry(tx, scope, { ...newEntryOf(earlier), id, source: 'restored', fromId: entryId }, now)
  })
}

/** What is written again of an entry. */
export function newEntryOf({
  memberId,
  lineId,
  typeId,
  purpose,
  source,
  certainty,
  marks,
  bikeId,
  machineCalibration,
  footwear,
  meant,
}: RegisterEntry): Omit<NewEntry, 'id'> {
  return { memberId, lineId, typeId, purpose, source, certainty, marks, bikeId, machineCalibration, footwear, meant }
}
