import type { CareState } from '../../../core/bikes/care/care'
import { inspectionState, type InspectionState } from '../../../core/bikes/bike/inspection'
import { listBikes } from '../../bikes/bikes'
import { lastInspections } from '../../bikes/inspections'
import type { Scope } from '../../platform/accounts/scope'
import type { DbExecutor } from '../../platform/db/connection'
import { getStudio } from '../../studio/studio'
import { careOfBikes } from './care'

/** Every bike in use with the state of its inspection, for a round through the hall. */
export type InspectionRound = Readonly<{
  studio: string
  timeZone: string
  now: Date
  bikes: readonly Readonly<{
    id: string
    number: number
    type: string
    state: InspectionState
    care: readonly CareState[]
  }>[]
}>

export async function inspectionRound(db: DbExecutor, scope: Scope, now: Date): Promise<InspectionRound> {
  const { name, timeZone } = await getStudio(db, scope)
  const [bikes, looked] = [await listBikes(db, scope), await lastInspections(db, scope)]
  const care = await careOfBikes(db, scope, now)
  return {
    studio: name,
    timeZone,
    now,
    bikes: bikes.map(({ id, number, type, openFaults }) => ({
      id,
      number,
      type: type.name,
      state: inspectionState(looked.get(id)?.getTime() ?? null, openFaults, now.getTime()),
      care: care.get(id) ?? [],
    })),
  }
}
