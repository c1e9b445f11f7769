import type { Metadata } from 'next'
import { formatMarks } from '@/core/messages/labels'
import { formatNumbersElsewhere } from '@/core/messages/rider'
import { marksIssues } from '@/core/operations/bikeIssues'
import { ClassView } from '@/interface/class/ClassView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { listAssignments } from '@/server/classes/assignments'
import { listNotesSince } from '@/server/classes/notes'
import { database } from '@/server/db/connection'
import { latestNumbers } from '@/server/members/members'
import { studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Class' }

const DAY_MS = 86_400_000

export default async function ClassPage() {
  const person = await requirePermission('seeNumbers')
  const now = new Date()
  const db = database()
  const studio = await getStudio(db, person)
  const day = studioDay(now, studio.timeZone)
  const mayNote = can(person, 'writeNotes')
  const [bikes, assigned, recent] = await Promise.all([
    listBikes(db, person),
    listAssignments(db, person, day),
    can(person, 'seeNotes') ? listNotesSince(db, person, new Date(now.getTime() - DAY_MS)) : [],
  ])
  const riderIds = assigned.map((a) => a.memberId)
  const numbersOf = await latestNumbers(db, person, riderIds)
  const today = recent.filter((note) => studioDay(note.createdAt, studio.timeZone) === day)
  return (
    <ClassView
      mayNote={mayNote}
      bikes={bikes.map((bike) => {
        const rider = assigned.find((a) => a.bikeId === bike.id)
        const numbers = rider && numbersOf.get(rider.memberId)
        const sameType = numbers?.type.name === bike.type.name
        const here = numbers && sameType && marksIssues(bike.type, numbers.marks, '').length === 0
        return {
          id: bike.id,
          number: bike.number,
          type: bike.type.name,
          faulty: bike.openFaults > 0,
          rider: rider ? { id: rider.memberId, name: rider.name } : null,
          // Numbers belong to a type: those of another type are not offered here as if they were this bike's.
          numbers: here ? formatMarks(numbers.type, numbers.marks) : null,
          elsewhere: numbers && !here ? formatNumbersElsewhere(numbers.type.name, sameType) : null,
        }
      })}
      notes={today.map(({ id, memberId, sign, side }) => ({ id, memberId, sign, side }))}
    />
  )
}
