import type { Metadata } from 'next'
import { ShowRider } from '@/interface/setups/show/ShowRider'
import { showRider } from '@/server/pages/riders/showRider'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { seen } from '@/server/privacy/accessLog/seen'
import { leaveForMerged } from '@/server/riders/members/leaveForMerged'

export const metadata: Metadata = { title: 'Show it' }

/** A rider beside themselves, too low, yours, too high; to show on a tablet or to print. */
export default async function ShowRoute({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNotes')
  const { id } = await params
  const page = await showRider(database(), person, id, new Date())
  if (!page) return leaveForMerged(database(), person, id, '/show')
  seen(person, 'rider', id)
  return <ShowRider memberId={id} page={page} />
}
