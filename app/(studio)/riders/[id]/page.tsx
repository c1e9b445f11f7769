import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { axesOf } from '@/core/bike/bike'
import { REGION_NAME, signNamed, type Region } from '@/core/watch/signs'
import { RiderView } from '@/interface/rider/RiderView'
import { sureness, SURENESS_SAID } from '@/interface/setup/flow'
import { labelSaid, marksLine } from '@/core/words/labels'
import { AXIS_TITLE } from '@/interface/shared/marksText'
import { requireUser } from '@/server/accounts/session'
import { bikesOf, offered } from '@/server/bikes/bikes'
import { changedSince } from '@/server/bikes/machines'
import { database } from '@/server/db/connection'
import { memberById } from '@/server/members/members'
import { notesOn } from '@/server/notes/notes'
import { openSetupsOf, savedSetups } from '@/server/setups/setups'
import { dateSaid, timeSaid } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Rider' }

export default async function RiderPage({ params }: { params: Promise<{ id: string }> }) {
  await requireUser()
  const { id } = await params
  const db = database()
  const [studio, member] = await Promise.all([getStudio(db), memberById(db, id)])
  if (!member) notFound()
  const [bikes, setups, open, notes] = await Promise.all([
    bikesOf(db, studio.id),
    savedSetups(db, id),
    openSetupsOf(db, id),
    notesOn(db, id),
  ])
  const told = setups.map((setup) => {
    const { type } = setup
    const rider = setup.evidence.findLast((row) => row.kind === 'rider')
    return {
      id: setup.id,
      line: marksLine(type, setup.marks),
      numbers: axesOf(type).map((axis) => ({
        title: AXIS_TITLE[axis],
        said: setup.marks[axis] === undefined ? '–' : labelSaid(type, axis, setup.marks[axis]),
      })),
      bike: `${type.name}, bike ${setup.bikeNumber}`,
      date: dateSaid(setup.at, studio.timeZone),
      by: setup.by,
      sure: SURENESS_SAID[sureness(setup.evidence)],
      shoes: rider?.kind === 'rider' && rider.pedal ? (rider.pedal === 'cleat' ? 'cleats' : 'cage side') : null,
    }
  })
  const latest = setups[0]
  const changed = latest ? await changedSince(db, latest.bikeId, latest.at) : null
  return (
    <RiderView
      member={member}
      setups={told}
      changed={
        changed &&
        `Bike ${latest.bikeNumber} was found changed on ${dateSaid(changed, studio.timeZone)}, after these numbers were saved. Look at the knee again.`
      }
      asked={
        latest ? { bikeType: latest.type, bike: latest.own, school: studio.school, evidence: latest.evidence } : null
      }
      seatHeight={latest?.marks.seatHeight ?? null}
      open={open.map((o) => ({ id: o.id, said: `bike ${o.bikeNumber}, ${dateSaid(o.startedAt, studio.timeZone)}` }))}
      bikes={offered(bikes).map((b) => ({ id: b.id, number: b.number, type: b.type.name }))}
      notes={notes.map((note) => ({
        id: note.id,
        seen: `${REGION_NAME[note.region as Region] ?? note.region}: ${(signNamed(note.sign)?.name ?? note.sign).toLowerCase()}`,
        side: signNamed(note.sign)?.sided ? note.side : null,
        when: `${dateSaid(note.madeAt, studio.timeZone)}, ${timeSaid(note.madeAt, studio.timeZone)}`,
        by: note.by,
        bike: note.bikeNumber,
        cue: signNamed(note.sign)?.cue ?? '',
      }))}
    />
  )
}
