import { createHash } from 'node:crypto'
import { and, desc, eq, isNull } from 'drizzle-orm'
import type { DbExecutor } from '../db/connection'
import { insertOnce } from '../db/insertOnce'
import { currentUser } from './session'
import type { Scope } from './scope'
import { apiKey, KEY_SCOPES, user } from './tables'

/** What a key may do: compute alone, or as well what the desk or an instructor may. */
export type KeyScope = (typeof KEY_SCOPES)[number]
export type StoredKey = Readonly<{
  id: string
  name: string
  scope: KeyScope
  createdAt: Date
  usedAt: Date | null
}>
type NewKey = Readonly<{ id: string; name: string; scope: KeyScope; keyHash: string }>

/** The use of a key is noted at most so often, ms. */
const NOTED_EVERY_MS = 60_000
const BEARER = /^Bearer (\S{20,200})$/

/** Makes a key and the account of its program. Idempotent by id; `idTaken` where the id or the key is another's. */
export async function makeKey(
  tx: DbExecutor,
  { studioId, userId }: Scope,
  { id, name, scope, keyHash }: NewKey,
  now: Date,
): Promise<'kept' | 'idTaken'> {
  const role = scope === 'instructor' ? 'instructor' : 'desk'
  const program = { id, name, email: `${id}@program.invalid`, studioId, role, isProgram: true } as const
  const content = { id, studioId, userId: id, keyHash, scope }
  const { outcome } = await insertOnce(
    async () => {
      await tx.insert(user).values(program)
      await tx.insert(apiKey).values({ ...content, createdAt: now, createdBy: userId })
    },
    async () => {
      const { studioId: ofStudio, userId: ofUser, keyHash: hash, scope: of } = apiKey
      const stored = { id: apiKey.id, studioId: ofStudio, userId: ofUser, keyHash: hash, scope: of }
      return (await tx.select(stored).from(apiKey).where(eq(apiKey.id, id)))[0]
    },
    content,
  )
  return outcome
}

/** Ends a key; another studio's, or one ended before, stays as it is. */
export async function revokeKey(tx: DbExecutor, { studioId }: Scope, id: string, now: Date): Promise<void> {
  const own = and(eq(apiKey.id, id), eq(apiKey.studioId, studioId), isNull(apiKey.revokedAt))
  const [found] = await tx.select({ userId: apiKey.userId }).from(apiKey).where(own).for('update')
  if (!found) return
  await tx.update(apiKey).set({ revokedAt: now }).where(own)
  await tx.update(user).set({ endedAt: now, updatedAt: now }).where(eq(user.id, found.userId))
}

/** The keys of a studio that were not ended, the latest first. */
export const listKeys = (db: DbExecutor, { studioId }: Scope): Promise<StoredKey[]> =>
  db
    .select({
      id: apiKey.id,
      name: user.name,
      scope: apiKey.scope,
      createdAt: apiKey.createdAt,
      usedAt: apiKey.usedAt,
    })
    .from(apiKey)
    .innerJoin(user, eq(user.id, apiKey.userId))
    .where(and(eq(apiKey.studioId, studioId), isNull(apiKey.revokedAt)))
    .orderBy(desc(apiKey.createdAt))

/** Whose key a request carries, and what it may do; null for none, or one that opens nothing. */
export async function programOf(
  db: DbExecutor,
  headers: Headers,
  now: Date,
): Promise<Readonly<{ scope: Scope; may: KeyScope }> | null> {
  const key = BEARER.exec(headers.get('authorization') ?? '')?.[1]
  if (!key) return null
  const keyHash = createHash('sha256').update(key).digest('hex')
  const [found] = await db
    .select({
      id: apiKey.id,
      studioId: apiKey.studioId,
      userId: apiKey.userId,
      scope: apiKey.scope,
      usedAt: apiKey.usedAt,
      role: user.role,
    })
    .from(apiKey)
    .innerJoin(user, eq(user.id, apiKey.userId))
    .where(and(eq(apiKey.keyHash, keyHash), isNull(apiKey.revokedAt)))
  if (!found) return null
  if (!found.usedAt || now.getTime() - found.usedAt.getTime() > NOTED_EVERY_MS)
    await db.update(apiKey).set({ usedAt: now }).where(eq(apiKey.id, found.id))
  const { studioId, userId, role } = found
  return { scope: { studioId, userId, role }, may: found.scope }
}

/**
 * Who sends a request of the programs' interface: the key's account, else the session's user. `may` is null for a
 * person, whose role alone decides. Null for nobody; a request with an invalid key is nobody's, signed in or not.
 */
export async function callerOf(
  db: DbExecutor,
  request: Request,
  now: Date,
): Promise<Readonly<{ scope: Scope; may: KeyScope | null }> | null> {
  if (request.headers.has('authorization')) return programOf(db, request.headers, now)
  const person = await currentUser()
  return person && { scope: person, may: null }
}
