import type { Metadata } from 'next'
import { riderProps } from '@/interface/riders/rider/riderProps'
import { RiderView } from '@/interface/riders/rider/RiderView'
import { riderPage } from '@/server/pages/riders/rider'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { leaveForMerged } from '@/server/riders/members/leaveForMerged'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Rider' }

export default async function RiderRoute({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNumbers')
  const { id } = await params
  const page = await riderPage(database(), person, id, new Date())
  if (page?.seesNotes) seen(person, 'rider', id)
  return page ? <RiderView {...riderProps(page)} /> : leaveForMerged(database(), person, id)
}
