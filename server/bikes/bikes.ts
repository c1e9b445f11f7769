import { and, asc, count, desc, eq, inArray, isNotNull, isNull, sql, type SQL } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bikes/bike/bike'
import { calibrateMachine } from '../../core/bikes/calibration/machineCalibration'
import type { Scope } from '../platform/accounts/scope'
import { withTransaction, type Database, type DbExecutor } from '../platform/db/connection'
import { errnoOf, isDuplicate, REFERRED_TO } from '../platform/db/errors'
import { bike, bikeFault, bikeType, bikeTypeLine } from './tables'
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
  /** Retired bikes are offered nowhere. */
  retiredAt: Date | null
}>

const columns = {
  id: bike.id,
  number: bike.number,
  machineCalibration: bike.machineCalibration,
  type: bikeType.definition,
  typeId: bikeType.id,
  lineId: bikeType.lineId,
  retiredAt: bike.retiredAt,
}

/** All bikes of the studio that are not retired, by number. */
export const listBikes = (db: DbExecutor, scope: Scope): Promise<StudioBike[]> =>
  bikesWhere(db, scope, isNull(bike.retiredAt))

/** All bikes of the studio, retired ones too, by number: for what was recorded on them. */
export const listBikesOfRecords = (db: DbExecutor, scope: Scope): Promise<StudioBike[]> => bikesWhere(db, scope)

async function bikesWhere(db: DbExecutor, scope: Scope, which?: SQL): Promise<StudioBike[]> {
  const found = await db
    .select(columns)
    .from(bike)
    .innerJoin(bikeType, eq(bike.typeId, bikeType.id))
    .where(and(eq(bike.studioId, scope.studioId), which))
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
    if (!isDuplicate(error, 'bike_taken_number')) throw error
    const taken = await db
      .select({ number: bike.number })
      .from(bike)
      .where(and(eq(bike.studioId, studioId), inArray(bike.number, [...numbers])))
    return { outcome: 'numbersTaken', numbers: taken.map((b) => b.number).sort((a, b) => a - b) }
  }
}

/** Bikes that were retired, the latest first: number, type and when. */
export const listRetiredBikes = (
  db: DbExecutor,
  scope: Scope,
): Promise<Readonly<{ id: string; number: number; type: string; retiredAt: Date }>[]> =>
  db
    .select({
      id: bike.id,
      number: bike.number,
      type: bikeTypeLine.name,
      retiredAt: sql<Date>`${bike.retiredAt}`.mapWith(bike.retiredAt),
    })
    .from(bike)
    .innerJoin(bikeType, eq(bikeType.id, bike.typeId))
    .innerJoin(bikeTypeLine, eq(bikeTypeLine.id, bikeType.lineId))
    .where(and(eq(bike.studioId, scope.studioId), isNotNull(bike.retiredAt)))
    .orderBy(desc(bike.retiredAt), asc(bike.number))

/** `numberTaken`: another bike in use has this number; `gone`: the studio has no such bike. */
export type BikeChangeResult = Readonly<{ outcome: 'kept' | 'numberTaken' | 'gone' }>

/** Gives a machine another number; everything recorded on it is under the new one. */
export async function renumberBike(
  db: DbExecutor,
  scope: Scope,
  id: string,
  number: number,
): Promise<BikeChangeResult> {
  return changeBike(db, scope, id, { number })
}

/** Takes a retired bike back into use under its number. */
export async function returnBike(db: DbExecutor, scope: Scope, id: string): Promise<BikeChangeResult> {
  return changeBike(db, scope, id, { retiredAt: null })
}

async function changeBike(
  db: DbExecutor,
  scope: Scope,
  id: string,
  change: Readonly<{ number?: number; retiredAt?: null }>,
): Promise<BikeChangeResult> {
  const own = and(eq(bike.id, id), eq(bike.studioId, scope.studioId))
  try {
    await db.update(bike).set(change).where(own)
  } catch (error) {
    if (isDuplicate(error, 'bike_taken_number')) return { outcome: 'numberTaken' }
    throw error
  }
  return (await db.select({ id: bike.id }).from(bike).where(own)).length > 0 ? { outcome: 'kept' } : { outcome: 'gone' }
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
