import { marksLine } from '@/core/words/labels'
import type { Metadata } from 'next'
import { marksFaults } from '@/core/operations/bikeFaults'
import { ClassRoom } from '@/interface/floor/ClassRoom'
import { requireUser } from '@/server/accounts/session'
import { bikesOf } from '@/server/bikes/bikes'
import { database } from '@/server/db/connection'
import { latestNumbers } from '@/server/members/members'
import { assignmentsOn, notesSince } from '@/server/notes/notes'
import { studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Class' }

const DAY_MS = 86_400_000

export default async function ClassPage() {
  await requireUser()
  const now = new Date()
  const db = database()
  const studio = await getStudio(db)
  const day = studioDay(now, studio.timeZone)
  const [bikes, seated, recent] = await Promise.all([
    bikesOf(db, studio.id),
    assignmentsOn(db, day),
    notesSince(db, new Date(now.getTime() - DAY_MS)),
  ])
  const numbersOf = await latestNumbers(
    db,
    seated.map((s) => s.memberId),
  )
  const today = recent.filter((note) => studioDay(note.madeAt, studio.timeZone) === day)
  return (
    <ClassRoom
      bikes={bikes.map((bike) => {
        const rider = seated.find((s) => s.bikeId === bike.id)
        const numbers = rider && numbersOf.get(rider.memberId)
        const here =
          numbers && numbers.type.name === bike.type.name && marksFaults(bike.type, numbers.marks, '').length === 0
        return {
          id: bike.id,
          number: bike.number,
          type: bike.type.name,
          faulty: bike.openFaults > 0,
          rider: rider ? { id: rider.memberId, name: rider.name } : null,
          // Numbers belong to a type: those of another type are not offered here as if they were this bike's.
          numbers: here ? marksLine(numbers.type, numbers.marks) : null,
          elsewhere:
            numbers && !here
              ? `${numbers.type.name}${numbers.type.name === bike.type.name ? ' as it was marked before' : ''}`
              : null,
        }
      })}
      notes={today.map(({ id, memberId, sign, side }) => ({ id, memberId, sign, side }))}
    />
  )
}
