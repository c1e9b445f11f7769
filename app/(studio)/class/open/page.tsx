import { redirect } from 'next/navigation'
import { requirePermission } from '@/server/platform/accounts/session'
import { openFloor } from '@/server/classes/classes'
import { database } from '@/server/platform/db/connection'
import { listBikes } from '@/server/bikes/bikes'
import { dayAfter, momentAt } from '@/server/studio/day'
import { studioDay } from '@/core/messages/words/dates'
import { getStudio } from '@/server/studio/studio'

/** Today's open floor: riders sit down as they arrive; it ends at midnight. */
export default async function OpenFloorPage() {
  const person = await requirePermission('assignBikes')
  const db = database()
  if ((await listBikes(db, person)).length === 0) redirect('/bikes')
  const { timeZone } = await getStudio(db, person)
  const now = new Date()
  const day = studioDay(now, timeZone)
  const span = { day, from: momentAt(day, '00:00', timeZone), to: momentAt(dayAfter(day, 1), '00:00', timeZone) }
  redirect(`/class/${await openFloor(db, person, span, now)}`)
}
