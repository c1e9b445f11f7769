import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm'
import type { Bike, BikeType } from '../../core/bike/bike'
import { withTransaction, type Database, type DbExecutor } from '../db/connection'
import { errnoOf, isDuplicate, REFERRED_TO } from '../db/errors'
import { bike, bikeFault, bikeType } from '../db/schema'

/** One machine with the version of its type that is in force. A bike with an open fault is not offered. */
export type StudioBike = Readonly<{
  id: string
  number: number
  own: Bike
  type: BikeType
  typeId: string
  lineId: string
  openFaults: number
}>

const columns = {
  id: bike.id,
  number: bike.number,
  own: bike.own,
  type: bikeType.definition,
  typeId: bikeType.id,
  lineId: bikeType.lineId,
}

/** All bikes of a studio, by number. */
export async function bikesOf(db: DbExecutor, studioId: string): Promise<StudioBike[]> {
  const found = await db
    .select(columns)
    .from(bike)
    .innerJoin(bikeType, eq(bike.typeId, bikeType.id))
    .where(eq(bike.studioId, studioId))
    .orderBy(asc(bike.number))
  const faults = await db
    .select({ bikeId: bikeFault.bikeId, open: count() })
    .from(bikeFault)
    .where(isNull(bikeFault.clearedAt))
    .groupBy(bikeFault.bikeId)
  const openOf = new Map(faults.map((f) => [f.bikeId, f.open]))
  return found.map((b) => ({ ...b, openFaults: openOf.get(b.id) ?? 0 }))
}

/** One bike, or null when there is none of this id. */
export async function bikeById(db: DbExecutor, id: string): Promise<StudioBike | null> {
  const [found] = await db
    .select(columns)
    .from(bike)
    .innerJoin(bikeType, eq(bike.typeId, bikeType.id))
    .where(eq(bike.id, id))
  if (!found) return null
  const [{ open }] = await db
    .select({ open: count() })
    .from(bikeFault)
    .where(and(eq(bikeFault.bikeId, id), isNull(bikeFault.clearedAt)))
  return { ...found, openFaults: open }
}

/** Bikes that may be offered to a rider. */
export const offered = (bikes: readonly StudioBike[]): StudioBike[] => bikes.filter((b) => b.openFaults === 0)

/** Adds machines of a type under numbers nobody has, all or none; the numbers already taken, or none when all were added. */
export async function addBikes(
  db: Database,
  added: Readonly<{ studioId: string; typeId: string; numbers: readonly number[]; own: Bike }>,
): Promise<number[]> {
  const { studioId, typeId, numbers, own } = added
  try {
    await withTransaction(db, (tx) =>
      tx.insert(bike).values(numbers.map((number) => ({ id: crypto.randomUUID(), studioId, typeId, number, own }))),
    )
    return []
  } catch (error) {
    if (!isDuplicate(error, 'bike_number')) throw error
    const taken = await db
      .select({ number: bike.number })
      .from(bike)
      .where(and(eq(bike.studioId, studioId), inArray(bike.number, [...numbers])))
    return taken.map((b) => b.number).sort((a, b) => a - b)
  }
}

/** Removes a machine nothing was ever recorded on; false where something was, or where there is none. */
export async function removeBike(db: DbExecutor, id: string): Promise<boolean> {
  try {
    const [{ affectedRows }] = await db.delete(bike).where(eq(bike.id, id))
    return affectedRows > 0
  } catch (error) {
    if (errnoOf(error) === REFERRED_TO) return false
    throw error
  }
}
