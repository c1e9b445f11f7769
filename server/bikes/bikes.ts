import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import { calibrateMachine } from '../../core/calibration/machineCalibration'
import type { Scope } from '../accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { errnoOf, isDuplicate, REFERRED_TO } from '../db/errors'
import { bike, bikeFault, bikeType } from '../db/tables/bikes'
import { listTypes } from './versions'

/** One machine with the version of its type that is in force. A bike with an open fault is not offered. */
export type StudioBike = Readonly<{
  id: string
  number: number
  machineCalibration: Bike
  type: BikeType
  typeId: string
  lineId: string
  openFaults: number
}>

const columns = {
  id: bike.id,
  number: bike.number,
  machineCalibration: bike.machineCalibration,
  type: bikeType.definition,
  typeId: bikeType.id,
  lineId: bikeType.lineId,
}

/** All bikes of the studio, by number. */
export async function listBikes(db: DbExecutor, scope: Scope): Promise<StudioBike[]> {
  const found = await db
    .select(columns)
    .from(bike)
    .innerJoin(bikeType, eq(bike.typeId, bikeType.id))
    .where(eq(bike.studioId, scope.studioId))
    .orderBy(asc(bike.number))
  const faults = await db
    .select({ bikeId: bikeFault.bikeId, open: count() })
    .from(bikeFault)
    .where(and(eq(bikeFault.studioId, scope.studioId), isNull(bikeFault.resolvedAt)))
    .groupBy(bikeFault.bikeId)
  const openOf = new Map(faults.map((f) => [f.bikeId, f.open]))
  // Machines of one version share its definition.
  const types = new Map(found.map(({ typeId, type }) => [typeId, type]))
  return found.map((b) => ({ ...b, type: types.get(b.typeId)!, openFaults: openOf.get(b.id) ?? 0 }))
}

/** One bike, or null when the studio has none of this id. */
export async function findBike(db: DbExecutor, scope: Scope, id: string): Promise<StudioBike | null> {
  const [found] = await db
    .select(columns)
    .from(bike)
    .innerJoin(bikeType, eq(bike.typeId, bikeType.id))
    .where(and(eq(bike.id, id), eq(bike.studioId, scope.studioId)))
  if (!found) return null
  const [{ open }] = await db
    .select({ open: count() })
    .from(bikeFault)
    .where(and(eq(bikeFault.bikeId, id), isNull(bikeFault.resolvedAt)))
  return { ...found, openFaults: open }
}

/** Bikes that may be offered to a rider. */
export const availableBikes = (bikes: readonly StudioBike[]): StudioBike[] => bikes.filter((b) => b.openFaults === 0)

export type AddBikesResult =
  | Readonly<{ outcome: 'kept' }>
  | Readonly<{ outcome: 'noSuchType' }>
  /** Numbers that are taken; nothing was added. */
  | Readonly<{ outcome: 'numbersTaken'; numbers: readonly number[] }>

/** Adds machines of a type under numbers nobody has, all or none. */
export async function addBikes(
  db: Database,
  scope: Scope,
  lineId: string,
  numbers: readonly number[],
): Promise<AddBikesResult> {
  const { studioId } = scope
  const type = (await listTypes(db, scope)).find((t) => t.lineId === lineId)
  if (!type) return { outcome: 'noSuchType' }
  const { bike: machineCalibration } = calibrateMachine(type.bikeType, [], type.calibration?.sdMm)
  try {
    await withTransaction(db, (tx) =>
      tx
        .insert(bike)
        .values(
          numbers.map((number) => ({ id: crypto.randomUUID(), studioId, typeId: type.id, number, machineCalibration })),
        ),
    )
    return { outcome: 'kept' }
  } catch (error) {
    if (!isDuplicate(error, 'bike_number')) throw error
    const taken = await db
      .select({ number: bike.number })
      .from(bike)
      .where(and(eq(bike.studioId, studioId), inArray(bike.number, [...numbers])))
    return { outcome: 'numbersTaken', numbers: taken.map((b) => b.number).sort((a, b) => a - b) }
  }
}

/** Removes a machine nothing was ever recorded on; false where something was, or where there is none. */
export async function deleteBike(db: DbExecutor, scope: Scope, id: string): Promise<boolean> {
  try {
    const [{ affectedRows }] = await db.delete(bike).where(and(eq(bike.id, id), eq(bike.studioId, scope.studioId)))
    return affectedRows > 0
  } catch (error) {
    if (errnoOf(error) === REFERRED_TO) return false
    throw error
  }
}
