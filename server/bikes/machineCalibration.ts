import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { machineFrom } from '../../core/calibration/machine'
import type { DbExecutor } from '../db/connection'
import { bike, bikeReading, bikeType } from '../db/schema'

/**
 * Computes one machine's own offsets from its readings and the version of its type in force, and stores them with what
 * they were computed from. The one place that writes them; within the caller's transaction, which it makes wait for
 * others that change this machine.
 */
export async function recomputeMachine(tx: DbExecutor, bikeId: string): Promise<void> {
  await recompute(
    tx,
    await tx.select({ id: bike.id, typeId: bike.typeId }).from(bike).where(eq(bike.id, bikeId)).for('update'),
  )
}

/** The same for every machine of a version. */
export async function recomputeMachinesOf(tx: DbExecutor, typeId: string): Promise<void> {
  await recompute(
    tx,
    await tx
      .select({ id: bike.id, typeId: bike.typeId })
      .from(bike)
      .where(eq(bike.typeId, typeId))
      .orderBy(asc(bike.id))
      .for('update'),
  )
}

async function recompute(tx: DbExecutor, machines: readonly Readonly<{ id: string; typeId: string }>[]): Promise<void> {
  if (machines.length === 0) return
  const types = await tx
    .select({ id: bikeType.id, definition: bikeType.definition, calibration: bikeType.calibration })
    .from(bikeType)
    .where(inArray(bikeType.id, [...new Set(machines.map((m) => m.typeId))]))
  const readings = await tx
    .select({ id: bikeReading.id, bikeId: bikeReading.bikeId, row: bikeReading.row })
    .from(bikeReading)
    .where(
      and(
        inArray(
          bikeReading.bikeId,
          machines.map((m) => m.id),
        ),
        isNull(bikeReading.withdrawnAt),
      ),
    )
    .orderBy(asc(bikeReading.position))
  for (const { id, typeId } of machines) {
    const type = types.find((t) => t.id === typeId)!
    const here = readings.filter((r) => r.bikeId === id)
    const { own, from } = machineFrom(
      type.definition,
      here.map((r) => r.row),
      type.calibration?.sdMm,
    )
    await tx
      .update(bike)
      .set({ own, ownFrom: { typeId, readings: from.map((i) => here[i].id) } })
      .where(eq(bike.id, id))
  }
}
