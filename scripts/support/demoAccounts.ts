import { eq } from 'drizzle-orm'
import { verifyPassword } from '../../server/platform/accounts/hashing'
import type { Role } from '../../server/platform/db/roles'
import type { DbExecutor } from '../../server/platform/db/connection'
import { account, user } from '../../server/platform/accounts/tables'

/** Credentials of a demo account. */
export type DemoAccount = Readonly<{ username: string; password: string }>

/**
 * Demo accounts that can sign in to this database, with their stored roles. A studio created by an earlier version may
 * lack some of them, and passwords may differ.
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
