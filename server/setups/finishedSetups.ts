import { and, desc, eq, gt, isNotNull, lte } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { member } from '../riders/tables'
import { setup } from './tables'

/**
 * Riders whose numbers were saved on a bike within a span, ends included: what a bike that changed in it puts in
 * doubt.
 */
export async function listSetupsBetween(
  db: DbExecutor,
  scope: Scope,
  bikeId: string,
  from: Date,
  to: Date,
): Promise<Readonly<{ memberId: string; name: string; at: Date }>[]> {
  const rows = await db
    .select({ memberId: member.id, name: member.name, at: setup.finishedAt })
    .from(setup)
    .innerJoin(member, eq(member.id, setup.memberId))
    .where(
      and(
        eq(setup.bikeId, bikeId),
        eq(setup.studioId, scope.studioId),
        isNotNull(setup.finishedAt),
        gt(setup.finishedAt, from),
        lte(setup.finishedAt, to),
      ),
    )
    .orderBy(desc(setup.finishedAt))
  return rows.map((r) => ({ ...r, at: r.at! }))
}
