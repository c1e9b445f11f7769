import type { Metadata } from 'next'
import { MemberDataView } from '@/interface/riders/data/MemberDataView'
import { memberDataPage } from '@/server/pages/riders/memberData'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { leaveForMerged } from '@/server/riders/members/leaveForMerged'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Their data' }

/** All that is stored about a member. */
export default async function MemberDataRoute({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('managePrivacy')
  const { id } = await params
  const page = await memberDataPage(database(), person, id, new Date())
  if (page) seen(person, 'data', id)
  return page ? <MemberDataView {...page} /> : leaveForMerged(database(), person, id, '/data')
}
