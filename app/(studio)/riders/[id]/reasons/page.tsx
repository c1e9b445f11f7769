import type { Metadata } from 'next'
import { reasonsPage } from '@/interface/comfort/reasons/reasonsPage'
import { ReasonsView } from '@/interface/comfort/reasons/ReasonsView'
import { reasonsOf } from '@/server/pages/comfort/reasons'
import { can } from '@/server/platform/accounts/can'
import { requirePermission } from '@/server/platform/accounts/session'
import { database } from '@/server/platform/db/connection'
import { leaveForMerged } from '@/server/riders/members/leaveForMerged'
import { findMember } from '@/server/riders/members/members'
import { seen } from '@/server/privacy/accessLog/seen'

export const metadata: Metadata = { title: 'Reasons' }

/** What is behind a rider's complaints, and the next best step. */
export default async function ReasonsRoute({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNotes')
  const { id } = await params
  const member = await findMember(database(), person, id)
  if (!member) return leaveForMerged(database(), person, id, '/reasons')
  seen(person, 'reasons', id)
  return (
    <ReasonsView
      member={{ id, name: member.name }}
      page={reasonsPage(await reasonsOf(database(), person, id, new Date()))}
      mayTry={can(person, 'setUpRiders')}
      mayNote={can(person, 'writeNotes')}
    />
  )
}
