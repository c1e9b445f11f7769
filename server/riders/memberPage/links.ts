import { createHash, createHmac } from 'node:crypto'
import { and, desc, eq, gt, isNull } from 'drizzle-orm'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../../platform/db/connection'
import { memberLink, type LINK_OPENS } from './tables'
import { member } from '../tables'

/** A link lasts so long unless it is taken back. */
const LASTS_MS = 365 * 86_400_000

/** Numbers alone, or what was noted, felt and tried as well. */
export type LinkOpens = (typeof LINK_OPENS)[number]

/** A valid link, with the token of its address. */
export type MemberLink = Readonly<{ id: string; token: string; opens: LinkOpens; expiresAt: Date }>

/** Whose page a link opens: a studio and a member of it, nobody signed in. */
export type LinkOwner = Readonly<{ linkId: string; studioId: string; memberId: string; name: string; opens: LinkOpens }>

/**
 * The token of the address: 256 bits derived from the link's id and a secret of this installation. The database
 * stores its fingerprint alone: a copy of the database opens no page.
 */
function tokenOf(id: string): string {
  const secret = process.env.BETTER_AUTH_SECRET
  if (!secret) throw new Error('BETTER_AUTH_SECRET is not set')
  return createHmac('sha256', secret).update(`member-link ${id}`).digest('base64url')
}
const fingerprint = (token: string): string => createHash('sha256').update(token).digest('hex')

/**
 * The member's valid link, or null; the latest where there are several. Null as well for a user without
 * notes: the page behind a link shows them.
 */
export async function findLink(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<MemberLink | null> {
  return can(scope, 'seeNotes') ? latestLink(db, scope, memberId, now) : null
}

async function latestLink(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<MemberLink | null> {
  const [found] = await db
    .select({ id: memberLink.id, opens: memberLink.opens, expiresAt: memberLink.expiresAt })
    .from(memberLink)
    .where(
      and(
        eq(memberLink.memberId, memberId),
        eq(memberLink.studioId, scope.studioId),
        isNull(memberLink.revokedAt),
        gt(memberLink.expiresAt, now),
      ),
    )
    .orderBy(desc(memberLink.createdAt))
    .limit(1)
  return found ? { ...found, token: tokenOf(found.id) } : null
}

/**
 * The member's valid link, made where there is none; null where the studio has no such member, or the user may
 * not see what it opens.
 */
export async function openLink(db: Database, scope: Scope, memberId: string, now: Date): Promise<MemberLink | null> {
  if (!can(scope, 'seeNotes')) return null
  return withTransaction(db, async (tx) => {
    const [owner] = await tx
      .select({ id: member.id })
      .from(member)
      .where(and(eq(member.id, memberId), eq(member.studioId, scope.studioId)))
      .for('update')
    if (!owner) return null
    const there = await latestLink(tx, scope, memberId, now)
    if (there?.opens === 'everything') return there
    const id = crypto.randomUUID()
    const token = tokenOf(id)
    const expiresAt = new Date(now.getTime() + LASTS_MS)
    await tx.insert(memberLink).values({
      id,
      studioId: scope.studioId,
      memberId,
      tokenHash: fingerprint(token),
      expiresAt,
      createdAt: now,
      createdBy: scope.userId,
    })
    return { id, token, opens: 'everything', expiresAt }
  })
}

/** Takes every link of a member back: from now on none of them opens. */
export async function revokeLinks(db: DbExecutor, scope: Scope, memberId: string, now: Date): Promise<void> {
  await db
    .update(memberLink)
    .set({ revokedAt: now })
    .where(
      and(eq(memberLink.memberId, memberId), eq(memberLink.studioId, scope.studioId), isNull(memberLink.revokedAt)),
    )
}

/** Whose page a token opens now; null for one that is unknown, taken back or too old, without saying which. */
export async function ownerOf(db: DbExecutor, token: string, now: Date): Promise<LinkOwner | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const [found] = await db
    .select({
      linkId: memberLink.id,
      studioId: memberLink.studioId,
      memberId: member.id,
      name: member.name,
      opens: memberLink.opens,
    })
    .from(memberLink)
    .innerJoin(member, eq(member.id, memberLink.memberId))
    .where(
      and(eq(memberLink.tokenHash, fingerprint(token)), isNull(memberLink.revokedAt), gt(memberLink.expiresAt, now)),
    )
  return found ?? null
}
