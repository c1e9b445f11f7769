import { and, asc, desc, eq, inArray, like, or, type SQL } from 'drizzle-orm'
import type { Refusal } from '../../../core/messages/refusals'
import type { Scope } from '../../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { isDuplicate } from '../../platform/db/errors'
import { sameContent } from '../../platform/db/sameContent'
import { member, memberMerge } from '../tables'
import { normalizeName } from './normalizeName'
import { addWords, replaceWords } from './words'

export type Member = Readonly<{ id: string; name: string }>
/** A member's record, without measurements and observations. */
export type MemberRecord = Member & Readonly<{ number: string | null; email: string | null; statureMm: number | null }>
/** Maximum length of a name. */
export const MAX_NAME_LENGTH = 120
/** The first members by name that contain every typed word. */
export async function findMembers(db: DbExecutor, scope: Scope, typed: string, limit: number): Promise<Member[]> {
  return db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(nameMatches(scope, typed))
    .orderBy(asc(member.name), asc(member.id))
    .limit(limit)
}

/**
 * The name contains every typed word, or the text is the member's number; accents and capitals do not count, as the
 * database's collation compares.
 */
export function nameMatches(scope: Scope, typed: string): SQL | undefined {
  const words = typed.trim().split(/\s+/).filter(Boolean).slice(0, 6)
  const named = and(...words.map((word) => like(member.name, `%${word.replaceAll(/[\\%_]/g, '\\$&')}%`)))
  return and(
    eq(member.studioId, scope.studioId),
    words.length > 0 ? or(named, eq(member.number, typed.trim())) : undefined,
  )
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
  /** The id belongs to a member of this name already; empty where that is none of the studio's. */
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

/** A name as typed, as it is stored; or why it cannot be. */
export function checkName(typed: string): string | Refusal {
  const name = normalizeName(typed)
  if (name === '') return { code: 'noName' }
  return name.length > MAX_NAME_LENGTH ? { code: 'nameTooLong', maxLength: MAX_NAME_LENGTH } : name
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
      const values = { id: from.id, name: to.name, number: to.number, email: to.email, statureMm: to.statureMm }
      if (sameContent(now, values)) return { outcome: 'kept' }
      if (!sameContent(now, from)) return { outcome: 'changed' }
      await tx.update(member).set(values).where(own)
      if (to.name !== from.name) await replaceWords(tx, scope, values)
      return { outcome: 'kept' }
    })
  } catch (error) {
    if (isDuplicate(error, 'member_number')) return { outcome: 'numberTaken' }
    throw error
  }
}

/** Members of one query by name. */
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

/** The member that one of this id was merged into; null where nobody was. */
export async function mergedInto(db: DbExecutor, scope: Scope, id: string): Promise<string | null> {
  const [found] = await db
    .select({ memberId: memberMerge.memberId })
    .from(memberMerge)
    .where(and(eq(memberMerge.id, id), eq(memberMerge.studioId, scope.studioId)))
  return found?.memberId ?? null
}
