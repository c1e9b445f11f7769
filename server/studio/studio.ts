import { eq } from 'drizzle-orm'
import { cache } from 'react'
import type { Costs } from '../../core/setups/recommend/request/questionCosts'
import type { StudioSettings } from '../../core/operations/requests/studioSettings'
import type { School } from '../../core/base/school/school'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { studio } from '../platform/accounts/tables'
import type { StudioFacts } from './studioFacts'

export type Studio = Readonly<{
  id: string
  name: string
  place: string
  timeZone: string
  school: Partial<School>
  costs: Costs | null
  learns: boolean
  /** The studio's own words to a referred rider; null for the product's. */
  referral: string | null
  /** Whether riders may set a machine up alone by its code. */
  ridersAlone: boolean
}>

/** The studio of a scope, read once a page. Throws when there is none: the database was never seeded. */
export const getStudio = cache(async (db: DbExecutor, scope: Pick<Scope, 'studioId'>): Promise<Studio> => {
  const [found] = await db.select().from(studio).where(eq(studio.id, scope.studioId))
  if (!found) throw new Error('There is no such studio in the database.')
  return found
})

/** Changes how the studio sets up riders, from now on; set-ups saved before stay unchanged. */
export async function changeStudio(db: DbExecutor, scope: Scope, settings: StudioSettings): Promise<void> {
  await db.update(studio).set(settings).where(eq(studio.id, scope.studioId))
}

/** Changes what the studio is called and where it is. */
export async function changeStudioFacts(db: DbExecutor, scope: Scope, facts: StudioFacts): Promise<void> {
  await db.update(studio).set(facts).where(eq(studio.id, scope.studioId))
}

/** Lets riders set machines up alone by their codes, or no longer. */
export async function allowRidersAlone(db: DbExecutor, scope: Scope, allowed: boolean): Promise<void> {
  await db.update(studio).set({ ridersAlone: allowed }).where(eq(studio.id, scope.studioId))
}

/** Whether the database answers and has its tables; for the health check, which nobody is signed in for. */
export async function answers(db: DbExecutor): Promise<boolean> {
  await db.select({ id: studio.id }).from(studio).limit(1)
  return true
}
