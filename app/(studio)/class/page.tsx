import type { Metadata } from 'next'
import { formatMachineWhy, PURPOSE_NAME } from '@/core/messages/register'
import { formatMarks } from '@/core/messages/labels'
import { marksOnMachine } from '@/core/translate/onMachine'
import { shownFirst } from '@/interface/rider/riderSet'
import { ClassView } from '@/interface/class/ClassView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { listBikes } from '@/server/bikes/bikes'
import { listAssignments } from '@/server/classes/assignments'
import { listNotesSince } from '@/server/classes/notes'
import { database } from '@/server/db/connection'
import { currentEntries } from '@/server/register/register'
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
  const entries = shownFirst(await currentEntries(db, person, riderIds))
  const today = recent.filter((note) => studioDay(note.createdAt, studio.timeZone) === day)
  return (
    <ClassView
      mayNote={mayNote}
      bikes={bikes.map((bike) => {
        const rider = assigned.find((a) => a.bikeId === bike.id)
        const own = entries.filter(({ memberId }) => memberId === rider?.memberId)
        const kept = own.find(({ lineId }) => lineId === bike.lineId)
        const here =
          kept &&
          marksOnMachine(
            { bikeType: kept.type, bike: kept.machineCalibration ?? undefined, marks: kept.marks },
            { bikeType: bike.type, bike: bike.machineCalibration },
          )
        return {
          id: bike.id,
          number: bike.number,
          type: bike.type.name,
          faulty: bike.openFaults > 0,
          rider: rider ? { id: rider.memberId, name: rider.name } : null,
          // Numbers belong to a type: those of another type are not offered here as if they were this bike's.
          numbers: here ? formatMarks(bike.type, here.marks) : null,
          remark: here
            ? [kept.purpose !== 'usual' && PURPOSE_NAME[kept.purpose].toLowerCase(), formatMachineWhy(here)]
                .filter(Boolean)
                .join(', ') || null
            : null,
          elsewhere: (!here && own[0]?.type.name) || null,
        }
      })}
      notes={today.map(({ id, memberId, sign, side }) => ({ id, memberId, sign, side }))}
    />
  )
}
