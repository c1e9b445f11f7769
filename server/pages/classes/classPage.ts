import { notFound } from 'next/navigation'
import { findClass, type StudioClass } from '../../classes/classes'
import { can, type Permission } from '../../platform/accounts/can'
import { requirePermission, type CurrentUser } from '../../platform/accounts/session'
import { database } from '../../platform/db/connection'
import { isId } from '../../platform/ids'
import { seen } from '../../privacy/accessLog/seen'
import { getStudio, type Studio } from '../../studio/studio'

/** What every page of a class begins with: the user, the class and the studio. */
export type ClassPage = Readonly<{ person: CurrentUser; ofClass: StudioClass; studio: Studio }>

/** Reads a class for a user with this permission; `notFound` where the studio has no such class. */
export async function classPage(id: string, permission: Permission): Promise<ClassPage> {
  const person = await requirePermission(permission)
  const db = database()
  const ofClass = isId(id) ? await findClass(db, person, id) : null
  if (!ofClass) notFound()
  if (can(person, 'seeNotes')) seen(person, 'class', id)
  return { person, ofClass, studio: await getStudio(db, person) }
}
