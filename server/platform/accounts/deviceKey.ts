import { randomBytes } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import type { Scope } from './scope'
import { userSecret } from './tables'

/**
 * The key that locks what waits on a person's devices: 32 random bytes, base64, made the first time and the same from
 * then on. It is sent to their own session alone.
 */
export async function deviceKeyOf(db: DbExecutor, { userId }: Pick<Scope, 'userId'>): Promise<string> {
  const stored = await readKey(db, userId)
  if (stored) return stored
  // Two devices at once: the first one's key counts.
  const deviceKey = randomBytes(32).toString('base64')
  await db
    .insert(userSecret)
    .values({ userId, deviceKey })
    .onDuplicateKeyUpdate({ set: { deviceKey: sql`coalesce(${userSecret.deviceKey}, ${deviceKey})` } })
  return (await readKey(db, userId))!
}

async function readKey(db: DbExecutor, userId: string): Promise<string | null> {
  const [found] = await db.select({ key: userSecret.deviceKey }).from(userSecret).where(eq(userSecret.userId, userId))
  return found?.key ?? null
}
