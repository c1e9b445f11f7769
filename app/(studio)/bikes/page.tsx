import type { Metadata } from 'next'
import { inspectionState } from '@/core/bike/inspection'
import { judgeTilt } from '@/core/bike/tilt'
import { schoolOf } from '@/core/school/school'
import { BikesView } from '@/interface/bikes/BikesView'
import { inspectionSaid } from '@/interface/bikes/inspectionSaid'
import { requireUser } from '@/server/accounts/session'
import { bikesOf } from '@/server/bikes/bikes'
import { lastInspections } from '@/server/bikes/machines'
import { typesOf } from '@/server/bikes/types'
import { database } from '@/server/db/connection'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Bikes' }

export default async function BikesPage() {
  await requireUser()
  const now = new Date()
  const db = database()
  const studio = await getStudio(db)
  const [types, bikes, looked] = await Promise.all([
    typesOf(db, studio.id),
    bikesOf(db, studio.id),
    lastInspections(db),
  ])
  const { tilt } = schoolOf(studio.school)
  return (
    <BikesView
      types={types.map(({ lineId, version, bikeType, calibration }) => ({
        lineId,
        version,
        bikeType,
        measured: calibration !== null,
        sure: calibration
          ? `good to ${Math.max(...Object.values(calibration.expectedErrorMm)).toFixed(0)} mm, ${calibration.readings} readings`
          : 'as described, not measured yet',
        count: bikes.filter((b) => b.lineId === lineId).length,
      }))}
      bikes={bikes.map((b) => {
        const state = inspectionState(looked.get(b.id)?.getTime() ?? null, b.openFaults, now.getTime())
        const judged =
          b.own.tiltDeg === undefined
            ? null
            : judgeTilt({ deg: b.own.tiltDeg, floorDeg: 0, across: 'highestPoints' }, b.type.saddle.shape, tilt)
        const tilted = judged && judged.outcome !== 'good' && state.outcome !== 'faulty'
        return {
          id: b.id,
          number: b.number,
          type: b.type.name,
          state: tilted
            ? `saddle nose ${judged.outcome === 'noseUp' ? 'up' : 'down'}`
            : inspectionSaid(state, studio.timeZone),
          bad: state.outcome === 'faulty' || state.outcome === 'due' || state.outcome === 'never' || Boolean(tilted),
          out: state.outcome === 'faulty',
        }
      })}
    />
  )
}
