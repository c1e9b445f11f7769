import type { Metadata } from 'next'
import { formatMarks } from '@/core/messages/labels'
import { ClassView } from '@/interface/class/ClassView'
import { listSeats } from '@/server/classes/seats'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { listNotesSince } from '@/server/classes/notes'
import { database } from '@/server/db/connection'
import { studioDay } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Class' }

const DAY_MS = 86_400_000

export default async function ClassPage() {
  const person = await requirePermission('seeNumbers')
  const now = new Date()
  const db = database()
  const { timeZone } = await getStudio(db, person)
  const day = studioDay(now, timeZone)
  const [seats, recent] = await Promise.all([
    listSeats(db, person, day),
    can(person, 'seeNotes') ? listNotesSince(db, person, new Date(now.getTime() - DAY_MS)) : [],
  ])
  const today = recent.filter((note) => studioDay(note.createdAt, timeZone) === day)
  return (
    <ClassView
      mayNote={can(person, 'writeNotes')}
      bikes={seats.map(({ bike, rider, marks, remark, elsewhere }) => ({
        id: bike.id,
        number: bike.number,
        type: bike.type.name,
        faulty: bike.openFaults > 0,
        rider,
        numbers: marks && formatMarks(bike.type, marks),
        remark,
        elsewhere,
      }))}
      notes={today.map(({ id, memberId, sign, side }) => ({ id, memberId, sign, side }))}
    />
  )
}
