import type { RoomPlan, FloorPosition } from '../../../core/classes/planning/roomPlan'
import { listBikes } from '../../bikes/bikes'
import { PLAIN_ROOM } from '../../classes/planning'
import { listPlaces, listRooms } from '../../classes/rooms/rooms'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'

/** One room's plan, the names of all rooms, and the bikes with the room each is in. */
export type RoomPage = Readonly<{
  room: Readonly<{
    id: string
    /** Null for a new room. */
    name: string | null
    plan: RoomPlan
    /** By bike. */
    places: Readonly<Record<string, FloorPosition>>
  }>
  rooms: readonly Readonly<{ id: string; name: string }>[]
  bikes: readonly Readonly<{ id: string; number: number; type: string; elsewhere: string | null }>[]
}>

/** The room of this id, else the first; a new one for `new`, or where the studio has no room. */
export async function roomPage(db: DbExecutor, scope: Scope, id: string | undefined): Promise<RoomPage> {
  const [rooms, places, bikes] = [await listRooms(db, scope), await listPlaces(db, scope), await listBikes(db, scope)]
  const found = id === 'new' ? undefined : (rooms.find((one) => one.id === id) ?? rooms[0])
  const room = found
    ? {
        ...found,
        places: Object.fromEntries(
          places
            .filter(({ roomId }) => roomId === found.id)
            .map(({ bikeId, xM, yM, headingDeg }) => [bikeId, { xM, yM, headingDeg }]),
        ),
      }
    : { id: crypto.randomUUID(), name: null, plan: PLAIN_ROOM, places: {} }
  return {
    room,
    rooms: rooms.map(({ id: roomId, name }) => ({ id: roomId, name })),
    bikes: bikes.map(({ id: bikeId, number, type }) => {
      const at = places.find((one) => one.bikeId === bikeId)
      const elsewhere = at && at.roomId !== room.id ? rooms.find((one) => one.id === at.roomId)?.name : null
      return { id: bikeId, number, type: type.name, elsewhere: elsewhere ?? null }
    }),
  }
}
