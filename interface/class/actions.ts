'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import { authorize } from '@/server/accounts/session'
import { findBike } from '@/server/bikes/bikes'
import * as assignments from '@/server/classes/assignments'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import { studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'
import type { ActionResult } from '../shared/actionResult'

const refused = (refusal: ActionRefusal): ActionResult => ({ outcome: 'refused', say: formatActionRefusal(refusal) })

/**
 * Says who sits on a bike until midnight, studio time; null frees it. Sent again under the same id it changes
 * nothing.
 */
export async function assignBike(id: string, bikeId: string, memberId: string | null): Promise<ActionResult> {
  const person = await authorize('assignBikes')
  if (!person) return refused({ code: 'notAllowed' })
  const db = database()
  const bike = isId(id) && isId(bikeId) ? await findBike(db, person, bikeId) : null
  if (!bike) return refused({ code: 'noSuchBike' })
  if (bike.openFaults > 0 && memberId !== null) return refused({ code: 'bikeOutOfUse', number: bike.number })
  if (memberId !== null && !isId(memberId)) return refused({ code: 'noSuchMember' })
  const now = new Date()
  const { timeZone } = await getStudio(db, person)
  const day = studioDay(now, timeZone)
  const { outcome } = await assignments.assignBike(db, person, { id, bikeId, memberId, day }, now)
  if (outcome === 'kept') return { outcome }
  return refused({ code: outcome === 'gone' ? 'noSuchMember' : 'assignmentTaken' })
}
