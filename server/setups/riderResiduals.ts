import { and, desc, eq, gte, inArray } from 'drizzle-orm'
import { contactPoints, resolveMarks } from '../../core/bikes/bike/contactPoints'
import type { Marks } from '../../core/base/conventions'
import { referenceMarks } from '../../core/bikes/bike/referenceMarks'
import type { Evidence } from '../../core/riders/evidence/registry'
import { heightByKnee } from '../../core/setups/learning/machineChecks'
import { REPORT_PROBABILITY, type MachineCheck, type PooledResidual } from '../../core/setups/learning/machineResiduals'
import type { Scope } from '../platform/accounts/scope'
import { staleWhileRevalidate } from '../platform/compute/staleWhileRevalidate'
import type { Database, DbExecutor } from '../platform/db/connection'
import { bikeType } from '../bikes/tables'
import { setup } from './tables'
import { addBikeReading, listBikeReadings, type BikeWriteResult } from '../bikes/bikeReadings'
import { listBikes, type StudioBike } from '../bikes/bikes'
import { latestSaved, standingRows } from './learned'
import { validateRow } from './validateRow'

/** Older knee readings describe riders and machines of that time. */
const WITHIN_MS = 365 * 86_400_000
/** So many of the latest set-ups are pooled. */
const MAX_SETUPS = 1000
/** A machine's offset that changed by less leaves its checks comparable, mm. */
const SAME_MACHINE_MM = 2

/** Kinds of rows with knee flexion, marks and sole. */
const TELLING: ReadonlySet<Evidence['kind']> = new Set(['set', 'rider', 'kneeAngle', 'kneeByEye'])

// A result from before a machine's offset moved must not be applied twice: stale answers are not served.
const pooled = staleWhileRevalidate<Readonly<{ machines: readonly PooledResidual[] }>>('machineResiduals', {
  olderServes: false,
})

/**
 * Offsets of machines by bike, estimated from the riders checked on them in the last year; only machines that are more
 * probably off than not. Empty while the estimate is computed.
 */
export async function riderResiduals(
  db: DbExecutor,
  scope: Scope,
  bikes: readonly StudioBike[],
  now: Date,
): Promise<ReadonlyMap<string, PooledResidual>> {
  const machines = bikes.map(({ id, typeId, machineCalibration }) => [id, typeId, machineCalibration.offsetsMm])
  const of = JSON.stringify([await latestSaved(db, scope), machines])
  const answer = await pooled(scope.studioId, of, async () => ({ checks: await machineChecks(db, scope, bikes, now) }))
  const here = new Set(bikes.map(({ id }) => id))
  const named =
    answer?.machines.filter(({ machine, offChance }) => offChance >= REPORT_PROBABILITY && here.has(machine)) ?? []
  return new Map(named.map((one) => [one.machine, one]))
}

/**
 * One check per set-up: the right height by this machine's marks under today's calibration. Checks from before a
 * change of the machine (its type was recalibrated, its offset moved) get a machine name of their own: they still
 * inform the rider's height.
 */
export async function machineChecks(
  db: DbExecutor,
  scope: Scope,
  bikes: readonly StudioBike[],
  now: Date,
): Promise<MachineCheck[]> {
  const found = await db
    .select({
      id: setup.id,
      memberId: setup.memberId,
      bikeId: setup.bikeId,
      typeId: setup.typeId,
      machineCalibration: setup.machineCalibration,
      by: setup.startedBy,
    })
    .from(setup)
    .where(and(eq(setup.studioId, scope.studioId), gte(setup.finishedAt, new Date(now.getTime() - WITHIN_MS))))
    .orderBy(desc(setup.finishedAt))
    .limit(MAX_SETUPS)
  if (found.length === 0) return []
  // By themselves: beside each set-up a definition would weigh more than all else.
  const types = await db
    .select({ id: bikeType.id, type: bikeType.definition })
    .from(bikeType)
    .where(inArray(bikeType.id, [...new Set(found.map(({ typeId }) => typeId))]))
  const typeOf = new Map(types.map(({ id, type }) => [id, type]))
  const rowsOf = new Map<string, Awaited<ReturnType<typeof standingRows>>>()
  for (const row of await standingRows(
    db,
    scope,
    found.map(({ id }) => id),
  ))
    rowsOf.set(row.setupId, [...(rowsOf.get(row.setupId) ?? []), row])
  const bikeOf = new Map(bikes.map((one) => [one.id, one]))
  return found.flatMap(({ id, memberId, bikeId, typeId, machineCalibration, by }) => {
    const type = typeOf.get(typeId)!
    const today = bikeOf.get(bikeId)
    const offset = (of: typeof machineCalibration) => of.offsetsMm?.seatHeight ?? 0
    const same =
      today?.typeId === typeId &&
      Math.abs(offset(today.machineCalibration) - offset(machineCalibration)) <= SAME_MACHINE_MM
    const evidence = (rowsOf.get(id) ?? [])
      .map(({ row }) => row)
      .filter((row) => TELLING.has(row.kind) && 'row' in validateRow(type, row))
    const height = heightByKnee({
      bikeType: type,
      bike: same ? today.machineCalibration : machineCalibration,
      evidence,
    })
    if (!height) return []
    const { heightMm, sdMm, byEye } = height
    const check = { machine: same ? bikeId : `${bikeId} before`, rider: memberId, heightMm, sdMm, type: typeId }
    return [byEye ? { ...check, eye: by } : check]
  })
}

export type TakenResult = BikeWriteResult | Readonly<{ outcome: 'notNamed' }>

/** Applies the riders' estimate as the offset of a machine until the next tape reading; only a current estimate. */
export async function takeRiderResidual(
  db: Database,
  scope: Scope,
  { id, bikeId }: Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<TakenResult> {
  const bikes = await listBikes(db, scope)
  const bike = bikes.find((one) => one.id === bikeId)
  if (!bike) return { outcome: 'gone' }
  // A retry: the offset is applied already, so the estimate no longer names the machine.
  if ((await listBikeReadings(db, scope, bikeId)).some((reading) => reading.id === id)) return { outcome: 'kept' }
  const residual = (await riderResiduals(db, scope, bikes, now)).get(bikeId)
  if (!residual) return { outcome: 'notNamed' }
  const marks: Marks = referenceMarks(bike.type)
  const { offsetsMm } = bike.machineCalibration
  const seatHeight = (offsetsMm?.seatHeight ?? 0) + residual.mm
  const { positions } = resolveMarks(bike.type, marks)
  const { lengths } = contactPoints(bike.type, { offsetsMm: { ...offsetsMm, seatHeight } }, positions)
  const row = {
    kind: 'riders' as const,
    marks,
    saddleHeightMm: Number(lengths.saddleHeightMm.toFixed(1)),
    sdMm: Number(((residual.toMm - residual.fromMm) / 4).toFixed(2)),
    riders: residual.riders,
  }
  return addBikeReading(db, scope, { id, bikeId, row }, now)
}
