import { eq } from 'drizzle-orm'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { studio } from '../platform/accounts/tables'

/** The words to a referred rider, in the studio's own words; null restores the product's. */
export async function setReferralText(db: DbExecutor, scope: Scope, referral: string | null): Promise<void> {
  await db.update(studio).set({ referral }).where(eq(studio.id, scope.studioId))
}
