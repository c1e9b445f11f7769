import { marksLine } from '@/core/words/labels'
import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import type { BikeReading } from '@/core/calibration/bikeReading'
import { inspectionState } from '@/core/bike/inspection'
import { LENGTHS } from '@/core/calibration/readings'
import { schoolOf } from '@/core/school/school'
import { capitalised } from '@/core/words/phrases'
import { LENGTH_NAME } from '@/core/words/tape'
import { inspectionSaid } from '@/interface/bikes/inspectionSaid'
import { MachineView } from '@/interface/bikes/MachineView'
import { requireUser } from '@/server/accounts/session'
import { bikeById, type StudioBike } from '@/server/bikes/bikes'
import { faultsOf, listInspections, readingsOf, savedBetween } from '@/server/bikes/machines'
import { database } from '@/server/db/connection'
import { dateSaid } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Bike' }

export default async function MachinePage({ params }: { params: Promise<{ id: string }> }) {
  await requireUser()
  const { id } = await params
  const db = database()
  const bike = await bikeById(db, id)
  if (!bike) notFound()
  const [studio, faults, readings, looked] = await Promise.all([
    getStudio(db),
    faultsOf(db, id),
    readingsOf(db, id),
    listInspections(db, id),
  ])
  const state = inspectionState(looked[0]?.at.getTime() ?? null, bike.openFaults, new Date().getTime())
  const changed = readings.findLastIndex((r) => r.row.kind === 'tape' && r.row.anew)
  const lastGood = readings.slice(0, Math.max(0, changed)).findLast((r) => r.row.kind === 'tape')
  const doubtful = changed >= 0 && lastGood ? await savedBetween(db, id, lastGood.at, readings[changed].at) : []
  const day = (at: Date) => dateSaid(at, studio.timeZone)
  return (
    <MachineView
      bike={bike}
      school={schoolOf(studio.school).tilt}
      state={
        state.outcome === 'faulty'
          ? 'Out of use until its faults are mended; it is not offered for set-ups.'
          : `${capitalised(inspectionSaid(state, studio.timeZone))}.`
      }
      faults={faults.map((f) => ({
        id: f.id,
        item: f.item,
        note: f.note,
        found: `${day(f.foundAt)}, ${f.foundBy}`,
        open: f.clearedAt === null,
      }))}
      measured={[...readings]
        .reverse()
        .map((r) => ({ id: r.id, said: readingSaid(bike, r.row), when: `${day(r.at)}, ${r.by}` }))}
      looks={looked.map((l) => ({ id: l.id, said: `${day(l.at)}, ${l.by}`, good: l.good }))}
      doubtful={doubtful.map((d) => ({ memberId: d.memberId, name: d.name, when: day(d.at) }))}
    />
  )
}

/** One line of what was measured: "Tape at 7 · D: stack 702 mm". */
function readingSaid({ type }: StudioBike, row: BikeReading): string {
  if (row.kind === 'tilt')
    return `Saddle ${row.deg}° over ${row.across === 'frontHalf' ? 'its front half' : 'its two highest points'}, floor ${row.floorDeg}°`
  if (row.kind === 'saddleLine')
    return `Saddle ${row.mm === 0 ? 'straight' : `nose ${Math.abs(row.mm)} mm to the ${row.mm > 0 ? 'right' : 'left'}`}, ${row.afterClosing ? 'after' : 'before'} closing`
  const lengths = LENGTHS.flatMap((length) =>
    row.lengths[length] === undefined ? [] : [`${LENGTH_NAME[length]} ${row.lengths[length]} mm`],
  )
  return `Tape at ${marksLine(type, row.marks)}: ${lengths.join(', ')}${row.anew ? '; the bike had changed' : ''}`
}
