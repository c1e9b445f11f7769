import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { axesOf } from '@/core/bike/bike'
import { evidenceLevel } from '@/core/evidence/evidenceLevel'
import { formatLabel, formatMarks } from '@/core/messages/labels'
import { AXIS_TITLE, EVIDENCE_LEVEL_TEXT } from '@/core/messages/phrases'
import { MEANT_TEXT } from '@/core/messages/recommendation'
import { describeNote, formatBikeChanged, formatBikeName, formatPedalSide } from '@/core/messages/rider'
import { RiderView } from '@/interface/rider/RiderView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { findChangeSince } from '@/server/bikes/bikeReadings'
import { availableBikes, listBikes } from '@/server/bikes/bikes'
import { listTypes } from '@/server/bikes/versions'
import { listNotesOfMember } from '@/server/classes/notes'
import { database } from '@/server/db/connection'
import { findMember } from '@/server/members/members'
import { listFinishedSetups, listOpenSetups } from '@/server/setups/setups'
import { formatDate, formatTime } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Rider' }

export default async function RiderPage({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('seeNumbers')
  const { id } = await params
  const db = database()
  const [studio, member] = await Promise.all([getStudio(db, person), findMember(db, person, id)])
  if (!member) notFound()
  const [mayNote, maySetUp] = [can(person, 'seeNotes'), can(person, 'setUpRiders')]
  const [bikes, setups, open, notes, types] = await Promise.all([
    maySetUp ? listBikes(db, person) : [],
    listFinishedSetups(db, person, id),
    maySetUp ? listOpenSetups(db, person, id) : [],
    mayNote ? listNotesOfMember(db, person, id) : null,
    listTypes(db, person),
  ])
  const { timeZone } = studio
  const latest = setups[0]
  const changed = latest ? await findChangeSince(db, person, latest.bikeId, latest.finishedAt) : null
  return (
    <RiderView
      member={member}
      maySetUp={maySetUp}
      setups={setups.map(({ id: setupId, type, marks, meant, bikeNumber, finishedAt, finishedBy, evidence }) => {
        const rider = evidence.findLast((row) => row.kind === 'rider')
        return {
          id: setupId,
          line: formatMarks(type, marks),
          numbers: axesOf(type).map((axis) => ({
            title: AXIS_TITLE[axis],
            text: marks[axis] === undefined ? '–' : formatLabel(type, axis, marks[axis]),
          })),
          bike: formatBikeName(type.name, bikeNumber),
          date: formatDate(finishedAt, timeZone),
          by: finishedBy,
          sure:
            EVIDENCE_LEVEL_TEXT[evidenceLevel(evidence)] + (meant ? `; set so on purpose, ${MEANT_TEXT[meant]}` : ''),
          shoes: formatPedalSide(rider?.kind === 'rider' ? rider.pedal : undefined),
        }
      })}
      changed={changed && formatBikeChanged(latest.bikeNumber, formatDate(changed, timeZone))}
      request={
        latest && mayNote
          ? {
              bikeType: latest.type,
              bike: latest.machineCalibration,
              school: studio.school,
              evidence: latest.evidence,
            }
          : null
      }
      seatHeight={latest?.marks.seatHeight ?? null}
      from={latest ? { bikeType: latest.type, bike: latest.machineCalibration, marks: latest.marks } : null}
      types={types.map(({ bikeType }) => bikeType)}
      open={open.map((o) => ({ id: o.id, text: `bike ${o.bikeNumber}, ${formatDate(o.startedAt, timeZone)}` }))}
      bikes={availableBikes(bikes).map((b) => ({ id: b.id, number: b.number, type: b.type.name }))}
      notes={
        notes?.map(({ id: noteId, region, sign, side, createdAt, createdBy, bikeNumber }) => ({
          id: noteId,
          ...describeNote(region, sign, side),
          when: `${formatDate(createdAt, timeZone)}, ${formatTime(createdAt, timeZone)}`,
          by: createdBy,
          bike: bikeNumber,
        })) ?? null
      }
    />
  )
}
