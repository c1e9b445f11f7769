import type { Metadata } from 'next'
import { inspectionState } from '@/core/bike/inspection'
import { assessMachineTilt } from '@/core/bike/tilt'
import {
  formatCalibrationQuality,
  formatInspectionState,
  formatResidualBriefly,
  formatTiltFault,
} from '@/core/messages/machine'
import type { PooledResidual } from '@/core/learning/machineResiduals'
import { schoolOf } from '@/core/school/school'
import { BikesView } from '@/interface/bikes/BikesView'
import { can } from '@/server/accounts/can'
import { requirePermission } from '@/server/accounts/session'
import { listBikes, listRetiredBikes } from '@/server/bikes/bikes'
import { fleetAccommodation, typesInUse } from '@/server/bikes/fleetAccommodation'
import { lastInspections } from '@/server/bikes/inspections'
import { listTypes } from '@/server/bikes/versions'
import { database } from '@/server/db/connection'
import { riderResiduals } from '@/server/setups/riderResiduals'
import { formatDate } from '@/server/studio/day'
import { getStudio } from '@/server/studio/studio'

export const metadata: Metadata = { title: 'Bikes' }

export default async function BikesPage() {
  const person = await requirePermission('seeBikes')
  const now = new Date()
  const db = database()
  const [studio, types, bikes, looked, retired] = await Promise.all([
    getStudio(db, person),
    listTypes(db, person),
    listBikes(db, person),
    lastInspections(db, person),
    listRetiredBikes(db, person),
  ])
  const residuals = can(person, 'inspectBikes')
    ? await riderResiduals(db, person, bikes, now)
    : new Map<string, PooledResidual>()
  const school = schoolOf(studio.school)
  const { tilt } = school
  // Begun here, so that "Who fits" opens with its answer.
  fleetAccommodation(person, { bikeTypes: typesInUse(types, bikes).map(({ bikeType }) => bikeType), school })
  return (
    <BikesView
      mayInspect={can(person, 'inspectBikes')}
      mayManage={can(person, 'manageBikes')}
      types={types.map(({ lineId, version, bikeType, calibration }) => ({
        lineId,
        version,
        bikeType,
        measured: calibration !== null,
        sure: formatCalibrationQuality(calibration),
        count: bikes.filter((b) => b.lineId === lineId).length,
      }))}
      retired={retired.map(({ retiredAt, ...one }) => ({ ...one, when: formatDate(retiredAt, studio.timeZone) }))}
      bikes={bikes.map(({ id, number, type, machineCalibration, openFaults }) => {
        const state = inspectionState(looked.get(id)?.getTime() ?? null, openFaults, now.getTime())
        const assessed = assessMachineTilt(machineCalibration, type.saddle.shape, tilt)
        const tilted = assessed && assessed.outcome !== 'good' && state.outcome !== 'faulty' ? assessed : null
        const residual = state.outcome === 'faulty' ? null : (residuals.get(id) ?? null)
        return {
          id,
          number,
          type: type.name,
          state: tilted
            ? formatTiltFault(tilted)
            : residual
              ? formatResidualBriefly(residual)
              : formatInspectionState(state, studio.timeZone),
          bad: state.outcome !== 'good' || tilted !== null || residual !== null,
          out: state.outcome === 'faulty',
        }
      })}
    />
  )
}
