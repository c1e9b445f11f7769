import { and, eq } from 'drizzle-orm'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { isDuplicate } from '../db/errors'
import { lease } from './tables'

/** A lease expires this long after its last renewal, ms. */
const TTL_MS = 60_000
const RENEW_MS = 15_000

export type Busy = Readonly<{ outcome: 'busy' }>
/** Locks the lease row until the transaction ends; throws if another holder took the lease. */
export type RenewLease = (tx: DbExecutor) => Promise<void>

/**
 * Runs work under a lease, one holder per studio and name, without locking other rows of the studio. Returns `busy` if
 * another process owns the lease. Renews the lease while the work runs and releases it afterwards; the lease of a
 * killed process expires. Work that writes must call `renew` before its transaction commits.
 */
export async function withLease<R>(
  db: Database,
  { studioId }: Readonly<{ studioId: string }>,
  name: string,
  work: (renew: RenewLease) => Promise<R>,
  now: () => Date = () => new Date(),
): Promise<R | Busy> {
  const holder = crypto.randomUUID()
  const own = and(eq(lease.studioId, studioId), eq(lease.name, name), eq(lease.holder, holder))
  if (!(await take())) return { outcome: 'busy' }
  const renewing = setInterval(() => {
    void db
      .update(lease)
      .set({ until: until() })
      .where(own)
      .catch(() => undefined)
  }, RENEW_MS)
  renewing.unref()
  try {
    return await work(renew)
  } finally {
    clearInterval(renewing)
    await db
      .delete(lease)
      .where(own)
      .catch(() => undefined)
  }

  async function renew(tx: DbExecutor): Promise<void> {
    const [current] = await tx.select({ holder: lease.holder }).from(lease).where(own).for('update')
    if (!current) throw new Error(`the lease ${name} was lost`)
  }

  function until(): Date {
    return new Date(now().getTime() + TTL_MS)
  }

  function take(): Promise<boolean> {
    return withTransaction(db, async (tx) => {
      try {
        await tx.insert(lease).values({ studioId, name, holder, until: until() })
        return true
      } catch (error) {
        if (!isDuplicate(error)) throw error
      }
      const there = and(eq(lease.studioId, studioId), eq(lease.name, name))
      const [other] = await tx.select({ until: lease.until }).from(lease).where(there).for('update')
      if (other && other.until > now()) return false
      await tx.update(lease).set({ holder, until: until() }).where(there)
      return other !== undefined
    })
  }
}
