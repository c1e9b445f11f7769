import type { RoomPage } from '@/server/pages/classes/room'
import type { RoomEditorProps } from './roomEditorProps'

/** A room for its editor; a new one gets a name. */
export const roomProps = ({ room, rooms, bikes }: RoomPage): RoomEditorProps => ({
  room: {
    ...room,
    name: room.name ?? (rooms.length === 0 ? 'Hall' : `Room ${rooms.length + 1}`),
    fresh: room.name === null,
  },
  rooms,
  bikes,
})
