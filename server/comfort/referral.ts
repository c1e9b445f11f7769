import { eq } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { studio } from '../db/tables/accounts'

/** What is said to a rider who is sent on, in the studio's own words; null goes back to the product's. */
export async function setReferralText(db: DbExecutor, scope: Scope, referral: string | null): Promise<void> {
  await db.update(studio).set({ referral }).where(eq(studio.id, scope.studioId))
}
