import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { isWhole, limitEffects, SINGLE, type Limit, type LimitEffects } from '../../core/riders/limits/limits'
import { studioDay } from '../../core/messages/words/dates'
import type { Scope } from '../platform/accounts/scope'
import { studio } from '../platform/accounts/tables'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { sealRow } from '../platform/sealing/sealed'
import { member, riderLimit } from './tables'

/** A limit that was not ended. */
export type StoredLimit = Readonly<{ id: string; memberId: string; limit: Limit }>

/** Today on the studio's clock, YYYY-MM-DD. */
export async function todayOf(db: DbExecutor, scope: Scope, now: Date): Promise<string> {
  const [{ timeZone }] = await db
    .select({ timeZone: studio.timeZone })
    .from(studio)
    .where(eq(studio.id, scope.studioId))
  return studioDay(now, timeZone)
}

/** The limits of these members that were not ended, the oldest first. */
export async function listLimits(db: DbExecutor, scope: Scope, memberIds: readonly string[]): Promise<StoredLimit[]> {
  if (memberIds.length === 0) return []
  const stored = await db
    .select({ id: riderLimit.id, memberId: riderLimit.memberId, limit: riderLimit.body })
    .from(riderLimit)
    .where(
      and(
        inArray(riderLimit.memberId, [...memberIds]),
        eq(riderLimit.studioId, scope.studioId),
        isNull(riderLimit.endedAt),
      ),
    )
    .orderBy(asc(riderLimit.createdAt), asc(riderLimit.id))
  return stored.filter(({ limit }) => isWhole(limit))
}

/** What the limits of these members change today, by member; members without any are absent. */
export async function effectsOfLimits(
  db: DbExecutor,
  scope: Scope,
  memberIds: readonly string[],
  now: Date,
): Promise<ReadonlyMap<string, LimitEffects>> {
  const stored = await listLimits(db, scope, memberIds)
  if (stored.length === 0) return new Map()
  const today = await todayOf(db, scope, now)
  const of = (memberId: string) => stored.filter((one) => one.memberId === memberId).map(({ limit }) => limit)
  return new Map([...new Set(stored.map(({ memberId }) => memberId))].map((id) => [id, limitEffects(of(id), today)]))
}

/**
 * Records a limit within the caller's transaction; of a kind that a rider has once, the one before ends. Idempotent by
 * id and content. `gone`: the studio has no such member.
 */
export async function recordLimit(
  tx: DbExecutor,
  scope: Scope,
  { id, memberId, limit }: StoredLimit,
  now: Date,
): Promise<WriteResult | Readonly<{ outcome: 'gone' }>> {
  const { studioId, userId } = scope
  const own = and(eq(member.id, memberId), eq(member.studioId, studioId))
  const [found] = await tx.select({ id: member.id }).from(member).where(own).for('update')
  if (!found) return { outcome: 'gone' }
  const stored = {
    id: riderLimit.id,
    studioId: riderLimit.studioId,
    memberId: riderLimit.memberId,
    body: riderLimit.body,
  }
  const [before] = await tx.select({ id: riderLimit.id }).from(riderLimit).where(eq(riderLimit.id, id))
  if (!before && SINGLE.includes(limit.kind)) {
    const replaced = (await listLimits(tx, scope, [memberId])).filter((one) => one.limit.kind === limit.kind)
    for (const one of replaced) await endLimit(tx, scope, one, now)
  }
  const content = { id, studioId, memberId, body: limit }
  return insertOnce(
    () =>
      tx
        .insert(riderLimit)
        .values(sealRow(riderLimit, studioId, { ...content, kind: limit.kind, createdAt: now, createdBy: userId })),
    async () => (await tx.select(stored).from(riderLimit).where(eq(riderLimit.id, id)))[0],
    content,
  )
}

/** Ends a limit; ended twice it stays as it was. */
export async function endLimit(
  db: DbExecutor,
  scope: Scope,
  { id, memberId }: Readonly<{ id: string; memberId: string }>,
  now: Date,
): Promise<void> {
  await db
    .update(riderLimit)
    .set({ endedAt: now, endedBy: scope.userId })
    .where(
      and(
        eq(riderLimit.id, id),
        eq(riderLimit.memberId, memberId),
        eq(riderLimit.studioId, scope.studioId),
        isNull(riderLimit.endedAt),
      ),
    )
}

/** Takes back the end of a limit. */
export async function reopenLimit(
  db: DbExecutor,
  scope: Scope,
  { id, memberId }: Readonly<{ id: string; memberId: string }>,
): Promise<void> {
  await db
    .update(riderLimit)
    .set({ endedAt: null, endedBy: null })
    .where(and(eq(riderLimit.id, id), eq(riderLimit.memberId, memberId), eq(riderLimit.studioId, scope.studioId)))
}
