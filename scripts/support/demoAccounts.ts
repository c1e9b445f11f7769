import { eq } from 'drizzle-orm'
import { verifyPassword } from '../../server/accounts/auth'
import type { Role } from '../../server/accounts/can'
import type { DbExecutor } from '../../server/db/connection'
import { account, user } from '../../server/db/tables/accounts'

/** An account as the demo hands it out. */
export type DemoAccount = Readonly<{ username: string; password: string }>

/**
 * Of the demo's accounts those that open this studio as it is, each with the role it has here: a studio that was begun
 * by an earlier version may lack some, and passwords may have been changed.
 */
export async function accountsThatOpen(
  db: DbExecutor,
  accounts: readonly DemoAccount[],
): Promise<readonly (DemoAccount & Readonly<{ role: Role }>)[]> {
  const found = await Promise.all(
    accounts.map(async ({ username, password }) => {
      const [there] = await db
        .select({ role: user.role, hash: account.password })
        .from(user)
        .innerJoin(account, eq(account.userId, user.id))
        .where(eq(user.username, username))
      const opens = there?.hash && (await verifyPassword(there.hash, password))
      return opens ? { username, password, role: there.role } : null
    }),
  )
  return found.filter((one) => one !== null)
}
