import { schoolOf, type School } from '../../../core/base/school/school'
import { inspectionState, type InspectionState } from '../../../core/bikes/bike/inspection'
import type { PooledResidual } from '../../../core/setups/learning/machineResiduals'
import { listBikes, listRetiredBikes, type StudioBike } from '../../bikes/bikes'
import { fleetAccommodation, typesInUse } from '../../bikes/fleetAccommodation'
import { lastInspections } from '../../bikes/inspections'
import { listTypes } from '../../bikes/versions'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { riderResiduals } from '../../setups/riderResiduals'
import { getStudio } from '../../studio/studio'

/** The studio's types and machines with the state of each. */
export type Fleet = Readonly<{
  timeZone: string
  tilt: School['tilt']
  mayInspect: boolean
  mayManage: boolean
  types: readonly (Awaited<ReturnType<typeof listTypes>>[number] & Readonly<{ count: number }>)[]
  bikes: readonly (StudioBike & Readonly<{ state: InspectionState; residual: PooledResidual | null }>)[]
  retired: Awaited<ReturnType<typeof listRetiredBikes>>
}>

/** Reads the fleet, and starts computing who fits it, so that the page "Who fits" opens with its answer. */
export async function fleetPage(db: Database, scope: Scope, now: Date): Promise<Fleet> {
  const [studio, types, bikes, looked, retired] = await Promise.all([
    getStudio(db, scope),
    listTypes(db, scope),
    listBikes(db, scope),
    lastInspections(db, scope),
    listRetiredBikes(db, scope),
  ])
  const mayInspect = can(scope, 'inspectBikes')
  const residuals = mayInspect ? await riderResiduals(db, scope, bikes, now) : new Map<string, PooledResidual>()
  const school = schoolOf(studio.school)
  fleetAccommodation(scope, { bikeTypes: typesInUse(types, bikes).map(({ bikeType }) => bikeType), school })
  return {
    timeZone: studio.timeZone,
    tilt: school.tilt,
    mayInspect,
    mayManage: can(scope, 'manageBikes'),
    types: types.map((type) => ({ ...type, count: bikes.filter(({ lineId }) => lineId === type.lineId).length })),
    bikes: bikes.map((bike) => ({
      ...bike,
      state: inspectionState(looked.get(bike.id)?.getTime() ?? null, bike.openFaults, now.getTime()),
      residual: residuals.get(bike.id) ?? null,
    })),
    retired,
  }
}
