import { and, asc, count, desc, eq, inArray, isNull, like, or, type SQL } from 'drizzle-orm'
import type { BikeType } from '../../core/bike/bike'
import type { Marks } from '../../core/conventions'
import type { Purpose } from '../../core/register/entry'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { isDuplicate } from '../db/errors'
import { sameContent } from '../db/sameContent'
import { bike, bikeType } from '../db/tables/bikes'
import { registerEntry } from '../db/tables/register'
import { member, setup } from '../db/tables/riders'
import { addWords, replaceWords } from './words'

export type Member = Readonly<{ id: string; name: string }>
/** A member's record, without measurements and observations. */
export type MemberRecord = Member & Readonly<{ number: string | null; email: string | null; statureMm: number | null }>
export type Numbers = Readonly<{
  marks: Marks
  purpose: Purpose
  /** Null where they were set on no machine. */
  bikeNumber: number | null
  type: BikeType
  at: Date
}>

/** A member with the latest saved numbers, if any, and a set-up still open. */
export type MemberInList = Member & Readonly<{ numbers: Numbers | null; openSetupId: string | null }>

/** Longest name kept. */
export const MAX_NAME_LENGTH = 120
/** Members on one page of the list. */
export const PAGE_SIZE = 40

export type MemberSearch = Readonly<{ typed: string; withoutNumbers: boolean; page: number }>
export type MemberCounts = Readonly<{ all: number; withoutNumbers: number }>
export type MemberPage = Readonly<{
  members: readonly MemberInList[]
  total: number
  page: number
  pages: number
  counts: MemberCounts
}>

/**
 * One page of a studio's members by name: of those whose name holds every word typed, and where asked without
 * numbers.
 */
export async function searchMembers(db: DbExecutor, scope: Scope, search: MemberSearch): Promise<MemberPage> {
  const wanted = and(nameHolds(scope, search.typed), search.withoutNumbers ? isNull(member.latestEntryId) : undefined)
  const counts = await countMembers(db, scope)
  const known = search.withoutNumbers ? counts.withoutNumbers : counts.all
  const total =
    search.typed.trim() === '' ? known : (await db.select({ total: count() }).from(member).where(wanted))[0].total
  const pages = Math.max(1, Math.ceil(total / PAGE_SIZE))
  const page = Math.min(pages, Math.max(1, search.page))
  const found = await db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(wanted)
    .orderBy(asc(member.name), asc(member.id))
    .limit(PAGE_SIZE)
    .offset((page - 1) * PAGE_SIZE)
  const ids = found.map((m) => m.id)
  const [numbers, open] = [await latestNumbers(db, scope, ids), await openSetups(db, scope, ids)]
  return {
    members: found.map((m) => ({ ...m, numbers: numbers.get(m.id) ?? null, openSetupId: open.get(m.id) ?? null })),
    total,
    page,
    pages,
    counts,
  }
}

/** How many members of a studio there are, and how many of them without numbers. */
async function countMembers(db: DbExecutor, scope: Scope): Promise<MemberCounts> {
  const [found] = await db
    .select({ all: count(), saved: count(member.latestEntryId) })
    .from(member)
    .where(eq(member.studioId, scope.studioId))
  return { all: found.all, withoutNumbers: found.all - found.saved }
}

/** The first members by name that hold every word typed. */
export async function findMembers(db: DbExecutor, scope: Scope, typed: string, limit: number): Promise<Member[]> {
  return db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(nameHolds(scope, typed))
    .orderBy(asc(member.name), asc(member.id))
    .limit(limit)
}

/**
 * The name contains every typed word, or the text is the member's number; accents and capitals do not count, as the
 * database's collation compares.
 */
function nameHolds(scope: Scope, typed: string): SQL | undefined {
  const words = typed.trim().split(/\s+/).filter(Boolean).slice(0, 6)
  const named = and(...words.map((word) => like(member.name, `%${word.replaceAll(/[\\%_]/g, '\\$&')}%`)))
  return and(
    eq(member.studioId, scope.studioId),
    words.length > 0 ? or(named, eq(member.number, typed.trim())) : undefined,
  )
}

/** The latest numbers of each of these members who has any, whatever for. */
export async function latestNumbers(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
): Promise<Map<string, Numbers>> {
  if (memberIds.length === 0) return new Map()
  const rows = await db
    .select({
      memberId: member.id,
      at: registerEntry.createdAt,
      marks: registerEntry.marks,
      purpose: registerEntry.purpose,
      bikeNumber: bike.number,
      type: bikeType.definition,
    })
    .from(member)
    .innerJoin(registerEntry, eq(registerEntry.id, member.latestEntryId))
    .leftJoin(bike, eq(bike.id, registerEntry.bikeId))
    .innerJoin(bikeType, eq(bikeType.id, registerEntry.typeId))
    .where(and(inArray(member.id, [...memberIds]), eq(member.studioId, scope.studioId)))
  return new Map(rows.map(({ memberId, ...numbers }) => [memberId, numbers]))
}

