import { asc, eq } from 'drizzle-orm'
import { can } from '../platform/accounts/can'
import type { Role } from '../platform/db/roles'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { user } from '../platform/accounts/tables'

/** Somebody who works in the studio. */
export type Person = Readonly<{ id: string; name: string; role: Role }>

/** Who works in the studio, by name. */
export const listPeople = (db: DbExecutor, { studioId }: Scope): Promise<Person[]> =>
  db
    .select({ id: user.id, name: user.name, role: user.role })
    .from(user)
    .where(eq(user.studioId, studioId))
    .orderBy(asc(user.name), asc(user.id))

/** Teachers besides the user themselves; none for a user who may not write notes. */
export const listColleagues = async (
  db: DbExecutor,
  scope: Scope,
): Promise<Readonly<{ id: string; name: string }>[]> =>
  can(scope, 'writeNotes')
    ? (await listTeachers(db, scope)).flatMap(({ id, name }) => (id === scope.userId ? [] : [{ id, name }]))
    : []

/** Who may teach a class, and see what is noted in it. */
export const listTeachers = async (db: DbExecutor, scope: Scope): Promise<Person[]> =>
  (await listPeople(db, scope)).filter((person) => can(person, 'writeNotes'))
