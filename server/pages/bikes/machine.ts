import { schoolOf, type School } from '../../../core/base/school/school'
import { inspectionState, type InspectionState } from '../../../core/bikes/bike/inspection'
import type { PooledResidual } from '../../../core/setups/learning/machineResiduals'
import { listBikeReadings } from '../../bikes/bikeReadings'
import { findBike, listBikes, type StudioBike } from '../../bikes/bikes'
import { codesOfBikes, printedCode } from '../../bikes/codes'
import { listFaults, listInspections } from '../../bikes/inspections'
import { can } from '../../platform/accounts/can'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { listSetupsBetween } from '../../setups/finishedSetups'
import { riderResiduals } from '../../setups/riderResiduals'
import { getStudio } from '../../studio/studio'

/** One machine with its faults, readings and inspections. */
export type MachinePage = Readonly<{
  timeZone: string
  tilt: School['tilt']
  mayManage: boolean
  bike: StudioBike
  /** The code on it, as printed; null for a retired machine. */
  code: string | null
  state: InspectionState
  /** Null where riders checked on it show no offset. */
  residual: PooledResidual | null
  faults: Awaited<ReturnType<typeof listFaults>>
  readings: Awaited<ReturnType<typeof listBikeReadings>>
  inspections: Awaited<ReturnType<typeof listInspections>>
  /** Riders set up between the last good tape and the one that found the machine changed. */
  doubtful: Awaited<ReturnType<typeof listSetupsBetween>>
}>

/** One machine; null where the studio has no such bike. */
export async function machinePage(db: Database, scope: Scope, id: string, now: Date): Promise<MachinePage | null> {
  const bike = await findBike(db, scope, id)
  if (!bike) return null
  const [studio, faults, readings, inspections] = await Promise.all([
    getStudio(db, scope),
    listFaults(db, scope, id),
    listBikeReadings(db, scope, id),
    listInspections(db, scope, id),
  ])
  const code = bike.retiredAt ? null : (await codesOfBikes(db, scope, [id], now)).get(id)
  const residuals = await riderResiduals(db, scope, await listBikes(db, scope), now)
  const changed = readings.findLastIndex(({ row }) => row.kind === 'tape' && row.resetsBaseline)
  const lastGood = readings.slice(0, Math.max(0, changed)).findLast(({ row }) => row.kind === 'tape')
  return {
    timeZone: studio.timeZone,
    tilt: schoolOf(studio.school).tilt,
    mayManage: can(scope, 'manageBikes'),
    bike,
    code: code ? printedCode(code) : null,
    state: inspectionState(inspections[0]?.createdAt.getTime() ?? null, bike.openFaults, now.getTime()),
    residual: residuals.get(id) ?? null,
    faults,
    readings,
    inspections,
    doubtful:
      changed >= 0 && lastGood
        ? await listSetupsBetween(db, scope, id, lastGood.createdAt, readings[changed].createdAt)
        : [],
  }
}
