import type { School } from '../../core/school/school'
import type { DbExecutor } from '../db/connection'
import { studio } from '../db/schema'

export type Studio = Readonly<{ id: string; name: string; place: string; timeZone: string; school: Partial<School> }>

/** The studio this installation serves. Throws when the database was never seeded. */
export async function getStudio(db: DbExecutor): Promise<Studio> {
  const [found] = await db.select().from(studio).limit(1)
  if (!found) throw new Error('There is no studio in the database yet.')
  return found
}
