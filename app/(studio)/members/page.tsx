import type { Metadata } from 'next'
import { Members } from '@/interface/members/Members'
import { marksLine } from '@/interface/shared/marksText'
import { bikesOf } from '@/server/bikes/bikes'
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
  const [members, bikes] = await Promise.all([membersOf(db, studio.id), bikesOf(db, studio.id)])
  const typeOf = new Map(bikes.map((bike) => [bike.number, bike.type]))
  return (
    <Members
      members={members.map(({ id, name, numbers, openSetupId }) => {
        const type = numbers && typeOf.get(numbers.bikeNumber)
        return {
          id,
          name,
          openSetupId,
          numbers: numbers && type ? { line: marksLine(type, numbers.marks), bike: `${type.name}, bike ${numbers.bikeNumber}`, date: dateSaid(numbers.at, studio.timeZone) } : null,
        }
      })}
    />
  )
}
