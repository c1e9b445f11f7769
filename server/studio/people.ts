import { asc, eq } from 'drizzle-orm'
import { can } from '../accounts/can'
import type { Role } from '../db/roles'
import type { Scope } from '../accounts/scope'
import type { DbExecutor } from '../db/connection'
import { user } from '../db/tables/accounts'

/** Somebody who works in the studio. */
export type Person = Readonly<{ id: string; name: string; role: Role }>

/** Who works in the studio, by name. */
export const listPeople = (db: DbExecutor, { studioId }: Scope): Promise<Person[]> =>
  db
    .select({ id: user.id, name: user.name, role: user.role })
    .from(user)
    .where(eq(user.studioId, studioId))
    .orderBy(asc(user.name), asc(user.id))

/** Who may teach a class, and see what is noted in it. */
export const listTeachers = async (db: DbExecutor, scope: Scope): Promise<Person[]> =>
  (await listPeople(db, scope)).filter((person) => can(person, 'writeNotes'))
