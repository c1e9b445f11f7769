import type { RoomPlan, FloorPosition } from '@/core/classes/planning/roomPlan'

export type EditedRoom = Readonly<{
  id: string
  name: string
  plan: RoomPlan
  places: Readonly<Record<string, FloorPosition>>
  /** Not stored yet. */
  fresh: boolean
}>
export type RoomEditorProps = Readonly<{
  room: EditedRoom
  rooms: readonly Readonly<{ id: string; name: string }>[]
  bikes: readonly Readonly<{ id: string; number: number; type: string; elsewhere: string | null }>[]
}>