async function openSetups(db: DbExecutor, scope: Scope, memberIds: readonly string[]): Promise<Map<string, string>> {
  if (memberIds.length === 0) return new Map()
  const rows = await db
    .select({ memberId: setup.memberId, id: setup.id })
    .from(setup)
    .where(and(inArray(setup.memberId, [...memberIds]), eq(setup.studioId, scope.studioId), isNull(setup.finishedAt)))
    .orderBy(asc(setup.startedAt))
  return new Map(rows.map((row) => [row.memberId, row.id]))
}

export async function findMember(db: DbExecutor, scope: Scope, id: string): Promise<MemberRecord | null> {
  const { name, number, email, statureMm } = member
  const [found] = await db
    .select({ id: member.id, name, number, email, statureMm })
    .from(member)
    .where(and(eq(member.id, id), eq(member.studioId, scope.studioId)))
  return found ?? null
}

export type AddMemberResult =
  | Readonly<{ outcome: 'kept' }>
  /** The id stands for somebody already, under this name; empty where that is none of the studio's. */
  | Readonly<{ outcome: 'idTaken'; name: string }>

/** Adds a member. The same id again with the same name changes nothing. */
export async function addMember(db: Database, scope: Scope, { id, name }: Member, now: Date): Promise<AddMemberResult> {
  const { studioId, userId } = scope
  try {
    await withTransaction(db, async (tx) => {
      await tx.insert(member).values({ id, studioId, name, createdAt: now, createdBy: userId })
      await addWords(tx, scope, [{ id, name }])
    })
    return { outcome: 'kept' }
  } catch (error) {
    if (!isDuplicate(error)) throw error
    const before = await findMember(db, scope, id)
    return before?.name === name ? { outcome: 'kept' } : { outcome: 'idTaken', name: before?.name ?? '' }
  }
}

/** Corrects a name; false where the member is not called `from` any more (somebody else was faster). */
export async function renameMember(
  db: Database,
  scope: Scope,
  id: string,
  { from, to }: Readonly<{ from: string; to: string }>,
): Promise<boolean> {
  return withTransaction(db, async (tx) => {
    const [{ affectedRows }] = await tx
      .update(member)
      .set({ name: to })
      .where(and(eq(member.id, id), eq(member.studioId, scope.studioId), eq(member.name, from)))
    if (affectedRows > 0) await replaceWords(tx, scope, { id, name: to })
    return (await findMember(tx, scope, id))?.name === to
  })
}

/** `changed`: somebody else changed the member since; `numberTaken`: another member has this number. */
export type MemberChangeResult = Readonly<{ outcome: 'kept' | 'gone' | 'changed' | 'numberTaken' }>

/**
 * Changes a member's record, given the record as it was shown. Sent again it changes nothing; where somebody else
 * was faster, nothing is written.
 */
export async function changeMember(
  db: Database,
  scope: Scope,
  from: MemberRecord,
  to: Omit<MemberRecord, 'id'>,
): Promise<MemberChangeResult> {
  try {
    return await withTransaction(db, async (tx): Promise<MemberChangeResult> => {
      const own = and(eq(member.id, from.id), eq(member.studioId, scope.studioId))
      const [locked] = await tx.select({ id: member.id }).from(member).where(own).for('update')
      const now = locked && (await findMember(tx, scope, from.id))
      if (!now) return { outcome: 'gone' }
      const wanted = { id: from.id, name: to.name, number: to.number, email: to.email, statureMm: to.statureMm }
      if (sameContent(now, wanted)) return { outcome: 'kept' }
      if (!sameContent(now, from)) return { outcome: 'changed' }
      await tx.update(member).set(wanted).where(own)
      if (to.name !== from.name) await replaceWords(tx, scope, wanted)
      return { outcome: 'kept' }
    })
  } catch (error) {
    if (isDuplicate(error, 'member_number')) return { outcome: 'numberTaken' }
    throw error
  }
}

/** Members asked for at once by name. */
const NAMES_AT_ONCE = 500

/** The ids of the members of each of these names, by the name in small letters; nobody's name is not among them. */
export async function membersNamed(
  db: DbExecutor,
  scope: Scope,
  names: readonly string[],
): Promise<ReadonlyMap<string, readonly string[]>> {
  const ids = new Map<string, string[]>()
  const different = [...new Set(names)]
  for (let i = 0; i < different.length; i += NAMES_AT_ONCE) {
    const found = await db
      .select({ id: member.id, name: member.name })
      .from(member)
      .where(and(eq(member.studioId, scope.studioId), inArray(member.name, different.slice(i, i + NAMES_AT_ONCE))))
    for (const { id, name } of found) ids.set(name.toLowerCase(), [...(ids.get(name.toLowerCase()) ?? []), id])
  }
  return ids
}

/** Members of exactly this name, so that one is not added twice unseen. */
export async function findMembersByName(db: DbExecutor, scope: Scope, name: string): Promise<Member[]> {
  return db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(and(eq(member.studioId, scope.studioId), eq(member.name, name)))
    .orderBy(desc(member.createdAt))
    .limit(20)
}
