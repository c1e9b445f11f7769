import type { Metadata } from 'next'
import { Members } from '@/interface/members/Members'
import { marksLine } from '@/interface/shared/marksText'
import { database } from '@/server/db/connection'
import { membersOf } from '@/server/members/members'
import { dateSaid } from '@/server/studio/day'
import { theStudio } from '@/server/studio/studio'
import { signedIn } from '@/server/accounts/session'

export const metadata: Metadata = { title: 'Members' }

export default async function MembersPage() {
  await signedIn()
  const db = database()
  const studio = await theStudio(db)
  const members = await membersOf(db, studio.id)
  return (
    <Members
      members={members.map(({ id, name, numbers, openSetupId }) => ({
        id,
        name,
        openSetupId,
        numbers: numbers && { line: marksLine(numbers.type, numbers.marks), bike: `${numbers.type.name}, bike ${numbers.bikeNumber}`, date: dateSaid(numbers.at, studio.timeZone) },
      }))}
    />
  )
}
