'use server'
import { requireUser } from '@/server/accounts/session'
import { bikeById } from '@/server/bikes/bikes'
import { database, withTransaction } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { memberById } from '@/server/members/members'
import { assignBike as assign } from '@/server/notes/notes'
import { studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export type Assigned = Readonly<{ outcome: 'kept' }> | Readonly<{ outcome: 'refused'; say: string }>

const refused = (say: string): Assigned => ({ outcome: 'refused', say })

/** Says who sits on a bike until midnight, studio time; null frees it. Sent again under the same id it changes nothing. */
export async function assignBike(id: string, bikeId: string, memberId: string | null): Promise<Assigned> {
  const person = await requireUser()
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await bikeById(db, bikeId) : null
  if (!bike) return refused('this bike does not exist')
  if (bike.openFaults > 0 && memberId !== null)
    return refused(`bike ${bike.number} is out of use until its fault is mended`)
  if (memberId !== null && (!isId(memberId) || !(await memberById(db, memberId))))
    return refused('this member does not exist')
  const now = new Date()
  const { timeZone } = await getStudio(db)
  const { outcome } = await withTransaction(db, (tx) =>
    assign(tx, { id, bikeId, memberId, day: studioDay(now, timeZone), at: now, by: person.id }),
  )
  return outcome === 'kept'
    ? { outcome }
    : refused('something else was kept under this mark of the device already; tap once more')
}
