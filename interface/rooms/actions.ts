'use server'
import { formatActionRefusal, type ActionRefusal } from '@/core/messages/actions'
import { shapeIssues } from '@/core/operations/dispatch'
import type { RoomPlan, Stand } from '@/core/planning/roomPlan'
import { authorize } from '@/server/accounts/session'
import { database } from '@/server/db/connection'
import { isId } from '@/server/ids'
import * as rooms from '@/server/rooms/rooms'
import type { ActionResult } from '../shared/actionResult'

const refused = (refusal: ActionRefusal) => ({ outcome: 'refused', say: formatActionRefusal(refusal) }) as const

/** A room with everything that stands in it, as it is sent. */
export type RoomDraft = Readonly<{
  name: string
  plan: RoomPlan
  places: readonly (Stand & Readonly<{ bikeId: string }>)[]
}>
const MAX_BIKES = 200

/** Keeps a room's plan; the same again changes nothing. */
export async function saveRoom(id: string, draft: RoomDraft): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused({ code: 'notAllowed' })
  const { name, plan, places } = (draft ?? {}) as Partial<RoomDraft>
  const named = typeof name === 'string' ? name.trim() : ''
  if (!isId(id) || named === '' || named.length > 80) return refused({ code: 'malformed' })
  const listed = Array.isArray(places) && places.length <= MAX_BIKES && places.every((place) => isId(place?.bikeId))
  if (!listed || !plan || shapeIssues('roomPlan', plan).length > 0) return refused({ code: 'malformed' })
  const stands = places.map(({ bikeId, xM, yM, headingDeg }) => ({ bikeId, xM, yM, headingDeg }))
  const wrong = stands.some(({ bikeId: _, ...stand }) => shapeIssues('stand', stand).length > 0)
  if (wrong) return refused({ code: 'malformed' })
  const { outcome } = await rooms.saveRoom(database(), person, { id, name: named, plan, places: stands }, new Date())
  if (outcome === 'nameTaken') return refused({ code: 'roomNameTaken' })
  if (outcome === 'gone') return refused({ code: 'noSuchBike' })
  return { outcome: 'kept' }
}

/** Takes a room away in which no class was ever held. */
export async function removeRoom(id: string): Promise<ActionResult> {
  const person = await authorize('manageBikes')
  if (!person) return refused({ code: 'notAllowed' })
  if (!isId(id)) return refused({ code: 'noSuchRoom' })
  const { outcome } = await rooms.deleteRoom(database(), person, id)
  if (outcome !== 'kept') return refused({ code: outcome === 'inUse' ? 'roomInUse' : 'noSuchRoom' })
  return { outcome: 'kept' }
}
