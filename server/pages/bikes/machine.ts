import { schoolOf, type School } from '../../../core/base/school/school'
import { openedParts, type CarePart, type CareState } from '../../../core/bikes/care/care'
import { inspectionState, type InspectionState } from '../../../core/bikes/bike/inspection'
import type { PooledResidual } from '../../../core/setups/learning/machineResiduals'
import { listBikeReadings } from '../../bikes/bikeReadings'
import { findBike, listBikes, type StudioBike } from '../../bikes/bikes'
import { careIntervalsOf, listCare } from '../../bikes/care'
import { codesOfBikes, printedCode } from '../../bikes/codes'
import { listFaults, listInspections } from '../../bikes/inspections'
import { can } from '../../platform/accounts/can'
import { fittingOf, listSaddles } from '../../bikes/saddles'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { listSetupsBetween } from '../../setups/finishedSetups'
import { riderResiduals } from '../../setups/riderResiduals'
import { getStudio } from '../../studio/studio'
import { careOfBikes } from './care'

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
  /** How its parts stand, the most urgent first; empty for a retired machine. */
  care: readonly CareState[]
  intervals: Awaited<ReturnType<typeof careIntervalsOf>>
  deeds: Awaited<ReturnType<typeof listCare>>
  saddles: Awaited<ReturnType<typeof listSaddles>>
  fitting: Awaited<ReturnType<typeof fittingOf>>
  /** Parts replaced since what they moved was last measured. */
  opened: readonly Readonly<{ part: CarePart; at: Date }>[]
  /** Riders set up between the last good tape and the one that found the machine changed. */
  doubtful: Awaited<ReturnType<typeof listSetupsBetween>>
}>

/** One machine; null where the studio has no such bike. */
export async function machinePage(db: Database, scope: Scope, id: string, now: Date): Promise<MachinePage | null> {
  const bike = await findBike(db, scope, id)
  if (!bike) return null
  const [studio, faults, readings, inspections, deeds, intervals, care, saddles, fitting] = await Promise.all([
    getStudio(db, scope),
    listFaults(db, scope, id),
    listBikeReadings(db, scope, id),
    listInspections(db, scope, id),
    listCare(db, scope, id),
    careIntervalsOf(db, scope, id),
    careOfBikes(db, scope, now),
    listSaddles(db, scope),
    fittingOf(db, scope, id),
  ])
  const code = bike.retiredAt ? null : (await codesOfBikes(db, scope, [id], now)).get(id)
  const residuals = await riderResiduals(db, scope, await listBikes(db, scope), now)
  const changed = readings.findLastIndex(({ row }) => row.kind === 'tape' && row.resetsBaseline)
  const lastGood = readings.slice(0, Math.max(0, changed)).findLast(({ row }) => row.kind === 'tape')
  const lastAtMs = (kind: 'tape' | 'tilt') =>
    readings.findLast(({ row }) => row.kind === kind)?.createdAt.getTime() ?? -Infinity
  const opened = openedParts(
    deeds.map((one) => ({ ...one, atMs: one.createdAt.getTime() })),
    { tape: lastAtMs('tape'), tilt: lastAtMs('tilt'), pedals: now.getTime() - PEDALS_SHOWN_MS },
  ).map(({ part, createdAt }) => ({ part, at: createdAt }))
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
    care: care.get(id) ?? [],
    intervals,
    deeds,
    saddles,
    fitting,
    opened,
    doubtful:
      changed >= 0 && lastGood
        ? await listSetupsBetween(db, scope, id, lastGood.createdAt, readings[changed].createdAt)
        : opened.length > 0
          ? await listSetupsBetween(db, scope, id, new Date(opened[0].at.getTime() - DOUBTFUL_MS), opened[0].at)
          : [],
  }
}

const DAY_MS = 86_400_000
/** New pedals are measured on the type: they are spoken of for so long. */
const PEDALS_SHOWN_MS = 30 * DAY_MS
/** Set-ups older than this before a part was replaced are not listed. */
const DOUBTFUL_MS = 180 * DAY_MS
