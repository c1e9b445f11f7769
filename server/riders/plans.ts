import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { isRecurring, isWholePlan, SINGLE_PLANS, type Plan } from '../../core/riders/plans/plan'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { insertOnce, type WriteResult } from '../platform/db/insertOnce'
import { sealRow } from '../platform/sealing/sealed'
import { member, riderPlan } from './tables'

/** A plan to record, by its client-made id. */
export type NewPlan = Readonly<{ id: string; memberId: string; plan: Plan }>
/** A plan that was neither done nor dropped; `lookedAt` is the latest look of one that recurs. */
export type StoredPlan = NewPlan & Readonly<{ createdAt: Date; lookedAt: Date | null }>

const ofStudio = (scope: Scope, { id, memberId }: Readonly<{ id: string; memberId: string }>) =>
  and(eq(riderPlan.id, id), eq(riderPlan.memberId, memberId), eq(riderPlan.studioId, scope.studioId))

/** The plans of these members that were not ended, the oldest first. */
export async function listPlans(db: DbExecutor, scope: Scope, memberIds: readonly string[]): Promise<StoredPlan[]> {
  if (memberIds.length === 0) return []
  const stored = await db
    .select({
      id: riderPlan.id,
      memberId: riderPlan.memberId,
      plan: riderPlan.body,
      createdAt: riderPlan.createdAt,
      lookedAt: riderPlan.lookedAt,
    })
    .from(riderPlan)
    .where(
      and(
        inArray(riderPlan.memberId, [...memberIds]),
        eq(riderPlan.studioId, scope.studioId),
        isNull(riderPlan.endedAt),
      ),
    )
    .orderBy(asc(riderPlan.createdAt), asc(riderPlan.id))
  return stored.filter(({ plan }) => isWholePlan(plan))
}

/**
 * Records a plan within the caller's transaction; of a kind that a rider has once (a starter once a type), the one
 * before ends. Idempotent by id and content. `gone`: the studio has no such member.
 */
export async function recordPlan(
  tx: DbExecutor,
  scope: Scope,
  { id, memberId, plan }: NewPlan,
  now: Date,
): Promise<WriteResult | Readonly<{ outcome: 'gone' }>> {
  const { studioId, userId } = scope
  const [found] = await tx
    .select({ id: member.id })
    .from(member)
    .where(and(eq(member.id, memberId), eq(member.studioId, studioId)))
    .for('update')
  if (!found) return { outcome: 'gone' }
  const stored = { id: riderPlan.id, studioId: riderPlan.studioId, memberId: riderPlan.memberId, body: riderPlan.body }
  const [before] = await tx.select({ id: riderPlan.id }).from(riderPlan).where(eq(riderPlan.id, id))
  if (!before && SINGLE_PLANS.includes(plan.kind)) {
    const replaced = (await listPlans(tx, scope, [memberId])).filter(
      (one) => one.plan.kind === plan.kind && one.plan.lineId === plan.lineId,
    )
    for (const one of replaced) await endPlan(tx, scope, one, now)
  }
  const content = { id, studioId, memberId, body: plan }
  return insertOnce(
    () =>
      tx
        .insert(riderPlan)
        .values(sealRow(riderPlan, studioId, { ...content, kind: plan.kind, createdAt: now, createdBy: userId })),
    async () => (await tx.select(stored).from(riderPlan).where(eq(riderPlan.id, id)))[0],
    content,
  )
}

/** Ticks a plan: a recurring one restarts from now, any other ends. Without a plan of this id nothing changes. */
export async function tickPlan(
  tx: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
  now: Date,
): Promise<void> {
  const found = (await listPlans(tx, scope, [of.memberId])).find(({ id }) => id === of.id)
  if (!found) return
  if (!isRecurring(found.plan.kind)) return endPlan(tx, scope, of, now)
  await tx.update(riderPlan).set({ lookedAt: now }).where(ofStudio(scope, of))
}

/** Ends a plan, done or dropped; ended twice it stays as it was. */
export async function endPlan(
  db: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
  now: Date,
): Promise<void> {
  await db
    .update(riderPlan)
    .set({ endedAt: now, endedBy: scope.userId })
    .where(and(ofStudio(scope, of), isNull(riderPlan.endedAt)))
}

/** Takes back the tick or the end of a plan: it is due as it was. */
export async function reopenPlan(
  db: DbExecutor,
  scope: Scope,
  of: Readonly<{ id: string; memberId: string }>,
): Promise<void> {
  await db.update(riderPlan).set({ lookedAt: null, endedAt: null, endedBy: null }).where(ofStudio(scope, of))
}
