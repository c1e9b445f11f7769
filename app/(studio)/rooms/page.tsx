import type { Metadata } from 'next'
import { RoomEditor } from '@/interface/classes/rooms/RoomEditor'
import { roomProps } from '@/interface/classes/rooms/roomProps'
import { roomPage } from '@/server/pages/classes/room'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'

export const metadata: Metadata = { title: 'Rooms' }

/** One room's plan: the one in the address, else the first; `new` begins one. */
export default async function RoomsPage({ searchParams }: { searchParams: Promise<{ room?: string }> }) {
  const person = await requirePermission('manageBikes')
  const page = roomProps(await roomPage(database(), person, (await searchParams).room))
  return <RoomEditor key={page.room.id} {...page} />
}
