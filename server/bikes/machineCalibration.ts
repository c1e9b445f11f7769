import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { opensAtMs } from '../../core/bikes/care/care'
import { carriedSaddle } from '../../core/bikes/saddles/saddle'
import { calibrateMachine } from '../../core/bikes/calibration/machineCalibration'
import type { Scope } from '../platform/accounts/scope'
import type { DbExecutor } from '../platform/db/connection'
import { bike, bikeCare, bikeReading, bikeType, saddle, saddleFitting } from './tables'

const machine = { id: bike.id, typeId: bike.typeId }

/**
 * Makes others that change this machine wait for the rest of the transaction; false where the studio has none of this
 * id.
 */
export async function lockMachine(tx: DbExecutor, scope: Scope, bikeId: string): Promise<boolean> {
  const found = await tx
    .select({ id: bike.id })
    .from(bike)
    .where(and(eq(bike.id, bikeId), eq(bike.studioId, scope.studioId)))
    .for('update')
  return found.length > 0
}

/**
 * Computes one machine's own offsets from its readings and the version of its type in force, and stores them with what
 * they were computed from. The one place that writes them; within the caller's transaction, which it makes wait for
 * others that change this machine.
 */
export async function recomputeMachine(tx: DbExecutor, scope: Scope, bikeId: string): Promise<void> {
  const condition = and(eq(bike.id, bikeId), eq(bike.studioId, scope.studioId))
  await recompute(tx, await tx.select(machine).from(bike).where(condition).for('update'))
}

/** The same for every machine of a version, whose type the caller has locked. */
export async function recomputeMachinesOf(tx: DbExecutor, typeId: string): Promise<void> {
  await recompute(
    tx,
    await tx.select(machine).from(bike).where(eq(bike.typeId, typeId)).orderBy(asc(bike.id)).for('update'),
  )
}

async function recompute(tx: DbExecutor, machines: readonly Readonly<{ id: string; typeId: string }>[]): Promise<void> {
  if (machines.length === 0) return
  const ids = machines.map((m) => m.id)
  const types = await tx
    .select({ id: bikeType.id, definition: bikeType.definition, calibration: bikeType.calibration })
    .from(bikeType)
    .where(inArray(bikeType.id, [...new Set(machines.map((m) => m.typeId))]))
  const readings = await tx
    .select({
      id: bikeReading.id,
      bikeId: bikeReading.bikeId,
      row: bikeReading.row,
      createdAt: bikeReading.createdAt,
    })
    .from(bikeReading)
    .where(and(inArray(bikeReading.bikeId, ids), isNull(bikeReading.withdrawnAt)))
    .orderBy(asc(bikeReading.position))
  const replaced = await tx
    .select({ bikeId: bikeCare.bikeId, part: bikeCare.part, deed: bikeCare.deed, at: bikeCare.createdAt })
    .from(bikeCare)
    .where(and(inArray(bikeCare.bikeId, ids), eq(bikeCare.deed, 'replaced'), isNull(bikeCare.withdrawnAt)))
  const fitted = await tx
    .select({ bikeId: saddleFitting.bikeId, model: saddle.model })
    .from(saddleFitting)
    .leftJoin(saddle, eq(saddle.id, saddleFitting.saddleId))
    .where(inArray(saddleFitting.bikeId, ids))
    .orderBy(asc(saddleFitting.position))
  for (const { id, typeId } of machines) {
    const type = types.find((t) => t.id === typeId)!
    const deeds = replaced.filter((one) => one.bikeId === id).map((one) => ({ ...one, atMs: one.at.getTime() }))
    const [tapeFrom, tiltFrom] = [opensAtMs('tape', deeds), opensAtMs('tilt', deeds)]
    // What was measured on a part that was replaced since counts no longer.
    const here = readings.filter(
      (r) => r.bikeId === id && r.createdAt.getTime() > (r.row.kind === 'tilt' ? tiltFrom : tapeFrom),
    )
    const { bike: measured, from } = calibrateMachine(
      type.definition,
      here.map((r) => r.row),
      type.calibration?.sdMm,
    )
    const model = fitted.findLast((one) => one.bikeId === id)?.model
    const machineCalibration = model ? { ...measured, saddle: carriedSaddle(model, type.definition) } : measured
    const machineCalibrationSource = { typeId, readings: from.map((i) => here[i].id) }
    await tx.update(bike).set({ machineCalibration, machineCalibrationSource }).where(eq(bike.id, id))
  }
}
