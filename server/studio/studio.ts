import { eq } from 'drizzle-orm'
import type { School } from '../../core/school/school'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { studio } from '../db/tables/accounts'

export type Studio = Readonly<{ id: string; name: string; place: string; timeZone: string; school: Partial<School> }>

/** The studio of a scope. Throws when there is none: the database was never seeded. */
export async function getStudio(db: DbExecutor, scope: Scope): Promise<Studio> {
  const [found] = await db.select().from(studio).where(eq(studio.id, scope.studioId))
  if (!found) throw new Error('There is no such studio in the database.')
  return found
}

/** Whether the database answers and was seeded; for the health check, which nobody is signed in for. */
export async function isSeeded(db: DbExecutor): Promise<boolean> {
  return (await db.select({ id: studio.id }).from(studio).limit(1)).length > 0
}
