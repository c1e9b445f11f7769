import { redirect } from 'next/navigation'
import { classInRoom } from '@/server/classes/classes'
import { can } from '@/server/platform/accounts/can'
import { pairedTablet, requireUser } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

/** What a shared tablet opens first: the floor of the class in its room, else Today. */
export default async function TabletRoute() {
  const person = await requireUser()
  const roomId = (await pairedTablet())?.roomId
  const now = roomId && can(person, 'writeNotes') && (await classInRoom(database(), person, roomId, new Date()))
  redirect(now ? `/class/${now}/watch` : '/today')
}
