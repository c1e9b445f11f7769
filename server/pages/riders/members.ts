import { can } from '../../platform/accounts/can'
import { getStudio } from '../../studio/studio'
import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { setup } from '../../setups/tables'
import { member } from '../../riders/tables'
import { Numbers, latestNumbers } from '../../setups/latestNumbers'
import { nameMatches, Member } from '../../riders/members/members'

/** A member with the latest saved numbers, if any, and a set-up still open. */
export type MemberInList = Member & Readonly<{ numbers: Numbers | null; openSetupId: string | null }>

/** Members on one page of the list. */
export const PAGE_SIZE = 40

export type MemberSearch = Readonly<{ typed: string; withoutNumbers: boolean; page: number }>
export type MemberCounts = Readonly<{ all: number; withoutNumbers: number }>
export type MemberPage = Readonly<{
  timeZone: string
  mayImport: boolean
  /** Whether this person may take in a rider's own file. */
  mayBringIn: boolean
  members: readonly MemberInList[]
  total: number
  page: number
  pages: number
  counts: MemberCounts
}>

/**
 * One page of a studio's members by name: of those whose name contains every typed word, on request only those without
 * numbers.
 */
export async function searchMembers(db: DbExecutor, scope: Scope, search: MemberSearch): Promise<MemberPage> {
  const filter = and(nameMatches(scope, search.typed), search.withoutNumbers ? isNull(member.latestEntryId) : undefined)
  const counts = await countMembers(db, scope)
  const unfiltered = search.withoutNumbers ? counts.withoutNumbers : counts.all
  const total =
    search.typed.trim() === '' ? unfiltered : (await db.select({ total: count() }).from(member).where(filter))[0].total
  const pages = Math.max(1, Math.ceil(total / PAGE_SIZE))
  const page = Math.min(pages, Math.max(1, search.page))
  const found = await db
    .select({ id: member.id, name: member.name })
    .from(member)
    .where(filter)
    .orderBy(asc(member.name), asc(member.id))
    .limit(PAGE_SIZE)
    .offset((page - 1) * PAGE_SIZE)
  const ids = found.map((m) => m.id)
  const [numbers, open] = [await latestNumbers(db, scope, ids), await openSetups(db, scope, ids)]
  return {
    timeZone: (await getStudio(db, scope)).timeZone,
    mayImport: can(scope, 'manageStudio'),
    mayBringIn: can(scope, 'setUpRiders'),
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

async function openSetups(db: DbExecutor, scope: Scope, memberIds: readonly string[]): Promise<Map<string, string>> {
  if (memberIds.length === 0) return new Map()
  const rows = await db
    .select({ memberId: setup.memberId, id: setup.id })
    .from(setup)
    .where(and(inArray(setup.memberId, [...memberIds]), eq(setup.studioId, scope.studioId), isNull(setup.finishedAt)))
    .orderBy(asc(setup.startedAt))
  return new Map(rows.map((row) => [row.memberId, row.id]))
}
