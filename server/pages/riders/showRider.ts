import type { Bike, BikeType } from '../../../core/bikes/bike/bike'
import type { BikeEquipment } from '../../../core/bikes/bike/equipment'
import type { Marks } from '../../../core/base/conventions'
import type { Purpose } from '../../../core/setups/register/entry'
import type { PosteriorMeanRider } from '../../../core/setups/recommend/recommend'
import { listTypes } from '../../bikes/versions'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { findMember } from '../../riders/members/members'
import { carriedBodyOf } from '../../setups/carriedBodies'
import { byDisplayPriority, currentEntries } from '../../setups/register'
import { listHistory } from '../../setups/setups'
import { recommendationOf } from '../setups/recommendationOf'

/** A set of numbers with the body they were found for. */
export type ShownSet = Readonly<{
  id: string
  type: BikeType
  bike: Bike
  marks: Marks
  purpose: Purpose
  closing: BikeEquipment['closing']
  rider: PosteriorMeanRider
  /** Nothing was measured or seen of this rider: one of middle size is drawn. */
  isGuess: boolean
}>

/** What is shown to a rider of themselves; null where the studio has no such member. */
export async function showRider(
  db: DbExecutor,
  scope: Scope,
  memberId: string,
  now: Date,
): Promise<Readonly<{ name: string; sets: readonly ShownSet[] }> | null> {
  const member = await findMember(db, scope, memberId)
  if (!member) return null
  const [entries, types] = await Promise.all([currentEntries(db, scope, [memberId]), listTypes(db, scope)])
  const history = await listHistory(db, scope, memberId, now)
  const body = await carriedBodyOf(db, scope, memberId, now)
  const isKnown = history.length > 0 || body !== undefined
  const sets: ShownSet[] = []
  for (const entry of byDisplayPriority(entries)) {
    // Numbers without a set-up of their own are drawn on the body that others found.
    const known = entry.setupId === null ? { history, ...(body && { body }) } : {}
    const answer = await recommendationOf(db, scope, entry, known)
    if (!answer) continue
    sets.push({
      id: entry.id,
      type: entry.type,
      bike: entry.machineCalibration ?? {},
      marks: entry.marks,
      purpose: entry.purpose,
      closing: types.find(({ lineId }) => lineId === entry.lineId)?.equipment.closing ?? {},
      rider: answer.belief.rider,
      isGuess: entry.setupId === null && !isKnown,
    })
  }
  return { name: member.name, sets }
}
