import { notFound } from 'next/navigation'
import { requirePermission, type CurrentUser } from '@/server/accounts/session'
import { can, type Permission } from '@/server/accounts/can'
import { findClass, type StudioClass } from '@/server/classes/classes'
import { whenOf } from '@/server/classes/classInfo'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { formatDay, studioDay } from '@/server/studio/day'
import { getStudio, type Studio } from '@/server/studio/studio'
import type { ClassInfo } from './classTypes'

/** What every page of a class begins with: who looks, the class, the studio; not found where there is none. */
export async function classPage(
  id: string,
  permission: Permission,
): Promise<Readonly<{ person: CurrentUser; ofClass: StudioClass; info: ClassInfo; studio: Studio }>> {
  const person = await requirePermission(permission)
  const db = database()
  const ofClass = isId(id) ? await findClass(db, person, id) : null
  if (!ofClass) notFound()
  const studio = await getStudio(db, person)
  const { title, startsAt, endsAt, roomName, openDay, cancelledAt, teacher, hands, doorsMin, blocks } = ofClass
  const info: ClassInfo = {
    id,
    title,
    day: formatDay(studioDay(startsAt, studio.timeZone)),
    span: whenOf(ofClass, studio.timeZone).span,
    timeZone: studio.timeZone,
    startMs: startsAt.getTime(),
    endMs: endsAt.getTime(),
    roomName,
    open: openDay !== null,
    cancelled: cancelledAt !== null,
    teacher,
    mayEdit: openDay === null && can(person, 'planClasses'),
    hands,
    doorsMin,
    blocks: blocks ?? [],
  }
  return { person, ofClass, info, studio }
}
