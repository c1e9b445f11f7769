import { count, eq } from 'drizzle-orm'
import { session } from '@/server/platform/accounts/tables'
import { database } from '@/server/platform/db/connection'

/** A session of a person, as a sign-in makes it; resolves with its token. */
export async function insertSession(userId: string): Promise<string> {
  const token = crypto.randomUUID()
  const expiresAt = new Date(Date.now() + 86_400_000)
  await database().insert(session).values({ id: crypto.randomUUID(), token, userId, expiresAt })
  return token
}

/** How many sessions a person has. */
export async function currentSessionsOf(userId: string): Promise<number> {
  const [{ n }] = await database().select({ n: count() }).from(session).where(eq(session.userId, userId))
  return n
}
