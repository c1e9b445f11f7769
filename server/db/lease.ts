import { and, eq } from 'drizzle-orm'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from './connection'
import { isDuplicate } from './errors'
import { lease } from './tables/runs'

/** A lease that is not renewed for so long is free: whoever held it is gone, ms. */
const LASTS_MS = 60_000
const RENEW_MS = 15_000

export type Busy = Readonly<{ outcome: 'busy' }>
/** Throws where the lease was lost meanwhile; holds it until the transaction ends. */
export type HoldLease = (tx: DbExecutor) => Promise<void>

/**
 * Work that goes on once a studio at a time: under a lease of its own, so that nothing else of the studio waits.
 * `busy` where somebody else holds it. Whatever becomes of the work, the lease is given back; one whose holder was
 * killed ends by itself. Work that writes asks `hold` before it is done.
 */
export async function withLease<R>(
  db: Database,
  { studioId }: Pick<Scope, 'studioId'>,
  name: string,
  work: (hold: HoldLease) => Promise<R>,
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
    return await work(hold)
  } finally {
    clearInterval(renewing)
    await db
      .delete(lease)
      .where(own)
      .catch(() => undefined)
  }

  async function hold(tx: DbExecutor): Promise<void> {
    const [held] = await tx.select({ holder: lease.holder }).from(lease).where(own).for('update')
    if (!held) throw new Error(`the lease ${name} was lost`)
  }

  function until(): Date {
    return new Date(now().getTime() + LASTS_MS)
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
