import type { Metadata } from 'next'
import { RoomEditor, type EditedRoom } from '@/interface/rooms/RoomEditor'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { PLAIN_ROOM } from '@/server/classes/planning'
import { database } from '@/server/db/connection'
import { listPlaces, listRooms } from '@/server/rooms/rooms'

export const metadata: Metadata = { title: 'Rooms' }

/** One room's plan: the one asked for, else the first; `new`, or a studio without any, begins one. */
export default async function RoomsPage({ searchParams }: { searchParams: Promise<{ room?: string }> }) {
  const person = await requirePermission('manageBikes')
  const db = database()
  const [rooms, places, bikes] = [
    await listRooms(db, person),
    await listPlaces(db, person),
    await listBikes(db, person),
  ]
  const { room: asked } = await searchParams
  const found = asked === 'new' ? undefined : (rooms.find(({ id }) => id === asked) ?? rooms[0])
  const room: EditedRoom = found
    ? {
        ...found,
        places: Object.fromEntries(
          places
            .filter(({ roomId }) => roomId === found.id)
            .map(({ bikeId, xM, yM, headingDeg }) => [bikeId, { xM, yM, headingDeg }]),
        ),
        fresh: false,
      }
    : {
        id: crypto.randomUUID(),
        name: rooms.length === 0 ? 'Hall' : `Room ${rooms.length + 1}`,
        plan: PLAIN_ROOM,
        places: {},
        fresh: true,
      }
  return (
    <RoomEditor
      key={room.id}
      room={room}
      rooms={rooms.map(({ id, name }) => ({ id, name }))}
      bikes={bikes.map(({ id, number, type }) => {
        const at = places.find(({ bikeId }) => bikeId === id)
        const elsewhere = at && at.roomId !== room.id ? rooms.find(({ id: r }) => r === at.roomId)?.name : null
        return { id, number, type: type.name, elsewhere: elsewhere ?? null }
      })}
    />
  )
}
