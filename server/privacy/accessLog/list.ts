import { and, desc, eq, gte, inArray, lt, type SQL } from 'drizzle-orm'
import { STRANGER_TEXT } from '../../../core/messages/studio/accessLog'
import { user } from '../../platform/accounts/tables'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { studioClass } from '../../classes/rooms/tables'
import { member } from '../../riders/tables'
import { accessLog, type ACCESS_KINDS } from './tables'

export type AccessKind = (typeof ACCESS_KINDS)[number]

/** Which entries: of one person, about one member, of one kind, from a day on, older than an entry. */
export type AccessFilter = Readonly<
  Partial<{ actor: string; subject: string; kind: AccessKind; from: Date; to: Date; before: number }>
>

/** An entry with present names; null for a deleted or erased person. */
export type NamedAccess = Readonly<{
  position: number
  at: Date
  kind: AccessKind
  what: string
  actor: string | null
  /** By the member's own page, or the program itself. */
  isOwnPage: boolean
  /** By somebody who is not signed in. */
  isStranger: boolean
  subject: Readonly<{ kind: 'member' | 'class' | 'person' | 'gone'; id: string; name: string | null }> | null
}>

export const ACCESS_PAGE = 100

/** Entries of a studio, the latest first: a page, and whether there are older ones. */
export async function listAccess(
  db: DbExecutor,
  { studioId }: Pick<Scope, 'studioId'>,
  { actor, subject, kind, from, to, before }: AccessFilter,
): Promise<Readonly<{ entries: readonly NamedAccess[]; more: boolean }>> {
  const conditions: (SQL | undefined)[] = [
    eq(accessLog.studioId, studioId),
    actor === undefined ? undefined : eq(accessLog.actor, actor),
    subject === undefined ? undefined : eq(accessLog.subject, subject),
    kind && eq(accessLog.kind, kind),
    from && gte(accessLog.at, from),
    to && lt(accessLog.at, to),
    before === undefined ? undefined : lt(accessLog.position, before),
  ]
  const found = await db
    .select()
    .from(accessLog)
    .where(and(...conditions))
    .orderBy(desc(accessLog.position))
    .limit(ACCESS_PAGE + 1)
  const rows = found.slice(0, ACCESS_PAGE)
  const names = await namesOf(db, studioId, rows)
  return {
    more: found.length > ACCESS_PAGE,
    entries: rows.map((row) => ({
      position: row.position,
      at: row.at,
      kind: row.kind,
      what: row.what,
      actor: row.actor === null ? null : (names.people.get(row.actor) ?? null),
      isOwnPage: row.actor === null && !Object.hasOwn(STRANGER_TEXT, row.what),
      isStranger: Object.hasOwn(STRANGER_TEXT, row.what),
      subject: row.subject === null ? null : subjectOf(row.subject, names),
    })),
  }
}

type Names = Awaited<ReturnType<typeof namesOf>>

function subjectOf(id: string, { members, classes, people }: Names): NamedAccess['subject'] {
  if (members.has(id)) return { kind: 'member', id, name: members.get(id)! }
  if (classes.has(id)) return { kind: 'class', id, name: classes.get(id)! }
  return people.has(id) ? { kind: 'person', id, name: people.get(id)! } : { kind: 'gone', id, name: null }
}

async function namesOf(
  db: DbExecutor,
  studioId: string,
  rows: readonly Readonly<{ actor: string | null; subject: string | null }>[],
) {
  const ids = [...new Set(rows.flatMap(({ actor, subject }) => [actor, subject]).filter((id) => id !== null)), '']
  const [members, classes, people] = [
    await db
      .select({ id: member.id, name: member.name })
      .from(member)
      .where(and(eq(member.studioId, studioId), inArray(member.id, ids))),
    await db
      .select({ id: studioClass.id, name: studioClass.title })
      .from(studioClass)
      .where(and(eq(studioClass.studioId, studioId), inArray(studioClass.id, ids))),
    await db
      .select({ id: user.id, name: user.name })
      .from(user)
      .where(and(eq(user.studioId, studioId), inArray(user.id, ids))),
  ]
  const byId = (all: readonly Readonly<{ id: string; name: string }>[]) =>
    new Map(all.map(({ id, name }) => [id, name]))
  return { members: byId(members), classes: byId(classes), people: byId(people) }
}
