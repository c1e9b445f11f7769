import type { Metadata } from 'next'
import { reasonsPage } from '@/interface/comfort/reasonsPage'
import { ReasonsView } from '@/interface/comfort/ReasonsView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { reasonsOf } from '@/server/pages/reasons'
import { database } from '@/server/db/connection'
import { leaveForMerged } from '@/server/members/leaveForMerged'
import { findMember } from '@/server/members/members'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Reasons' }

/** What is behind a rider's complaints, and the next best step. */
export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNotes')
  const { id } = await params
  const db = database()
  const member = await findMember(db, person, id)
  if (!member) return leaveForMerged(db, person, id, '/reasons')
  const { timeZone } = await getStudio(db, person)
  const found = await reasonsOf(db, person, id, new Date())
  return (
    <ReasonsView
      member={{ id, name: member.name }}
      page={reasonsPage(found, timeZone)}
      mayTry={can(person, 'setUpRiders')}
      mayNote={can(person, 'writeNotes')}
    />
  )
}
