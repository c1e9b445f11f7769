import { and, desc, eq, gte, inArray } from 'drizzle-orm'
import { contactPoints, resolveMarks } from '../../core/bike/contactPoints'
import type { Marks } from '../../core/conventions'
import { referenceMarks } from '../../core/bike/referenceMarks'
import type { Evidence } from '../../core/evidence/registry'
import { heightByKnee } from '../../core/learning/machineChecks'
import { REPORT_PROBABILITY, type MachineCheck, type PooledResidual } from '../../core/learning/machineResiduals'
import type { Scope } from '../accounts/scope'
import { staleWhileRevalidate } from '../compute/staleWhileRevalidate'
import type { Database, DbExecutor } from '../db/connection'
import { bikeType } from '../db/tables/bikes'
import { setup } from '../db/tables/riders'
import { addBikeReading, listBikeReadings, type BikeWriteResult } from '../bikes/bikeReadings'
import { listBikes, type StudioBike } from '../bikes/bikes'
import { latestSaved, standingRows } from './learned'
import { validateRow } from './validateRow'

/** Knees read longer ago tell of riders and machines as they were then. */
const WITHIN_MS = 365 * 86_400_000
/** So many of the latest set-ups are pooled. */
const MAX_SETUPS = 1000
/** Where the offset known of a machine has moved by less, its checks before and after are of one machine, mm. */
const SAME_MACHINE_MM = 2

/** Rows that say how a knee bent, where, and on what sole. */
const TELLING: ReadonlySet<Evidence['kind']> = new Set(['set', 'rider', 'kneeAngle', 'kneeByEye'])

// What was said before a machine's offset moved must not be taken once more: nothing older serves.
const pooled = staleWhileRevalidate<Readonly<{ machines: readonly PooledResidual[] }>>('machineResiduals', {
  olderServes: false,
})

/**
 * What the riders checked in the last year say of the machines they were checked on, by bike; only those that are more
 * likely off than as their type. Empty while it is being worked out.
 */
export async function riderResiduals(
  db: DbExecutor,
  scope: Scope,
  bikes: readonly StudioBike[],
  now: Date,
): Promise<ReadonlyMap<string, PooledResidual>> {
  const stands = bikes.map(({ id, typeId, machineCalibration }) => [id, typeId, machineCalibration.offsetsMm])
  const of = JSON.stringify([await latestSaved(db, scope), stands])
  const answer = await pooled(scope.studioId, of, async () => ({ checks: await machineChecks(db, scope, bikes, now) }))
  const here = new Set(bikes.map(({ id }) => id))
  const named =
    answer?.machines.filter(({ machine, offChance }) => offChance >= REPORT_PROBABILITY && here.has(machine)) ?? []
  return new Map(named.map((one) => [one.machine, one]))
}

/**
 * One check a set-up: the height that was right by this machine's marks, as it is known today. Those of a machine that
 * was another then (its type was measured anew, its own offset was found to have moved) stand under a name of their
 * own: they tell of the rider.
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

/**
 * Takes what the riders say of a machine as how its saddle stands, until a tape is laid: only where they do say it now.
 */
export async function takeRiderResidual(
  db: Database,
  scope: Scope,
  { id, bikeId }: Readonly<{ id: string; bikeId: string }>,
  now: Date,
): Promise<TakenResult> {
  const bikes = await listBikes(db, scope)
  const bike = bikes.find((one) => one.id === bikeId)
  if (!bike) return { outcome: 'gone' }
  // Sent again: what was taken is known by now, and they say nothing more.
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
