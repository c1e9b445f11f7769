import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { inspectionState } from '@/core/bike/inspection'
import { formatBikeReading, formatMachineState } from '@/core/messages/machine'
import { schoolOf } from '@/core/school/school'
import { MachineView } from '@/interface/bikes/MachineView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { listBikeReadings, listSetupsBetween } from '@/server/bikes/bikeReadings'
import { findBike, listBikes } from '@/server/bikes/bikes'
import { listFaults, listInspections } from '@/server/bikes/inspections'
import { database } from '@/server/db/connection'
import { riderResiduals } from '@/server/setups/riderResiduals'
import { formatDate } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Bike' }

export default async function MachinePage({ params }: { params: Promise<{ id: string }> }) {
  const person = await requirePermission('inspectBikes')
  const { id } = await params
  const db = database()
  const bike = await findBike(db, person, id)
  if (!bike) notFound()
  const [studio, faults, readings, looked] = await Promise.all([
    getStudio(db, person),
    listFaults(db, person, id),
    listBikeReadings(db, person, id),
    listInspections(db, person, id),
  ])
  const now = new Date()
  const residuals = await riderResiduals(db, person, await listBikes(db, person), now)
  const state = inspectionState(looked[0]?.createdAt.getTime() ?? null, bike.openFaults, now.getTime())
  const changed = readings.findLastIndex((r) => r.row.kind === 'tape' && r.row.resetsBaseline)
  const lastGood = readings.slice(0, Math.max(0, changed)).findLast((r) => r.row.kind === 'tape')
  const doubtful =
    changed >= 0 && lastGood
      ? await listSetupsBetween(db, person, id, lastGood.createdAt, readings[changed].createdAt)
      : []
  const day = (at: Date) => formatDate(at, studio.timeZone)
  return (
    <MachineView
      bike={bike}
      residual={residuals.get(id) ?? null}
      mayManage={can(person, 'manageBikes')}
      school={schoolOf(studio.school).tilt}
      state={formatMachineState(state, studio.timeZone)}
      retired={bike.retiredAt && day(bike.retiredAt)}
      faults={faults.map((f) => ({
        id: f.id,
        item: f.item,
        note: f.note,
        found: `${day(f.foundAt)}, ${f.foundBy}`,
        open: f.resolvedAt === null,
      }))}
      measured={[...readings].reverse().map((r) => ({
        id: r.id,
        text: formatBikeReading(bike.type, r.row),
        when: `${day(r.createdAt)}, ${r.createdBy}`,
      }))}
      looks={looked.map((l) => ({ id: l.id, text: `${day(l.createdAt)}, ${l.createdBy}`, good: l.good }))}
      doubtful={doubtful.map((d) => ({ memberId: d.memberId, name: d.name, when: day(d.at) }))}
    />
  )
}
